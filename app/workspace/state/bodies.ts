import { useEffect, useState } from 'react';
import type { FileHash } from '#core/model/ids.ts';
import type { Draft, DraftContent } from '#core/model/work.ts';
import { bodyText, contentOfText, packText, unpackText, type Body } from '../storage/bodies.ts';
import { useWorkspace } from '../use-workspace.ts';

/** So many documents stay at hand: the one that is written, and those that undo leads to. */
const AT_HAND = 20;

/** The documents of drafts and versions, loaded when they are wanted. */
export class Bodies {
  private readonly atHand = new Map<string, DraftContent>();

  constructor(private readonly stored: (hash: string) => Promise<Uint8Array<ArrayBuffer> | undefined>) {}

  private keep(hash: string, content: DraftContent): void {
    this.atHand.delete(hash);
    this.atHand.set(hash, content);
    const [oldest] = this.atHand.keys();
    if (this.atHand.size > AT_HAND) this.atHand.delete(oldest);
  }

  /** A document as it is to be stored. It stays at hand, as that very object. */
  async pack(content: DraftContent): Promise<Body> {
    const body = await packText(bodyText(content));
    this.keep(body.hash, content);
    return body;
  }

  /** The document under a hash; null where there is none, as for files, or when it was written on since. */
  async load(hash: string | null): Promise<DraftContent | null> {
    if (hash === null) return null;
    const known = this.atHand.get(hash);
    if (known !== undefined) return known;
    const bytes = await this.stored(hash);
    if (bytes === undefined) return null;
    const content = contentOfText(await unpackText(bytes));
    this.keep(hash, content);
    return content;
  }
}

/** A document, and under which hash it is stored. */
export interface StoredContent {
  readonly content: DraftContent;
  readonly hash: FileHash;
}

/** The document of a draft; null while the first is loaded. The one of before stands until the next is there. */
export function useDraftContent(draft: Draft | null): StoredContent | null {
  const workspace = useWorkspace();
  const [shown, show] = useState<{ readonly draftId: string; readonly stored: StoredContent } | null>(null);
  const id = draft?.id ?? null;
  const hash = draft?.bodyHash ?? null;
  useEffect(() => {
    if (id === null || hash === null) return;
    let over = false;
    workspace.inBackground(async () => {
      const content = await workspace.bodies.load(hash);
      if (!over && content !== null) show({ draftId: id, stored: { content, hash } });
    });
    return () => {
      over = true;
    };
  }, [workspace, id, hash]);
  return shown !== null && shown.draftId === id && hash !== null ? shown.stored : null;
}

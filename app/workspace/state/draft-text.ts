import { useMemo } from 'react';
import type { FileHash } from '#core/model/ids.ts';
import type { Draft, Version } from '#core/model/work.ts';
import { paperOfDraft } from '#core/paper/draft.ts';
import type { Paper } from '#core/paper/paper.ts';
import type { StoredContent } from './bodies.ts';
import type { Workspace } from '../workspace.ts';
import { paperFor, usePaper } from './papers.ts';

/** The text of a draft, written here or in a file that came from elsewhere. */
export interface DraftText {
  readonly paper: Paper;
  /** Of the document or the file that it is the text of. */
  readonly hash: FileHash;
  /** Where its pages begin, of a file that has pages; else empty. */
  readonly pageStarts: readonly number[];
}

/**
 * The text of a draft; null while it is loaded or read, and where there is none.
 * @param stored the document of a draft that is written here
 */
export function useDraftText(draft: Draft | null, stored: StoredContent | null): DraftText | null {
  const file = usePaper(draft?.paperFile ?? null);
  const isFile = draft !== null && draft.paperFile !== null;
  const written = useMemo(
    () =>
      stored === null ? null : { paper: paperOfDraft(stored.content), hash: stored.hash, pageStarts: [] },
    [stored],
  );
  const filed = useMemo(
    () => (file === null ? null : { paper: file.paper, hash: file.hash, pageStarts: file.pageStarts }),
    [file],
  );
  return isFile ? filed : written;
}

/** The text of a version; null where what it was made of isn't here any more. */
export async function textOfVersion(
  workspace: Workspace,
  { bodyHash, fileHash }: Version,
): Promise<Paper | null> {
  const content = await workspace.bodies.load(bodyHash);
  if (content !== null) return paperOfDraft(content);
  return fileHash === null ? null : ((await paperFor(workspace, fileHash))?.paper ?? null);
}

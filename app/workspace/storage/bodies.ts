import * as v from 'valibot';
import type { FileHash } from '#core/model/ids.ts';
import { DraftContent } from '#core/model/work.ts';
import { hashOf } from '#formats/hash.ts';
import type { WorkspaceDatabase } from './database.ts';

/**
 * Bodies of drafts and versions: the editor's document as JSON, stored once under the SHA-256 of that JSON, compressed. The
 * records hold the hash, and so does what can be undone.
 */

/** A body as it is stored. */
export interface Body {
  readonly hash: FileHash;
  /** The JSON in UTF-8, as gzip (RFC 1952). */
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** The JSON of a document, the same for the same document in whatever order its own fields stand. */
export function bodyText({ schema, doc }: DraftContent): string {
  return JSON.stringify({ schema, doc });
}

async function through(bytes: Uint8Array<ArrayBuffer>, by: CompressionStream | DecompressionStream) {
  return new Uint8Array(await new Response(new Blob([bytes]).stream().pipeThrough(by)).arrayBuffer());
}

export async function packText(text: string): Promise<Body> {
  const bytes = new TextEncoder().encode(text);
  return { hash: await hashOf(bytes), bytes: await through(bytes, new CompressionStream('gzip')) };
}

export async function unpackText(bytes: Uint8Array<ArrayBuffer>): Promise<string> {
  return new TextDecoder().decode(await through(bytes, new DecompressionStream('gzip')));
}

/** @throws ValiError or SyntaxError for what is no document */
export function contentOfText(text: string): DraftContent {
  return v.parse(DraftContent, JSON.parse(text));
}

const OfBody = v.looseObject({ bodyHash: v.string() });

/** The hash of the body that a record has; none for one without. */
export function bodyHashIn(record: unknown): string[] {
  const parsed = v.safeParse(OfBody, record);
  return parsed.success ? [parsed.output.bodyHash] : [];
}

/**
 * Takes out the documents that nothing leads to any more: no draft, no version, nothing that can be taken back or done
 * again. One act, so that none is taken that another tab has just saved.
 */
export async function sweepBodies(database: WorkspaceDatabase): Promise<void> {
  const transaction = database.transaction(['records', 'history', 'bodies'], 'readwrite');
  const records = transaction.objectStore('records');
  const bodies = transaction.objectStore('bodies');
  const left = new Set(await bodies.getAllKeys());
  for (const store of ['drafts', 'versions'])
    for (const { record } of await records.getAll(IDBKeyRange.bound([store], [store, []])))
      for (const hash of bodyHashIn(record)) left.delete(hash);
  // The history is long, and seldom asked.
  if (left.size > 0)
    for (const { changes } of await transaction.objectStore('history').getAll())
      for (const hash of changes.flatMap(({ before, after }) => [before, after]).flatMap(bodyHashIn))
        left.delete(hash);
  for (const hash of left) await bodies.delete(hash);
  await transaction.done;
}

const WithContent = v.looseObject({ content: DraftContent });

/** The JSON of the document that stands in a record of version 7 or before; none for one without. */
export function textInRecord(store: string, record: unknown): string[] {
  if (store !== 'drafts' && store !== 'versions') return [];
  const parsed = v.safeParse(WithContent, record);
  return parsed.success ? [bodyText(parsed.output.content)] : [];
}

/** Version 7 to 8: a record of a draft or version with its document under a hash of its own. */
export function withoutContent(
  store: string,
  record: unknown,
  hashOfText: (text: string) => FileHash,
): unknown {
  if (store !== 'drafts' && store !== 'versions') return record;
  const parsed = v.safeParse(WithContent, record);
  if (!parsed.success) return record;
  const { content, ...rest } = parsed.output;
  return { ...rest, bodyHash: hashOfText(bodyText(content)) };
}

import * as v from 'valibot';
import { FileHash } from '#core/model/ids.ts';
import { ItemAnswers, SentFile, SentPost } from '#core/model/handed-in.ts';
import { WorkKind } from '#core/model/work-kind.ts';

/** What goes to the course desk (docs/course-desk.md): uploads by hash, then one small request. */

/** So many files one attempt may have. */
const MOST_FILES = 40;

/** A handing-in, as it is asked for: what the files are is told here, their bytes were uploaded by their hashes before. */
export const HandingIn = v.object({
  kind: WorkKind,
  note: v.pipe(v.string(), v.maxLength(100_000)),
  files: v.pipe(v.array(SentFile), v.maxLength(MOST_FILES)),
  post: v.nullable(SentPost),
  items: ItemAnswers,
});
export type HandingIn = v.InferOutput<typeof HandingIn>;

/** How much of an upload the desk has, in bytes, and whether that is all of it. */
export const UploadState = v.object({ hash: FileHash, received: v.number(), whole: v.boolean() });
export type UploadState = v.InferOutput<typeof UploadState>;

/** The part of a file that a request carries (Content-Range, RFC 9110): bytes `from` to `to`, the last included, of `size`. */
export interface Part {
  readonly from: number;
  readonly to: number;
  readonly size: number;
}

/** The header of a part. */
export function contentRange({ from, to, size }: Part): string {
  return `bytes ${from}-${to}/${size}`;
}

/** A part by its header; null for what is none, or makes no sense. */
export function partOf(header: string | undefined): Part | null {
  const found = /^bytes (\d{1,12})-(\d{1,12})\/(\d{1,12})$/.exec(header ?? '');
  if (found === null) return null;
  const [from, to, size] = found.slice(1).map(Number);
  return from <= to && to < size ? { from, to, size } : null;
}

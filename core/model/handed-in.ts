import * as v from 'valibot';
import { FileHash } from './ids.ts';

/** What an attempt is made of: files, a post, answers to items. */

/** For a post to a discussion: which post it answers, and which own one it takes the place of. */
export const PostPlace = v.object({ answers: v.nullable(v.string()), betters: v.nullable(v.string()) });
export type PostPlace = v.InferOutput<typeof PostPlace>;

/** Answers to the items of an activity, by item; those not answered again are left out. */
export const ItemAnswers = v.record(v.string(), v.string());
export type ItemAnswers = v.InferOutput<typeof ItemAnswers>;

/** A post as it is sent. */
export const SentPost = v.object({
  ...PostPlace.entries,
  /** Paragraphs parted by empty lines. */
  text: v.pipe(v.string(), v.maxLength(100_000)),
});
export type SentPost = v.InferOutput<typeof SentPost>;

/** A file of a handing-in. */
export const SentFile = v.object({
  role: v.picklist(['paper', 'response']),
  name: v.string(),
  mediaType: v.string(),
  size: v.number(),
  hash: FileHash,
});
export type SentFile = v.InferOutput<typeof SentFile>;

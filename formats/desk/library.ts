import * as v from 'valibot';
import { Relation } from '#core/model/source.ts';

/** A text of the desk's library, as the desk serves it (docs/course-desk.md). */
export const LibrarySource = v.object({
  id: v.string(),
  title: v.string(),
  authors: v.string(),
  year: v.nullable(v.number()),
  relation: Relation,
  text: v.string(),
});
export type LibrarySource = v.InferOutput<typeof LibrarySource>;

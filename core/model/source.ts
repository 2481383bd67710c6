import * as v from 'valibot';
import { FileHash, Instant } from './ids.ts';

/** What a source is to the student. */
export const relations = ['course', 'own', 'fellow', 'published', 'web', 'brief'] as const;
/** One of them, as it is stored. */
export const Relation = v.picklist(relations);
/** One of them. */
export type Relation = v.InferOutput<typeof Relation>;

/** A text that drafts are compared with; its file is kept under the same hash. It belongs to no assignment. */
export const Source = v.object({
  hash: FileHash,
  title: v.string(),
  /** As in a list of references; empty where nobody is known. */
  authors: v.string(),
  year: v.nullable(v.string()),
  relation: Relation,
  cameAt: Instant,
});
export type Source = v.InferOutput<typeof Source>;

/** What may be left out of the count of an overlap. */
export const switches = ['quoted', 'references', 'brief', 'own'] as const;
/** One of them. */
export type Switch = (typeof switches)[number];

/** How the overlap of an assignment is counted. */
export const OverlapChoice = v.object({
  /** Matches of fewer words are left out. */
  least: v.number(),
  without: v.array(v.picklist(switches)),
  /** Sources and matches that don't count, with the student's reason. */
  aside: v.array(v.object({ of: v.string(), reason: v.string() })),
});
export type OverlapChoice = v.InferOutput<typeof OverlapChoice>;

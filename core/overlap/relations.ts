import type { Work } from '../citations/cited.ts';

/** What a source is to the student. */
export const relations = ['course', 'own', 'fellow', 'published', 'web', 'brief'] as const;
export type Relation = (typeof relations)[number];

/** A text that a draft may share words with. */
export interface SourceWork extends Work {
  readonly relation: Relation;
}

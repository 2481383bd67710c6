import type { Work } from '../citations/cited.ts';
import type { Relation } from '../model/source.ts';

/** A text that a draft may share words with. */
export interface SourceWork extends Work {
  readonly relation: Relation;
}

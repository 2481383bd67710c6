import type { DecimalString, Instant } from '#core/model/ids.ts';

/** Courses with scores as files tell of them, before they are taken in. */

export interface ImportedItem {
  /** The same in every file that tells of it, so that taking it in again changes it and makes no second one. */
  readonly key: string;
  readonly title: string;
  /** The key of its category; null for none. */
  readonly category: string | null;
  readonly possible: DecimalString | null;
  readonly opensAt: Instant | null;
  readonly dueAt: Instant | null;
  readonly extraCredit: boolean;
  readonly excused: boolean;
  readonly score: DecimalString | null;
  /** A letter, pass, complete; null where points are given. */
  readonly result: string | null;
  /** false: more is to come of it. */
  readonly complete: boolean;
  /** When it was marked, where that is told. */
  readonly markedAt: Instant | null;
  /** Overall words. */
  readonly words: string;
}

/** A course with its scores as a file tells of it, before it is taken in; keys are unique in it. */
export interface ImportedCourse {
  readonly key: string;
  readonly title: string;
  readonly code: string;
  readonly categories: readonly {
    readonly key: string;
    readonly title: string;
    readonly weight: DecimalString | null;
  }[];
  readonly items: readonly ImportedItem[];
}

/** Something in a file that could not be used as it is, and where; the rest was. */
export interface ImportProblem {
  readonly kind:
    | 'no title'
    | 'no number'
    | 'no date'
    | 'day or month'
    | 'below 0'
    | 'above possible'
    | 'twice'
    | 'unreadable record'
    | 'no such assignment';
  readonly where: string;
  /** What stands there. */
  readonly said: string;
}

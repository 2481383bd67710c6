/** Where an assignment stands as a whole; told in words on Arrivals and above the line. */
export type AssignmentState =
  | { readonly kind: 'not open yet' }
  | { readonly kind: 'open, nothing sent' }
  | { readonly kind: 'draft begun' }
  | { readonly kind: 'waiting to be marked' }
  | { readonly kind: 'part marked' }
  /** Marked and returned, and another attempt is taken. */
  | { readonly kind: 'open for another attempt' }
  /** Marked and returned, and no other attempt is taken. */
  | { readonly kind: 'finished' }
  /** Sent again while an older score still counts. */
  | { readonly kind: 'waiting again' }
  /** Nothing was sent, and nothing is taken any more. */
  | { readonly kind: 'closed' }
  | { readonly kind: 'excused' };

/** Facts that don't fit together; both are shown, with where they came from. */
export type Contradiction = 'score without attempt' | 'excused but marked' | 'marked before sent';

/**
 * What the state of an assignment follows from. Times are in milliseconds since 1970; null where one isn't known or isn't
 * set.
 */
export interface StateFacts {
  readonly opensAt: number | null;
  /** Own extension included. */
  readonly dueAt: number | null;
  readonly closesAt: number | null;
  readonly attemptsAllowed: number;
  readonly excused: boolean;
  readonly draftBegun: boolean;
  /** Those that were not taken back. */
  readonly attempts: readonly {
    readonly number: number;
    readonly at: number;
    /** null: not marked. */
    readonly marking: { readonly at: number; readonly complete: boolean } | null;
  }[];
  /** A marking of an attempt that isn't on record. */
  readonly markedUnsent: boolean;
  readonly now: number;
}

/** The state of an assignment from its facts. Times are in milliseconds since 1970. */
export function assignmentState(facts: StateFacts): AssignmentState {
  const { opensAt, dueAt, closesAt, now } = facts;
  if (facts.excused) return { kind: 'excused' };
  const latest = facts.attempts.toSorted((x, y) => x.number - y.number).at(-1);
  if (latest === undefined) {
    if (facts.markedUnsent) return { kind: 'finished' };
    if (opensAt !== null && opensAt > now) return { kind: 'not open yet' };
    const until = closesAt ?? dueAt;
    if (until !== null && until < now) return { kind: 'closed' };
    return { kind: facts.draftBegun ? 'draft begun' : 'open, nothing sent' };
  }
  if (latest.marking === null)
    return {
      kind: facts.attempts.some(({ marking }) => marking !== null) ? 'waiting again' : 'waiting to be marked',
    };
  if (!latest.marking.complete) return { kind: 'part marked' };
  const open = closesAt !== null && closesAt > now && facts.attempts.length < facts.attemptsAllowed;
  return { kind: open ? 'open for another attempt' : 'finished' };
}

/** What doesn't fit together in an assignment's facts. */
export function contradictionsIn(facts: StateFacts): Contradiction[] {
  const found: Contradiction[] = [];
  if (facts.markedUnsent) found.push('score without attempt');
  const marked = facts.attempts.filter(({ marking }) => marking !== null);
  if (facts.excused && (marked.length > 0 || facts.markedUnsent)) found.push('excused but marked');
  if (marked.some(({ at, marking }) => marking !== null && marking.at < at)) found.push('marked before sent');
  return found;
}

import type { Target } from '#core/model/remark.ts';

/** An answer to a remark as it goes out. */
export interface ReplyOut {
  readonly author: string;
  /** ISO 8601; null where it isn't known. */
  readonly at: string | null;
  readonly text: string;
  readonly replies: readonly ReplyOut[];
}

/** A remark as it goes out of Juncture, whatever the format. */
export interface RemarkOut {
  readonly id: string;
  /** By which it is found on the page and in the list. */
  readonly number: number;
  /** The source's own name for what it is, in lower case: highlight, strikeout, comment ... */
  readonly kind: string;
  readonly author: string;
  readonly byMachine: boolean;
  readonly at: string | null;
  /** #rrggbb. */
  readonly color: string | null;
  readonly text: string;
  /** The criterion that it counts towards, by its title. */
  readonly criterion: string | null;
  readonly targets: readonly Target[];
  /** What it proposes to change, in words; "" where it proposes nothing. */
  readonly proposes: string;
  readonly state: string | null;
  readonly replies: readonly ReplyOut[];
  /** The paper's own file holds it. */
  readonly isInPaper: boolean;
  /** What the student made of it, as names with values: decision, own note ... */
  readonly own: readonly (readonly [string, string])[];
}

/** What a remark says, with what it proposes where it says nothing else. */
export function saidBy({ text, proposes }: Pick<RemarkOut, 'text' | 'proposes'>): string {
  return [text, proposes].filter((part) => part !== '').join('\n');
}

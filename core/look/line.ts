import type { Span } from '../text/span.ts';

/** What a line of the last look may be about, the weightiest first. */
export const lookKinds = [
  'no answer',
  'changed here, not there',
  'struck, still elsewhere',
  'cited, not listed',
  'quotation without citation',
  'year differs',
  'quotation without page',
  'citation without year',
  'listed, not cited',
  'text and table differ',
  'not there',
  'never named',
  'spelling',
  'repeated word',
  'capital',
  'unpaired mark',
  'two spellings',
] as const;

/** One of them. */
export type LookKind = (typeof lookKinds)[number];

/** Something that a careful reader would look at again before the text goes. */
export interface LookLine {
  readonly kind: LookKind;
  readonly place: Span;
  /** What stands there. */
  readonly words: string;
  /** What it is seen beside: the word of a table, the other spelling, the year of the list, what is not there; '' for nothing. */
  readonly beside: string;
  /** Further places of the same. */
  readonly also: readonly Span[];
}

/** A line about one place. */
export function lineAt(kind: LookKind, text: string, place: Span, beside = ''): LookLine {
  return { kind, place, words: text.slice(place.from, place.to), beside, also: [] };
}

/** What a line is known by while the text around it changes: the same words with the same fault are the same line. */
export const lineKey = ({ kind, words, beside }: LookLine) =>
  `${kind}/${words.slice(0, KEY_UNITS)}/${beside.slice(0, KEY_UNITS)}`;

/** So much of a passage tells it from others. */
const KEY_UNITS = 80;

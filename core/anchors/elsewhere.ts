import type { Remark, Target, TextQuote } from '../model/remark.ts';
import type { Judgement } from '../model/work.ts';
import { foldedText, placesOfWords } from '../text/find.ts';
import { quoteOf } from '../text/quotation.ts';
import type { Span } from '../text/span.ts';

/** Where else in a paper the words stand that a remark is about. */

/** So many places are offered. */
const MOST_PLACES = 40;
/** A place of such words. */
export interface Elsewhere {
  readonly span: Span;
  /** How it is found again. */
  readonly quote: TextQuote;
}

/**
 * The places of some words in a text, whole words alone, in whatever capitals, but for those that a remark is about already.
 * @param own where that hangs in the text
 */
export function placesElsewhere(text: string, words: string, own: readonly Span[]): Elsewhere[] {
  const isInside = (at: number) => /[\p{L}\p{N}]/u.test(text.charAt(at));
  return placesOfWords(foldedText(text), words)
    .filter(({ from, to }) => !isInside(from - 1) && !isInside(to))
    .filter(({ from, to }) => !own.some((one) => one.from < to && from < one.to))
    .slice(0, MOST_PLACES)
    .map((span) => ({ span, quote: quoteOf(text, span) }));
}

/** Two quotations of the same place. */
export function isSameQuote(x: TextQuote, y: TextQuote): boolean {
  return x.exact === y.exact && x.prefix === y.prefix && x.suffix === y.suffix;
}

/** What a remark is about as its source says it, and the places that the student says it is about too. */
export function targetsOf(
  { id, targets }: Pick<Remark, 'id' | 'targets'>,
  judgements: ReadonlyMap<string, Judgement>,
): readonly Target[] {
  const places = judgements.get(id)?.elsewhere ?? [];
  const more = places.map((quote): Target => ({ kind: 'words', page: null, quads: [], rect: null, quote }));
  return more.length === 0 ? targets : [...targets, ...more];
}

import type { Span } from '../text/span.ts';
import type { Speller } from './speller.ts';

/** A word of a text as spelling sees it. */
interface Spelt extends Span {
  /** In lower case, with straight apostrophes and without a possessive. */
  readonly word: string;
  /** It begins with a capital: it may be a name. */
  readonly isCapital: boolean;
}

const WORD = /(?<![\p{L}\p{N}\p{M}_@/\\.#’'])\p{L}[\p{L}\p{M}’']*(?![\p{L}\p{N}\p{M}_@/\\])(?!\.\p{Ll})/gu;
const POSSESSIVE = /['’]s?$/u;
/** Shorter ones are symbols and units. */
const SHORTEST = 4;
/** The least of each half of two words put together: "duckweed", "chainman"; "int" begins too many slips. */
const LEAST_PARTS = [4, 3] as const;

/** The words of a text that spelling looks at: none that has a figure, or a capital within. */
export function spelt(text: string): Spelt[] {
  return [...text.matchAll(WORD)].flatMap(({ 0: raw, index }) => {
    const word = raw.replace(POSSESSIVE, '').replaceAll('’', "'");
    const lower = word.toLowerCase();
    const isCapital = word !== lower;
    if (word.length < SHORTEST || word.slice(1) !== lower.slice(1)) return [];
    return [{ word: lower, isCapital, from: index, to: index + raw.length }];
  });
}

/** Endings that are put to words that a dictionary has without them. */
const PREFIX =
  /^(?:un|re|non|anti|pre|post|sub|over|under|micro|macro|multi|inter|intra|bio|geo|hydro|eco|electro|photo|pseudo|semi|super|ultra)(?=\p{L}{4})/u;

const DOUBLED = /^(.*\p{L})(\p{L})\2(?:ed|ing)$/u;
const PLURAL = /(?<=\p{L}{3}(?:it|log|om|nom|graph))ies$/u;

/** Whether a word is one that a dictionary has, one with what is put before words, or two of them written together. */
export function isKnown(word: string, speller: Speller): boolean {
  if (speller.knows(word) || speller.knows(word.replace(PLURAL, 'y'))) return true;
  const rest = word.replace(PREFIX, '');
  if (rest !== word && (speller.knows(rest) || speller.knows(rest.replace(DOUBLED, '$1$2')))) return true;
  for (let at = LEAST_PARTS[0]; at <= word.length - LEAST_PARTS[1]; at++)
    if (speller.knows(word.slice(0, at)) && speller.knows(word.slice(at))) return true;
  return false;
}

/** A word that stands so often is a term, unless it is one letter away from another. */
const TERM = 3;

/** Whether two words differ by one letter: another one, one more or less, or two that changed places. */
export function isOneLetterOff(x: string, y: string): boolean {
  const [short, long] = x.length <= y.length ? [x, y] : [y, x];
  if (long.length - short.length > 1) return false;
  let start = 0;
  while (start < short.length && short[start] === long[start]) start++;
  const restOf = (word: string, skip: number) => word.slice(start + skip);
  if (long.length > short.length) return restOf(short, 0) === restOf(long, 1);
  const isSwapped = short[start] === long[start + 1] && short[start + 1] === long[start];
  return restOf(short, 1) === restOf(long, 1) || (isSwapped && restOf(short, 2) === restOf(long, 2));
}

/** In a language that the dictionaries are not of, more than this share of words is unknown. */
const MOST_UNKNOWN = 0.25;
/** Fewer words tell no language. */
const LEAST_WORDS = 30;

/** Words of a text that no dictionary has, each with all its places. */
export interface Misspelt {
  readonly unknown: ReadonlyMap<string, readonly Span[]>;
  /** Whether the text is in a language that there is no dictionary for; then nothing is told unknown. */
  readonly otherLanguage: boolean;
}

/**
 * Finds what is not spelt as in the dictionaries.
 * @param isKnownWord for each word; asked once a word
 * @param suggests what may be meant by a word; asked for those that stand often
 */
export function misspelt(
  words: readonly Spelt[],
  isKnownWord: (word: string) => boolean,
  suggests: (word: string) => readonly string[],
): Misspelt {
  const places = new Map<string, Span[]>();
  for (const { word, isCapital, from, to } of words) {
    // Names stand in no dictionary, and beginnings of sentences can't be told from them.
    if (isCapital) continue;
    const own = places.get(word);
    if (own === undefined) places.set(word, [{ from, to }]);
    else own.push({ from, to });
  }
  const unknown = new Map([...places].filter(([word]) => !isKnownWord(word)));
  const otherLanguage = places.size >= LEAST_WORDS && unknown.size > MOST_UNKNOWN * places.size;
  if (otherLanguage) return { unknown: new Map(), otherLanguage };
  for (const [word, at] of unknown)
    if (at.length >= TERM && !suggests(word).some((one) => isOneLetterOff(one, word))) unknown.delete(word);
  return { unknown, otherLanguage };
}

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
/** The least that is left of a word on each side for it to be two words put together: "duckweed", "footbridge". */
const LEAST_PART = 3;

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

/** Whether a word is one that a dictionary has, or two of them written together. */
export function isKnown(word: string, speller: Speller): boolean {
  if (speller.knows(word)) return true;
  const rest = word.replace(PREFIX, '');
  if (rest !== word && speller.knows(rest)) return true;
  for (let at = LEAST_PART; at <= word.length - LEAST_PART; at++)
    if (speller.knows(word.slice(0, at)) && speller.knows(word.slice(at))) return true;
  return false;
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
 */
export function misspelt(words: readonly Spelt[], isKnownWord: (word: string) => boolean): Misspelt {
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
  return { unknown: otherLanguage ? new Map() : unknown, otherLanguage };
}

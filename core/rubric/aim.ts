import type { Criterion } from '../model/facts.ts';
import type { Paper } from '../paper/paper.ts';
import { NUMBERS_IN_WORDS } from '../text/numbers-in-words.ts';
import { countWords } from '../text/words.ts';
import { asksAsList } from './asks.ts';

/** The level of a criterion that is aimed at, as a list of what to do. */

/** Under which id the aim for a criterion of an assignment is kept. */
export function aimId(assignmentId: string, criterionId: string): string {
  return `${assignmentId}/${criterionId}`;
}

/** What a draft has, as far as a list's items ask for it. */
export interface Measured {
  readonly words: number;
  readonly references: number;
}

const REFERENCES = /^(?:references?|reference list|sources|works cited|bibliography|literature)\W*$/i;

/** Counts a draft: its words, and the entries of its reference list. */
export function measuredIn({ text, blocks }: Paper): Measured {
  const head = blocks.findLastIndex((block) => REFERENCES.test(block.text.trim()));
  const after = head < 0 ? [] : blocks.slice(head + 1);
  const next = after.findIndex(({ kind }) => kind === 'heading');
  const entries = (next < 0 ? after : after.slice(0, next)).filter((block) => block.text.trim() !== '');
  return { words: countWords(text), references: entries.length };
}

/** Something in an item that can be counted. */
export interface Countable {
  readonly what: keyof Measured;
  readonly least: number | null;
  readonly most: number | null;
}

const NUMBER = String.raw`(\d[\d,.  ]*\d|\d+|${Object.keys(NUMBERS_IN_WORDS).join('|')})`;
const UNITS: readonly (readonly [keyof Measured, string])[] = [
  ['words', 'words'],
  ['references', '(?:(?:\\p{L}+ ){0,2})(?:sources|references|works cited)'],
];

function numberOf(text: string): number {
  return NUMBERS_IN_WORDS[text.toLowerCase()] ?? Number(text.replaceAll(/[^\d]/g, ''));
}

/** What an item asks for that can be counted in a draft: words, references; null where it asks for nothing such. */
export function countableIn(item: string): Countable | null {
  for (const [what, unit] of UNITS) {
    const find = (pattern: string) => new RegExp(`${pattern} ${unit}`, 'iu').exec(item);
    const between = find(`${NUMBER}\\s*(?:to|and|[–-])\\s*${NUMBER}`);
    if (between !== null) return { what, least: numberOf(between[1]), most: numberOf(between[2]) };
    const least = find(`(?:at least|no fewer than|no less than|(?<!no )more than|minimum of)\\s+${NUMBER}`);
    if (least !== null)
      return { what, least: numberOf(least[1]) + Number(/more than/i.test(least[0])), most: null };
    const orMore = find(`${NUMBER} or more`);
    if (orMore !== null) return { what, least: numberOf(orMore[1]), most: null };
    const most = find(`(?:at most|no more than|up to|not over|under)\\s+${NUMBER}`);
    if (most !== null) return { what, least: null, most: numberOf(most[1]) };
  }
  return null;
}

/** An item of the list: done by a count, ticked by hand, or open. */
export interface AimItem {
  readonly text: string;
  /** null: nothing in it can be counted, or there is no draft yet. */
  readonly counted: { readonly found: number; readonly met: boolean } | null;
  readonly done: boolean;
}

/**
 * The list for a level: what it asks beyond the one below. An item that can be counted is done when the draft has it;
 * the others when they are ticked.
 * @param level the level's place, from 0
 */
export function aimItems(
  criterion: Criterion,
  level: number,
  ticked: readonly string[],
  measured: Measured | null,
): AimItem[] {
  const wanted = criterion.levels.at(level);
  if (wanted === undefined || level < 0) return [];
  const below = level === 0 ? '' : criterion.levels[level - 1].description;
  return asksAsList(below, wanted.description).map((text) => {
    const countable = measured === null ? null : countableIn(text);
    if (measured === null || countable === null) return { text, counted: null, done: ticked.includes(text) };
    const found = measured[countable.what];
    const met = found >= (countable.least ?? 0) && found <= (countable.most ?? Infinity);
    return { text, counted: { found, met }, done: met };
  });
}

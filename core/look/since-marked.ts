import { changesIn } from '../difference/changes.ts';
import { differenceOf } from '../difference/difference.ts';
import type { Remark } from '../model/remark.ts';
import type { Paper } from '../paper/paper.ts';
import { wordsToSeek } from '../saying/seek.ts';
import { suggestedWording } from '../saying/wording.ts';
import { stemsOf } from '../text/stems.ts';
import type { Span } from '../text/span.ts';
import { newVocabulary, wordKey, wordsOf } from '../text/words.ts';
import { lineAt, type LookLine } from './line.ts';
import { variantOf } from './two-spellings.ts';

/** Words that a remark on the marked version is about, wherever they stand. */
interface Struck {
  readonly words: string;
  /** What the remark would have in their place; '' where it names nothing. */
  readonly instead: string;
}

const UNITS = new Set(
  'mm cm dm m km µm nm mg g kg t ml cl l s ms min h °C K Pa hPa kPa MPa ha m² m³ cm² cm³ L mL mg/L mm/s cm/s m/s km/h % ppm'.split(
    ' ',
  ),
);
const WORD = /[\p{L}\p{N}][\p{L}\p{N}'’-]*/gu;
/** Shorter words are too common to be meant wherever they stand. */
const SHORTEST = 5;
/** What stands so often is a word of the subject. */
const MOST_PLACES = 12;

/** What remarks that call for a change are about, where it is a pattern and no single passage. */
export function struckBy(remarks: readonly Pick<Remark, 'text' | 'kind' | 'change' | 'targets'>[]): Struck[] {
  const found = new Map<string, Struck>();
  for (const remark of remarks) {
    const suggested = suggestedWording(remark);
    for (const words of wordsToSeek(remark)) {
      const instead = suggested !== null && suggested.before.trim() === words ? suggested.after.trim() : '';
      const letters = words.replace(/[^\p{L}]/gu, '');
      if (letters.length >= SHORTEST && !found.has(words.toLowerCase()))
        found.set(words.toLowerCase(), { words, instead });
    }
  }
  return [...found.values()];
}

/** Stems are worked out once a word: a long draft is gone through at each change. */
const stems = new Map<string, string>();
const MOST_STEMS = 50_000;

function stemOf(word: string): string {
  const known = stems.get(word);
  if (known !== undefined) return known;
  if (stems.size >= MOST_STEMS) stems.clear();
  const found = stemsOf(word)[0] ?? wordKey(word);
  stems.set(word, found);
  return found;
}

/** The words of a text one by one, with what they are compared by: the stem of a word, of a short one its letters. */
function keyed(text: string): { readonly key: string; readonly at: Span }[] {
  return [...text.matchAll(WORD)].map(({ 0: word, index }) => ({
    key: stemOf(word),
    at: { from: index, to: index + word.length },
  }));
}

function placesOf(words: ReturnType<typeof keyed>, wanted: readonly string[]): Span[] {
  const found: Span[] = [];
  for (let i = 0; i + wanted.length <= words.length; i++)
    if (wanted.every((key, j) => words[i + j].key === key))
      found.push({ from: words[i].at.from, to: words[i + wanted.length - 1].at.to });
  return found;
}

/** Places as one line. */
function lineOf(
  kind: LookLine['kind'],
  text: string,
  [first, ...also]: readonly Span[],
  beside: string,
): LookLine {
  return { ...lineAt(kind, text, first, beside), also };
}

/**
 * What was mended in one place of the marked version and stands in others of the draft: words that a remark struck or would
 * have otherwise, units and spellings that were changed.
 */
export function sinceMarked(before: Paper, after: Paper, struck: readonly Struck[]): LookLine[] {
  const lines: LookLine[] = [];
  const { text } = after;
  const told = new Set<string>();
  const tell = (kind: LookLine['kind'], places: readonly Span[], beside: string) => {
    if (places.length === 0 || places.length > MOST_PLACES || told.has(String(places[0].from))) return;
    told.add(String(places[0].from));
    lines.push(lineOf(kind, text, places, beside));
  };
  const [old, anew] = struck.length === 0 ? [[], []] : [keyed(before.text), keyed(text)];
  for (const { words, instead } of struck) {
    const wanted = keyed(words).map(({ key }) => key);
    const was = placesOf(old, wanted).length;
    const is = placesOf(anew, wanted);
    if (was > is.length)
      tell(instead === '' ? 'struck, still elsewhere' : 'changed here, not there', is, instead);
  }
  for (const [from, to] of replacedIn(before, after)) {
    const [oldUnit, newUnit] = [from, to].map((words) => words.split(/\s/).at(-1) ?? '');
    if (UNITS.has(oldUnit) && UNITS.has(newUnit) && oldUnit !== newUnit)
      tell('changed here, not there', unitPlaces(text, oldUnit), newUnit);
    const isVariant = variantOf(from.toLowerCase(), () => true)?.other === to.toLowerCase();
    const isJoined = from !== to && joined(from) === joined(to) && joined(from).length >= SHORTEST;
    if (isVariant || isJoined) tell('changed here, not there', exactPlaces(text, from), to);
  }
  return lines;
}

/** What was put in the place of what, in paragraphs that are not the same in both. */
function replacedIn(before: Paper, after: Paper): [old: string, anew: string][] {
  const without = (paper: Paper, other: Paper) => {
    const same = new Set(other.blocks.map((block) => block.text));
    return paper.blocks.flatMap((block) => (same.has(block.text) ? [] : [block.text])).join('\n');
  };
  const [a, b] = [without(before, after), without(after, before)];
  const vocabulary = newVocabulary();
  const { changes } = changesIn(differenceOf(wordsOf(a, vocabulary), wordsOf(b, vocabulary)));
  return changes
    .filter(({ kind }) => kind === 'replaced')
    .map((change) => [a.slice(change.old.from, change.old.to), b.slice(change.new.from, change.new.to)]);
}

const joined = (words: string) => words.toLowerCase().replace(/[\s‐‑-]/gu, '');

function exactPlaces(text: string, words: string): Span[] {
  const pattern = new RegExp(`(?<![\\p{L}\\p{N}-])${escaped(words)}(?![\\p{L}\\p{N}-])`, 'giu');
  return [...text.matchAll(pattern)].map(({ 0: found, index }) => ({
    from: index,
    to: index + found.length,
  }));
}

/** Where a unit stands behind a figure. */
function unitPlaces(text: string, unit: string): Span[] {
  const pattern = new RegExp(`\\d\\s?${escaped(unit)}(?![\\p{L}\\p{N}/])`, 'gu');
  return [...text.matchAll(pattern)].map(({ 0: found, index }) => ({
    from: index + found.length - unit.length,
    to: index + found.length,
  }));
}

const escaped = (words: string) => words.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

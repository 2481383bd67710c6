import { additionsBeside } from './additions.ts';
import { partedOrJoined } from './parted.ts';
import { foundAgain } from './search.ts';
import { differenceOf, type Difference } from '../difference/difference.ts';
import type { Stretch } from '../difference/stretch.ts';
import { firstOf } from '../text/ascending.ts';
import type { Move } from '../difference/moves.ts';
import type { Paper } from '../paper/paper.ts';
import { joinWords, newVocabulary, wordRange, wordsOf, type Vocabulary, type Words } from '../text/words.ts';
import type { Span } from '../text/span.ts';

/**
 * What a remark's words have become in a newer text; unsure where two of these are about as likely. Added to: they stand, and
 * new ones came in within their sentence or as sentences directly before or after it. Split: their sentence became several,
 * or they stand in several paragraphs. Joined: their sentence and a neighbour became one. Where several fit, moved comes before
 * split or joined, these before reworded, that before added to.
 */
export type OutcomeKind =
  'untouched' | 'added to' | 'reworded' | 'moved' | 'split' | 'joined' | 'gone' | 'unsure';

/** What became of a remark's words in a newer text. Says what the text shows, never that a remark is dealt with. */
export interface Outcome {
  readonly kind: OutcomeKind;
  /** Where to look in the newer text, in UTF-16 units; a gap for words that are gone. */
  readonly place: Span;
  /** What came in beside the words, in the newer text and its order. */
  readonly added: readonly Span[];
  /** The share of the words that still stand, 0 to 1. */
  readonly kept: number;
  /** How sure this is, 0 to 1. */
  readonly confidence: number;
}

/**
 * Below this share of kept words a passage counts as written anew, if it counts as there at all: any two sentences on one
 * subject have about every fourth word in common (articles, prepositions, the subject itself).
 */
const LEAST_KEPT = 0.25;
/** New words for fewer than one in so many of those that went are no rewriting of them: they are gone. */
const FEWEST_NEW = 4;
/** The share of its words that a passage must have elsewhere to count as moved there, as a sentence must. */
const LEAST_MOVED = 0.8;
/**
 * A change that took out more than so many times the passage's own words, and a short sentence more, says little about the
 * passage. Without the sentence, one marked word in a sentence that was written anew would be unsure.
 */
const WIDE_CHANGE = { times: 3, words: 12 };
/**
 * How sure each reading of the texts is. An order, not odds: 1 is what the texts show plainly, below 0.5 stands what would
 * be a guess.
 */
const SURE = {
  plain: 1,
  /** Something came in at a gap whose neighbours stand. */
  filled: 0.8,
  /** Less came in than went. */
  mostlyGone: 0.7,
  /** Both neighbours of a gap went, and it with them. */
  gapGone: 0.6,
  /** It was replaced by something, or fits two places, or one neighbour of a gap went. */
  even: 0.5,
  /** It went down with much else. */
  wide: 0.4,
};

/** From what changed most to what didn't. */
const MOST_CHANGED: readonly OutcomeKind[] = [
  'gone',
  'unsure',
  'reworded',
  'split',
  'joined',
  'moved',
  'added to',
  'untouched',
];

/** Of what became of several passages what changed most, with all that was added to any; null for none. */
export function mostChanged(outcomes: readonly Outcome[]): Outcome | null {
  const kind = MOST_CHANGED.find((one) => outcomes.some((outcome) => outcome.kind === one));
  const most = outcomes.find((one) => one.kind === kind);
  if (most === undefined) return null;
  return { ...most, added: outcomes.flatMap(({ added }) => added) };
}

/** Follows the passages of one paper into newer texts. Remembers words, so that each call costs what changed. */
export interface Follower {
  follow(newer: Paper, passages: readonly Span[]): Outcome[];
  /** The same for passages in groups, and what changed between the two texts. */
  followAll(
    newer: Paper,
    groups: readonly (readonly Span[])[],
  ): { difference: Difference; outcomes: Outcome[][] };
}

/** A follower for the passages of `older`. What it returns depends on the two texts alone, never on earlier calls. */
export function followerOf(older: Paper): Follower {
  const vocabulary = newVocabulary();
  const a = wordsOfBlocks(older, vocabulary, new Map()).words;
  let known = new Map<string, Words>();
  const followAll: Follower['followAll'] = (newer, groups) => {
    const { words: b, byText } = wordsOfBlocks(newer, vocabulary, known);
    known = byText;
    const difference = differenceOf(a, b);
    const outcomes = groups.map((passages) => passages.map((passage) => outcomeOf(difference, passage)));
    return { difference, outcomes };
  };
  return { followAll, follow: (newer, passages) => followAll(newer, [passages]).outcomes[0] };
}

/** What became of each passage of `older` in `newer` (computation.md 3). */
export function followPassages(older: Paper, newer: Paper, passages: readonly Span[]): Outcome[] {
  return followerOf(older).follow(newer, passages);
}

function wordsOfBlocks(paper: Paper, vocabulary: Vocabulary, known: ReadonlyMap<string, Words>) {
  const byText = new Map<string, Words>();
  const parts = paper.blocks.map(({ text }) => {
    const words = known.get(text) ?? wordsOf(text, vocabulary);
    byText.set(text, words);
    return words;
  });
  return { words: joinWords(parts), byText };
}

/** What became of one passage, given in characters of the older text. */
export function outcomeOf(difference: Difference, passage: Span): Outcome {
  const { a } = difference;
  const range = wordRange(a, passage.from, Math.max(passage.to, passage.from + 1));
  const isGap = passage.from === passage.to || range.from === range.to;
  const found = isGap ? gapOutcome(difference, passage) : wordsOutcome(difference, passage, range);
  const isThere = found.kind !== 'gone' && found.kind !== 'unsure';
  const added = isThere ? additionsBeside(difference, found.place) : [];
  const stays = found.kind === 'untouched' || found.kind === 'reworded';
  const parted = stays && !isGap ? partedOrJoined(difference, range.from, range.to) : null;
  const stands = found.kind === 'untouched' || (isGap && found.kind === 'reworded');
  return { ...found, kind: parted ?? (stands && added.length > 0 ? 'added to' : found.kind), added };
}

type Found = Omit<Outcome, 'added'>;

function wordsOutcome(
  difference: Difference,
  passage: Span,
  range: { readonly from: number; readonly to: number },
): Found {
  const size = range.to - range.from;
  const stayed = staying(difference, range.from, range.to);
  const kept = stayed.length / size;
  const move = moveHolding(difference, range.from, range.to);
  const movedPairs = move === null ? [] : move.pairs.filter(([i]) => i >= range.from && i < range.to);
  if (move !== null && movedPairs.length > stayed.length) {
    const place = charsOf(difference.b, movedPairs[0][1], movedPairs[movedPairs.length - 1][1] + 1);
    const share = movedPairs.length / size;
    return move.rivalled
      ? { kind: 'unsure', place, kept: share, confidence: SURE.even }
      : { kind: 'moved', place, kept: share, confidence: share };
  }
  if (stayed.length === size && sameCharacters(difference, passage, range.from, range.to, stayed)) {
    const place = exactPlace(difference, passage, range.from, range.to, stayed);
    return { kind: 'untouched', place, kept: 1, confidence: SURE.plain };
  }
  const place = placeBetween(difference, range.from, range.to, stayed);
  if (kept >= LEAST_KEPT) return { kind: 'reworded', place, kept, confidence: SURE.even + kept / 2 };
  const replaced = replacedOutcome(difference, range.from, range.to, kept, place);
  return againOutcome(difference, range.from, range.to, place) ?? replaced;
}

/** A passage of which little stands where it stood, found again by its rare words. */
function againOutcome(difference: Difference, from: number, to: number, place: Span): Found | null {
  const again = foundAgain(difference, from, to);
  if (again === null) return null;
  const there = charsOf(difference.b, again.from, again.to);
  if (again.rivalled) return { kind: 'unsure', place: there, kept: again.share, confidence: SURE.even };
  const isHere = there.from < place.to && there.to > place.from;
  const isMoved = !isHere && again.share >= LEAST_MOVED;
  return {
    kind: isMoved ? 'moved' : 'reworded',
    place: there,
    kept: again.share,
    confidence: SURE.even + again.share / 4,
  };
}

/** Pairs of words of the range that stayed in place. */
function staying({ toB }: Difference, from: number, to: number): [number, number][] {
  const pairs: [number, number][] = [];
  for (let i = from; i < to; i++) if (toB[i] >= 0) pairs.push([i, toB[i]]);
  return pairs;
}

function moveHolding({ moves }: Difference, from: number, to: number): Move | null {
  let best: Move | null = null;
  let most = 0;
  for (let m = firstOf(moves, ({ toA }) => toA, from + 1); m < moves.length && moves[m].fromA < to; m++) {
    const move = moves[m];
    const overlap = Math.min(to, move.toA) - Math.max(from, move.fromA);
    if (overlap > most) {
      most = overlap;
      best = move;
    }
  }
  return best;
}

function charsOf(words: Words, from: number, to: number): Span {
  return { from: words.from[from], to: words.to[to - 1] };
}

/** Whether the passage reads the same, punctuation and capitals included. */
function sameCharacters(
  { a, b }: Difference,
  passage: Span,
  fromA: number,
  toA: number,
  stayed: readonly [number, number][],
): boolean {
  const firstB = stayed[0][1];
  const lastB = stayed[stayed.length - 1][1];
  if (lastB - firstB !== toA - 1 - fromA) return false;
  const before = a.text.slice(passage.from, Math.max(passage.from, a.from[fromA]));
  const after = a.text.slice(a.to[toA - 1], Math.max(passage.to, a.to[toA - 1]));
  const textA = a.text.slice(a.from[fromA], a.to[toA - 1]);
  const textB = b.text.slice(b.from[firstB], b.to[lastB]);
  return (
    textA === textB &&
    b.text.slice(Math.max(0, b.from[firstB] - before.length), b.from[firstB]) === before &&
    b.text.slice(b.to[lastB], b.to[lastB] + after.length) === after
  );
}

function exactPlace(
  { a, b }: Difference,
  passage: Span,
  fromA: number,
  toA: number,
  stayed: readonly [number, number][],
): Span {
  const first = b.from[stayed[0][1]] - (a.from[fromA] - passage.from);
  const last = b.to[stayed[stayed.length - 1][1]] + (passage.to - a.to[toA - 1]);
  return { from: Math.max(0, first), to: Math.min(b.text.length, last) };
}

/** The stretches that hold words of a range, or lie between two of them or at its ends. */
function touching(stretches: readonly Stretch[], from: number, to: number): readonly Stretch[] {
  const first = firstOf(stretches, ({ toA }) => toA, from);
  let end = first;
  while (end < stretches.length && stretches[end].fromA <= to) end++;
  return stretches.slice(first, end);
}

/** The words of B that stand where the range stood: what stayed, and what came in beside or in place of the rest. */
function placeBetween(
  difference: Difference,
  from: number,
  to: number,
  stayed: readonly [number, number][],
): Span {
  const { b, stretches } = difference;
  let fromB = stayed.at(0)?.[1] ?? Infinity;
  let toB = (stayed.at(-1)?.[1] ?? -1) + 1;
  for (const s of touching(stretches, from, to)) {
    const touches = s.fromA < to && s.toA > from;
    const within = s.fromA === s.toA && s.fromA > from && s.fromA < to;
    if (s.kind !== 'changed' || !(touches || within)) continue;
    fromB = Math.min(fromB, s.fromB);
    toB = Math.max(toB, s.toB);
  }
  if (toB > fromB) return charsOf(b, fromB, toB);
  const gap = Number.isFinite(fromB) && fromB > 0 ? b.to[Math.min(fromB, b.to.length) - 1] : 0;
  return { from: gap, to: gap };
}

function replacedOutcome(difference: Difference, from: number, to: number, kept: number, place: Span): Found {
  const holding = touching(difference.stretches, from, to).filter(
    (s) => s.kind === 'changed' && s.fromA < to && s.toA > from,
  );
  const removed = holding.reduce((sum, s) => sum + s.toA - s.fromA, 0);
  const added = holding.reduce((sum, s) => sum + unclaimed(difference, s), 0);
  const size = to - from;
  if (added === 0 || added * FEWEST_NEW < removed) {
    const gap = { from: place.from, to: added === 0 ? place.from : place.to };
    return { kind: 'gone', place: gap, kept, confidence: added === 0 ? SURE.plain : SURE.mostlyGone };
  }
  if (removed > WIDE_CHANGE.times * size + WIDE_CHANGE.words)
    return { kind: 'unsure', place, kept, confidence: SURE.wide };
  return { kind: 'reworded', place, kept, confidence: SURE.even };
}

/** Words that came in with a change and were not moved there from elsewhere. */
function unclaimed({ moves }: Difference, stretch: Stretch): number {
  let count = stretch.toB - stretch.fromB;
  for (const move of moves)
    count -= Math.max(0, Math.min(stretch.toB, move.toB) - Math.max(stretch.fromB, move.fromB));
  return Math.max(0, count);
}

/** A gap stays a gap: untouched while its neighbours still meet there, reworded where something came in. */
function gapOutcome(difference: Difference, passage: Span): Found {
  const { a, b, toB } = difference;
  const after = wordRange(a, passage.from, passage.from + 1).from;
  const left = after > 0 ? toB[after - 1] : -1;
  const right = after < a.ids.length ? toB[after] : b.ids.length;
  const gap = left >= 0 ? b.to[left] : right >= 0 && right < b.ids.length ? b.from[right] : 0;
  const place = { from: gap, to: gap };
  const leftHolds = after === 0 || left >= 0;
  if (leftHolds && right >= 0 && right === left + 1)
    return { kind: 'untouched', place, kept: 1, confidence: SURE.plain };
  if (leftHolds && right >= 0) return { kind: 'reworded', place, kept: 1, confidence: SURE.filled };
  if (leftHolds || right >= 0) return { kind: 'reworded', place, kept: 0.5, confidence: SURE.even };
  const around = placeBetween(difference, Math.max(0, after - 1), Math.min(a.ids.length, after + 1), []);
  return { kind: 'gone', place: around, kept: 0, confidence: SURE.gapGone };
}

import { firstFrom } from '../text/ascending.ts';
import { sentencesOfWords } from '../text/sentences-of-words.ts';
import type { Words } from '../text/words.ts';
import type { Stretch } from './stretch.ts';

/** Words of A that stand elsewhere in B: a sentence, or several that moved together. */
export interface Move {
  readonly fromA: number;
  readonly toA: number;
  readonly fromB: number;
  readonly toB: number;
  /** The pairs of equal words, ascending in both. */
  readonly pairs: readonly (readonly [number, number])[];
  /** Another place in B fits as well. */
  readonly rivalled: boolean;
}

/** Fewer words than this are too likely to stand elsewhere by chance. */
const LEAST_WORDS = 6;
/** The share of its words that a moved sentence must keep. */
const LEAST_SHARE = 0.8;
/** So many places of a sentence are compared word by word; those with most words in a row come first. */
const MOST_SHIFTS = 8;

/**
 * Sentences that were taken out of A in one place and stand in B in another with at least 80 % of their words. Candidates
 * are found by runs of three words, then compared word by word (longest common subsequence).
 */
export function findMoves(a: Words, b: Words, stretches: readonly Stretch[]): Move[] {
  const inserted = new Uint8Array(b.ids.length);
  for (const s of stretches) if (s.kind === 'changed') inserted.fill(1, s.fromB, s.toB);
  const triples = triplesOf(b.ids, inserted);
  if (triples === null) return [];
  const search: Search = {
    a,
    b,
    triples,
    inserted,
    claimed: new Uint8Array(b.ids.length),
    unmet: new Int32Array(highest(a.ids) + 1),
  };
  const ends = sentencesOfWords(a).to;
  const moves: Move[] = [];
  for (const stretch of stretches) {
    if (stretch.kind !== 'changed') continue;
    for (const [fromA, toA] of sentencesIn(a, ends, stretch.fromA, stretch.toA)) {
      const move = moveOf(search, fromA, toA, stretch);
      if (move === null) continue;
      for (const [, j] of move.pairs) search.claimed[j] = 1;
      moves.push(move);
    }
  }
  return joinNeighbours(moves);
}

/** What a search for moves goes by. */
interface Search {
  readonly a: Words;
  readonly b: Words;
  readonly triples: Triples;
  /** For each word of B whether it came in, and whether a move has it already. */
  readonly inserted: Uint8Array;
  readonly claimed: Uint8Array;
  /** Of each word of A, how many of the sentence at hand are not yet met with; all 0 between two sentences. */
  readonly unmet: Int32Array;
}

function highest(ids: Int32Array): number {
  let most = -1;
  for (const id of ids) if (id > most) most = id;
  return most;
}

/** Where runs of three words stand: chains of places by the hash of their words. */
interface Triples {
  readonly newest: Int32Array;
  readonly older: Int32Array;
}

/** The runs of three words of B that came in; null where there is none. */
function triplesOf(ids: Int32Array, inserted: Uint8Array): Triples | null {
  let count = 0;
  for (const came of inserted) count += came;
  if (count < 3) return null;
  const newest = new Int32Array(2 ** Math.ceil(Math.log2(2 * count))).fill(-1);
  const older = new Int32Array(ids.length);
  let isEmpty = true;
  for (let j = 0; j + 2 < ids.length; j++) {
    if (inserted[j] === 0 || inserted[j + 1] === 0 || inserted[j + 2] === 0) continue;
    const at = hashAt(ids, j) & (newest.length - 1);
    older[j] = newest[at];
    newest[at] = j;
    isEmpty = false;
  }
  return isEmpty ? null : { newest, older };
}

/** Of three words in a row; the factors are odd numbers with bits all over (D. Knuth, TAOCP 3, 6.4). */
function hashAt(ids: Int32Array, at: number): number {
  const mixed =
    Math.imul(ids[at], 0x9e3779b1) ^
    Math.imul(ids[at + 1] + 1, 0x85ebca6b) ^
    Math.imul(ids[at + 2] + 2, 0xc2b2ae35);
  return mixed ^ (mixed >>> 15);
}

/** The sentences of a stretch of words, of those that are long enough; `ends` are those of the whole text, ascending. */
function sentencesIn(words: Words, ends: Int32Array, from: number, to: number): [number, number][] {
  const sentences: [number, number][] = [];
  let start = from;
  while (start < to) {
    const sentence = firstFrom(ends, words.to[start]);
    const end = sentence < ends.length ? ends[sentence] : Infinity;
    const next = Math.min(to, Math.max(start + 1, firstFrom(words.from, end)));
    if (next - start >= LEAST_WORDS) sentences.push([start, next]);
    start = next;
  }
  return sentences;
}

function moveOf(search: Search, fromA: number, toA: number, home: Stretch): Move | null {
  const { a, b, inserted, claimed } = search;
  const found: Move[] = [];
  const size = toA - fromA;
  const least = Math.max(LEAST_WORDS, LEAST_SHARE * size);
  const slack = Math.ceil(size * (1 / LEAST_SHARE - 1));
  const isFree = (j: number) => inserted[j] === 1 && claimed[j] === 0;
  for (const shift of likelyShifts(search, fromA, toA)) {
    const fromB = Math.max(0, fromA + shift - slack);
    const toB = Math.min(b.ids.length, toA + shift + slack);
    if (sharedWords(search, fromA, toA, fromB, toB, isFree) < least) continue;
    const pairs = commonRun(a.ids, fromA, toA, b.ids, fromB, toB, isFree);
    if (pairs.length < least) continue;
    const first = pairs[0][1];
    const last = pairs[pairs.length - 1][1];
    if (pairs.length < LEAST_SHARE * (last + 1 - first)) continue;
    // Words that stay within their own change were not moved but rewritten there.
    if (first >= home.fromB && last < home.toB && home.toA - home.fromA <= 2 * size) continue;
    if (found.some((other) => first < other.toB && last >= other.fromB)) continue;
    found.push({ fromA, toA, fromB: first, toB: last + 1, pairs, rivalled: false });
  }
  if (found.length === 0) return null;
  found.sort((x, y) => y.pairs.length - x.pairs.length || x.fromB - y.fromB);
  const rivalled = found.length > 1 && found[1].pairs.length === found[0].pairs.length;
  return { ...found[0], rivalled };
}

/** How far words of A may have been shifted: the distances that most runs of three words agree on. */
function likelyShifts({ a, b, triples }: Search, fromA: number, toA: number): number[] {
  const votes = new Map<number, number>();
  const { newest, older } = triples;
  for (let i = fromA; i + 2 < toA; i++)
    for (let j = newest[hashAt(a.ids, i) & (newest.length - 1)]; j >= 0; j = older[j])
      if (a.ids[i] === b.ids[j] && a.ids[i + 1] === b.ids[j + 1] && a.ids[i + 2] === b.ids[j + 2])
        votes.set(j - i, (votes.get(j - i) ?? 0) + 1);
  return [...votes]
    .sort((x, y) => y[1] - x[1] || x[0] - y[0])
    .slice(0, MOST_SHIFTS)
    .map(([shift]) => shift);
}

/** How many words a sentence of A has in common with a stretch of B in any order: no run of both has more. */
function sharedWords(
  { a, b, unmet }: Search,
  fromA: number,
  toA: number,
  fromB: number,
  toB: number,
  isFree: (j: number) => boolean,
): number {
  for (let i = fromA; i < toA; i++) unmet[a.ids[i]]++;
  let shared = 0;
  for (let j = fromB; j < toB; j++) {
    const id = b.ids[j];
    if (id >= unmet.length || unmet[id] === 0 || !isFree(j)) continue;
    unmet[id]--;
    shared++;
  }
  for (let i = fromA; i < toA; i++) unmet[a.ids[i]] = 0;
  return shared;
}

/** A longest common subsequence of two short stretches, as pairs of indices; only allowed words of B take part. */
function commonRun(
  a: Int32Array,
  fromA: number,
  toA: number,
  b: Int32Array,
  fromB: number,
  toB: number,
  allowed: (j: number) => boolean,
): [number, number][] {
  const n = toA - fromA;
  const m = toB - fromB;
  const width = m + 1;
  const lengths = new Uint16Array((n + 1) * width);
  const agrees = (i: number, j: number) => a[fromA + i] === b[fromB + j] && allowed(fromB + j);
  for (let i = n - 1; i >= 0; i--)
    for (let j = m - 1; j >= 0; j--)
      lengths[i * width + j] = agrees(i, j)
        ? lengths[(i + 1) * width + j + 1] + 1
        : Math.max(lengths[(i + 1) * width + j], lengths[i * width + j + 1]);
  const pairs: [number, number][] = [];
  for (let i = 0, j = 0; i < n && j < m;) {
    if (agrees(i, j)) pairs.push([fromA + i++, fromB + j++]);
    else if (lengths[(i + 1) * width + j] >= lengths[i * width + j + 1]) i++;
    else j++;
  }
  return pairs;
}

function joinNeighbours(moves: readonly Move[]): Move[] {
  const joined: Move[] = [];
  for (const move of moves) {
    const last = joined.at(-1);
    if (
      last !== undefined &&
      last.toA === move.fromA &&
      last.toB === move.fromB &&
      last.rivalled === move.rivalled
    )
      joined[joined.length - 1] = {
        ...last,
        toA: move.toA,
        toB: move.toB,
        pairs: [...last.pairs, ...move.pairs],
      };
    else joined.push(move);
  }
  return joined;
}

import type { Difference } from '../difference/difference.ts';

/** A passage found again where the difference could not follow it, in words of the newer text. */
export interface FoundAgain {
  readonly from: number;
  readonly to: number;
  /** The share of the passage's words that stand there. */
  readonly share: number;
  /** Another place fits as well. */
  readonly rivalled: boolean;
}

/** A word that stands more often than this in the newer text says little of where a passage is. */
const RARE = 6;
/** Rare words must agree at least so often. */
const LEAST_RARE = 2;
/** From this share of what its words weigh on, a passage is there again. A word weighs the more the rarer it is. */
const LEAST_SHARE = 0.4;
/** A place that is as good to this part of a word's share is a rival. */
const AS_GOOD = 0.95;

interface FreeWords {
  readonly free: Uint8Array;
  readonly byWord: ReadonlyMap<number, readonly number[]>;
  /** What a word weighs: the logarithm of how rare it is in the newer text. */
  readonly weigh: (id: number) => number;
}

const places = new WeakMap<Difference, FreeWords>();

/** The words of B that neither stayed nor were moved there, by number. */
function freeWords(difference: Difference): FreeWords {
  const before = places.get(difference);
  if (before !== undefined) return before;
  const { b, stretches, moves } = difference;
  const free = new Uint8Array(b.ids.length);
  for (const { kind, fromB, toB } of stretches) if (kind === 'changed') free.fill(1, fromB, toB);
  for (const { pairs } of moves) for (const [, j] of pairs) free[j] = 0;
  const byWord = new Map<number, number[]>();
  for (let j = 0; j < free.length; j++) {
    if (free[j] === 0) continue;
    const there = byWord.get(b.ids[j]);
    if (there === undefined) byWord.set(b.ids[j], [j]);
    else there.push(j);
  }
  let most = -1;
  for (const id of b.ids) if (id > most) most = id;
  const times = new Int32Array(most + 1);
  for (const id of b.ids) times[id]++;
  const weigh = (id: number) => Math.log((b.ids.length + 1) / (id <= most ? Math.max(1, times[id]) : 1));
  const made = { free, byWord, weigh };
  places.set(difference, made);
  return made;
}

/**
 * Where words that were changed or taken out stand again, by their rare ones: each votes for where the passage would begin;
 * around the most votes as many as possible of its words are counted, each once. null where nothing is like it.
 * @param from, to the words in the older text
 */
export function foundAgain(difference: Difference, from: number, to: number): FoundAgain | null {
  const { a, b } = difference;
  const words = freeWords(difference);
  const { byWord } = words;
  const size = to - from;
  const width = Math.max(4, Math.ceil(size / 2));
  const votes = new Map<number, Set<number>>();
  for (let i = from; i < to; i++) {
    const there = byWord.get(a.ids[i]);
    if (there === undefined || there.length > RARE) continue;
    for (const j of there) {
      const at = Math.floor((j - (i - from)) / width);
      for (const bucket of [at, at + 1]) {
        const known = votes.get(bucket);
        if (known === undefined) votes.set(bucket, new Set([i]));
        else known.add(i);
      }
    }
  }
  const best = [...votes]
    .filter(([, words]) => words.size >= Math.min(LEAST_RARE, size))
    .sort((x, y) => y[1].size - x[1].size || x[0] - y[0])
    .slice(0, 4);
  const found: FoundAgain[] = [];
  for (const [bucket] of best) {
    const start = Math.max(0, (bucket - 1) * width);
    const end = Math.min(b.ids.length, (bucket + 1) * width + size);
    const one = countedIn(a.ids, b.ids, words, { from, to }, { from: start, to: end });
    if (one !== null && !found.some((other) => one.from < other.to && one.to > other.from)) found.push(one);
  }
  found.sort((x, y) => y.share - x.share || x.from - y.from);
  const [first, second] = [found.at(0), found.at(1)];
  if (first === undefined) return null;
  return { ...first, rivalled: second !== undefined && second.share >= AS_GOOD * first.share };
}

interface Range {
  readonly from: number;
  readonly to: number;
}

/** The words of a passage that stand within a window, each counted once; the hull of those that stand close together. */
function countedIn(
  a: Int32Array,
  b: Int32Array,
  { free, weigh }: FreeWords,
  passage: Range,
  window: Range,
): FoundAgain | null {
  const wanted = new Map<number, number>();
  for (let i = passage.from; i < passage.to; i++) wanted.set(a[i], (wanted.get(a[i]) ?? 0) + 1);
  let whole = 0;
  for (let i = passage.from; i < passage.to; i++) whole += weigh(a[i]);
  const size = passage.to - passage.from;
  const hits: number[] = [];
  let weight = 0;
  for (let j = window.from; j < window.to; j++) {
    const left = wanted.get(b[j]) ?? 0;
    if (free[j] === 0 || left === 0) continue;
    wanted.set(b[j], left - 1);
    hits.push(j);
    weight += weigh(b[j]);
  }
  if (hits.length === 0 || weight < LEAST_SHARE * whole) return null;
  return { from: hits[0], to: hits[hits.length - 1] + 1, share: hits.length / size, rivalled: false };
}

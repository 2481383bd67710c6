import { firstFrom } from '../text/ascending.ts';
import { sentenceSpans } from '../text/sentences.ts';
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

/**
 * Sentences that were taken out of A in one place and stand in B in another with at least 80 % of their words. Candidates
 * are found by runs of three words, then compared word by word (longest common subsequence).
 */
export function findMoves(a: Words, b: Words, stretches: readonly Stretch[]): Move[] {
  const inserted = new Uint8Array(b.ids.length);
  for (const s of stretches) if (s.kind === 'changed') inserted.fill(1, s.fromB, s.toB);
  const placesByTriple = new Map<string, number[]>();
  for (let j = 0; j + 2 < b.ids.length; j++) {
    if (inserted[j] === 0 || inserted[j + 1] === 0 || inserted[j + 2] === 0) continue;
    const key = tripleAt(b.ids, j);
    const places = placesByTriple.get(key);
    if (places === undefined) placesByTriple.set(key, [j]);
    else places.push(j);
  }
  if (placesByTriple.size === 0) return [];
  const claimed = new Uint8Array(b.ids.length);
  const ends = sentenceSpans(a.text).map(({ to }) => to);
  const moves: Move[] = [];
  for (const stretch of stretches) {
    if (stretch.kind !== 'changed') continue;
    for (const [fromA, toA] of sentencesIn(a, ends, stretch.fromA, stretch.toA)) {
      const move = moveOf(a, b, fromA, toA, stretch, placesByTriple, inserted, claimed);
      if (move === null) continue;
      for (const [, j] of move.pairs) claimed[j] = 1;
      moves.push(move);
    }
  }
  return joinNeighbours(moves);
}

function tripleAt(ids: Int32Array, at: number): string {
  return `${ids[at]} ${ids[at + 1]} ${ids[at + 2]}`;
}

/** The sentences of a stretch of words, of those that are long enough; `ends` are those of the whole text, ascending. */
function sentencesIn(words: Words, ends: readonly number[], from: number, to: number): [number, number][] {
  const sentences: [number, number][] = [];
  let start = from;
  while (start < to) {
    const end = ends[firstFrom(ends, words.to[start])] ?? Infinity;
    const next = Math.min(to, Math.max(start + 1, firstFrom(words.from, end)));
    if (next - start >= LEAST_WORDS) sentences.push([start, next]);
    start = next;
  }
  return sentences;
}

function moveOf(
  a: Words,
  b: Words,
  fromA: number,
  toA: number,
  home: Stretch,
  placesByTriple: ReadonlyMap<string, readonly number[]>,
  inserted: Uint8Array,
  claimed: Uint8Array,
): Move | null {
  const votes = new Map<number, number>();
  for (let i = fromA; i + 2 < toA; i++)
    for (const j of placesByTriple.get(tripleAt(a.ids, i)) ?? [])
      votes.set(j - i, (votes.get(j - i) ?? 0) + 1);
  const shifts = [...votes].sort((x, y) => y[1] - x[1] || x[0] - y[0]).slice(0, 8);
  const found: Move[] = [];
  const size = toA - fromA;
  const slack = Math.ceil(size * (1 / LEAST_SHARE - 1));
  for (const [shift] of shifts) {
    const fromB = Math.max(0, fromA + shift - slack);
    const toB = Math.min(b.ids.length, toA + shift + slack);
    const pairs = commonRun(
      a.ids,
      fromA,
      toA,
      b.ids,
      fromB,
      toB,
      (j) => inserted[j] === 1 && claimed[j] === 0,
    );
    if (pairs.length < LEAST_WORDS || pairs.length < LEAST_SHARE * size) continue;
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

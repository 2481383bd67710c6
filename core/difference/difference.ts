import type { Words } from '../text/words.ts';
import { matchWords } from './match.ts';
import { findMoves, type Move } from './moves.ts';
import type { Stretch } from './stretch.ts';

/** Two texts, word by word: what stays, what changed, what moved. */
export interface Difference {
  readonly a: Words;
  readonly b: Words;
  /** For each word of A the word of B that it stays as, or -1; moved words are not in it. */
  readonly toB: Int32Array;
  /** All of both texts, in order; kinds alternate. */
  readonly stretches: readonly Stretch[];
  readonly moves: readonly Move[];
}

/** A coincidence of at most so many words between two larger changes is not kept apart from them. */
const COINCIDENCE_WORDS = 3;

/** What changed from text A to text B, word by word. Both texts' words share one vocabulary. */
export function differenceOf(a: Words, b: Words): Difference {
  const toB = matchWords(a.ids, b.ids);
  dropCoincidences(toB, a.ids.length, b.ids.length);
  const stretches = stretchesOf(toB, a.ids.length, b.ids.length);
  return { a, b, toB, stretches, moves: findMoves(a, b, stretches) };
}

function stretchesOf(toB: Int32Array, lengthA: number, lengthB: number): Stretch[] {
  const stretches: Stretch[] = [];
  let i = 0;
  let j = 0;
  while (i < lengthA || j < lengthB) {
    const fromA = i;
    const fromB = j;
    while (i < lengthA && toB[i] === j) {
      i++;
      j++;
    }
    if (i > fromA) {
      stretches.push({ kind: 'same', fromA, toA: i, fromB, toB: j });
      continue;
    }
    while (i < lengthA && toB[i] < 0) i++;
    j = i < lengthA ? toB[i] : lengthB;
    stretches.push({ kind: 'changed', fromA, toA: i, fromB, toB: j });
  }
  return stretches;
}

/** Makes a rewritten sentence one change: takes out short runs that agree by chance between larger changes. */
function dropCoincidences(toB: Int32Array, lengthA: number, lengthB: number): void {
  for (let changed = true; changed;) {
    changed = false;
    const stretches = stretchesOf(toB, lengthA, lengthB);
    for (let s = 1; s + 1 < stretches.length; s++) {
      const { kind, fromA, toA } = stretches[s];
      const size = toA - fromA;
      if (kind !== 'same' || size > COINCIDENCE_WORDS) continue;
      if (largerSide(stretches[s - 1]) >= 2 * size && largerSide(stretches[s + 1]) >= 2 * size) {
        toB.fill(-1, fromA, toA);
        changed = true;
        s++;
      }
    }
  }
}

function largerSide(stretch: Stretch): number {
  return Math.max(stretch.toA - stretch.fromA, stretch.toB - stretch.fromB);
}

/** How many words were kept in place, moved, added and removed. kept + moved + removed = words of A. */
export function countChanges(difference: Difference): {
  kept: number;
  moved: number;
  added: number;
  removed: number;
} {
  let kept = 0;
  for (const j of difference.toB) if (j >= 0) kept++;
  let moved = 0;
  for (const move of difference.moves) moved += move.pairs.length;
  return {
    kept,
    moved,
    added: difference.b.ids.length - kept - moved,
    removed: difference.a.ids.length - kept - moved,
  };
}

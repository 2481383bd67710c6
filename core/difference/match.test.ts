import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { matchWords, type MatchLimits } from './match.ts';

/** Small limits, so that what holds for long texts is seen on short ones. */
const SMALL: MatchLimits = { mostEdits: 40, shortStretch: 15 };
const match = (a: readonly number[], b: readonly number[], limits?: MatchLimits) => [
  ...matchWords(Int32Array.from(a), Int32Array.from(b), limits),
];
const range = (from: number, to: number) => Array.from({ length: to - from }, (_, n) => from + n);

/** The length of a longest common subsequence, by the table of all beginnings. */
function longestCommon(a: readonly number[], b: readonly number[]): number {
  let row = Array.from({ length: b.length + 1 }, () => 0);
  for (const word of a) {
    const next = [0];
    for (const [j, other] of b.entries())
      next.push(word === other ? row[j] + 1 : Math.max(row[j + 1], next[j]));
    row = next;
  }
  return row[b.length];
}

/** Each match is of equal words, and they ascend in both; returns how many there are. */
function soundMatches(a: readonly number[], b: readonly number[], limits?: MatchLimits): number {
  const toB = match(a, b, limits);
  const matched = toB.filter((j) => j >= 0);
  expect(toB).toHaveLength(a.length);
  expect(toB.every((j, i) => j < 0 || a[i] === b[j])).toBe(true);
  expect(matched.every((j, n) => n === 0 || j > matched[n - 1])).toBe(true);
  return matched.length;
}

describe('the words of a short stretch', () => {
  it('stay in as many places as can be', () => {
    const words = (of: number) => fc.array(fc.nat(of), { maxLength: 40 });
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }).chain((of) => fc.tuple(words(of), words(of))),
        ([a, b]) => {
          expect(soundMatches(a, b)).toBe(longestCommon(a, b));
        },
      ),
      { numRuns: 1500 },
    );
  });

  it('stay where only one of two texts has any', () => {
    expect(match([], [])).toEqual([]);
    expect(match([1, 2], [])).toEqual([-1, -1]);
    expect(match([], [1])).toEqual([]);
    expect(match([1], [2])).toEqual([-1]);
    expect(match([1, 1], [1])).toEqual([0, -1]);
    expect(match([1], [1, 1])).toEqual([0]);
  });
});

describe('the words of a long stretch', () => {
  const other = (n: number) => 100_000 + n;

  it('stay where each stands once, however many between them are others', () => {
    // Every seventh word is another; the first and last too, so that nothing is peeled off the ends.
    const a = range(0, 401);
    const changed = (n: number) => n % 7 === 0 || n === 400;
    const b = a.map((n) => (changed(n) ? other(n) : n));
    expect(match(a, b, SMALL)).toEqual(a.map((n) => (changed(n) ? -1 : n)));
    // With words put in and taken out the places differ.
    const shorter = a.filter((n) => n % 11 !== 0 && n !== 400);
    const at = new Map(shorter.map((n, j) => [n, j]));
    expect(match(a, shorter, SMALL)).toEqual(a.map((n) => at.get(n) ?? -1));
    expect(match(shorter, a, SMALL)).toEqual(shorter);
  });

  it('stay in the longer of two parts that changed places, whichever comes first', () => {
    const start = [other(1)];
    const end = [other(2)];
    const [long, short] = [range(0, 120), range(2000, 2070)];
    const ofLong = (a: readonly number[], b: readonly number[]) => {
      const toB = match(a, b, SMALL);
      return a.flatMap((word, i) => (toB[i] >= 0 ? [word] : []));
    };
    expect(ofLong([...start, ...long, ...short], [...short, ...long, ...end])).toEqual(long);
    expect(ofLong([...start, ...short, ...long], [...long, ...short, ...end])).toEqual(long);
    // Three parts in reverse: still the longest of them.
    const third = range(4000, 4030);
    expect(ofLong([...start, ...third, ...short, ...long], [...long, ...short, ...third, ...end])).toEqual(
      long,
    );
  });

  it('do not stay by a word alone: its neighbour has to agree', () => {
    // Word 5 stands once in each, far from where it belongs, and would cut the common rest apart.
    const rest = range(1000, 1080);
    const a = [other(1), 5, other(2), ...rest, other(3)];
    const b = [other(4), ...rest, other(5), 5, other(6)];
    const toB = match(a, b, SMALL);
    expect(toB.filter((j) => j >= 0)).toHaveLength(rest.length);
    expect(toB[1]).toBe(-1);
  });

  it('stay as they do in a short one where none stands once', () => {
    const twice = (from: number, to: number) => range(from, to).flatMap((n) => [n, n]);
    const a = [other(1), ...twice(0, 90), other(2)];
    const b = [other(3), ...twice(0, 30), other(4), ...twice(40, 90), other(5)];
    expect(soundMatches(a, b, SMALL)).toBe(160);
  });

  it('that share one run only still stay in it when the search is cut off', () => {
    const twice = (from: number, to: number) => range(from, to).flatMap((n) => [n, n]);
    const run = twice(0, 20);
    // Far more edits than the search may make; the run is within its reach from the beginning.
    const a = [...twice(10_000, 10_008), ...run, ...twice(20_000, 20_080)];
    const b = [...twice(30_000, 30_008), ...run, ...twice(40_000, 40_080)];
    const toB = match(a, b, SMALL);
    expect(toB.flatMap((j, i) => (j >= 0 ? [[i, j]] : []))).toEqual(
      range(0, run.length).map((n) => [16 + n, 16 + n]),
    );
    // The same from the end.
    const back = match(a.toReversed(), b.toReversed(), SMALL);
    expect(back.filter((j) => j >= 0)).toHaveLength(run.length);
    // And none where nothing agrees.
    expect(match(twice(10_000, 10_100), twice(20_000, 20_100), SMALL).every((j) => j === -1)).toBe(true);
  });

  it('stay in nearly as many places as can be, where it is cut at words that stand once', () => {
    const a = range(0, 300).map((i) => (i * 7919) % 101);
    const b = a.flatMap((word, i) => (i % 11 === 0 ? [other(i)] : i % 17 === 0 ? [] : [word]));
    expect(soundMatches(a, b, SMALL)).toBeGreaterThanOrEqual(longestCommon(a, b) * 0.97);
  });

  it('are sound for any two texts', () => {
    const long = (seed: number, of: number) => {
      let state = seed;
      return Array.from({ length: 220 }, () => {
        // Numerical Recipes' linear congruential generator.
        state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
        return state % of;
      });
    };
    for (const of of [3, 20, 90, 3000]) {
      const a = long(1, of);
      const edited = a.flatMap((word, n) => (n % 13 === 5 ? [] : n % 17 === 3 ? [word, other(n)] : [word]));
      expect(soundMatches(a, edited, SMALL)).toBeGreaterThanOrEqual(
        of > 1000 ? a.filter((_, n) => n % 13 !== 5).length : 0,
      );
      soundMatches(a, long(2, of), SMALL);
    }
  });
});

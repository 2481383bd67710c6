import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newVocabulary, wordsOf } from '../text/words.ts';
import { differenceOf, type Difference } from './difference.ts';

/** The moves as they are defined, found by trying everything: sets of places for tables, recursion for the subsequence. */

type Pair = readonly [number, number];

/** Sentences of the texts below end with a stop and hold none. */
function sentenceOfWord(text: string): number[] {
  return text.split('.').flatMap((sentence, n) => (sentence.match(/\w+/g) ?? []).map(() => n));
}

/** A longest subsequence of both that takes words of A as early as it can, as pairs. */
function longest(
  a: readonly number[],
  b: readonly number[],
  agree: (i: number, j: number) => boolean,
): Pair[] {
  const known = new Map<string, Pair[]>();
  const from = (x: number, y: number): Pair[] => {
    if (x === a.length || y === b.length) return [];
    const key = `${x}/${y}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    const withoutA = from(x + 1, y);
    const withoutB = from(x, y + 1);
    const best = agree(a[x], b[y])
      ? ([[a[x], b[y]], ...from(x + 1, y + 1)] as Pair[])
      : withoutA.length >= withoutB.length
        ? withoutA
        : withoutB;
    known.set(key, best);
    return best;
  };
  return from(0, 0);
}

const range = (from: number, to: number) =>
  Array.from({ length: Math.max(0, to - from) }, (_, n) => from + n);

function movesByTrying(textA: string, { a, b, stretches }: Difference) {
  const sentenceAt = sentenceOfWord(textA);
  const changed = stretches.filter(({ kind }) => kind === 'changed');
  const inserted = new Set(changed.flatMap(({ fromB, toB }) => range(fromB, toB)));
  const taken = new Set<number>();
  const found: { from: Pair; to: Pair; rivalled: boolean; pairs: Pair[] }[] = [];
  for (const home of changed) {
    const words = range(home.fromA, home.toA);
    for (const sentence of new Set(words.map((i) => sentenceAt[i]))) {
      const own = words.filter((i) => sentenceAt[i] === sentence);
      if (own.length < 6) continue;
      const votes = new Map<number, number>();
      for (const i of own.slice(0, -2))
        for (const j of inserted)
          if ([0, 1, 2].every((n) => inserted.has(j + n) && a.ids[i + n] === b.ids[j + n]))
            votes.set(j - i, (votes.get(j - i) ?? 0) + 1);
      const shifts = [...votes.keys()]
        .sort((x, y) => (votes.get(y) ?? 0) - (votes.get(x) ?? 0) || x - y)
        .slice(0, 8);
      const candidates: Pair[][] = [];
      for (const shift of shifts) {
        const slack = Math.ceil(own.length / 4);
        const near = range(own[0] + shift - slack, own[own.length - 1] + 1 + shift + slack).filter(
          (j) => j >= 0 && j < b.ids.length,
        );
        const pairs = longest(own, near, (i, j) => a.ids[i] === b.ids[j] && inserted.has(j) && !taken.has(j));
        if (pairs.length < 6 || pairs.length * 5 < own.length * 4) continue;
        const [first, last] = [pairs[0][1], pairs[pairs.length - 1][1]];
        if (pairs.length * 5 < (last + 1 - first) * 4) continue;
        const atHome = first >= home.fromB && last < home.toB;
        if (atHome && words.length <= 2 * own.length) continue;
        const places = new Set(range(first, last + 1));
        if (
          candidates.some((other) =>
            range(other[0][1], other[other.length - 1][1] + 1).some((j) => places.has(j)),
          )
        )
          continue;
        candidates.push(pairs);
      }
      candidates.sort((x, y) => y.length - x.length || x[0][1] - y[0][1]);
      const best = candidates.at(0);
      if (best === undefined) continue;
      for (const [, j] of best) taken.add(j);
      const rivalled = candidates.at(1)?.length === best.length;
      const move = {
        from: [own[0], own[own.length - 1] + 1] as Pair,
        to: [best[0][1], best[best.length - 1][1] + 1] as Pair,
        rivalled,
        pairs: best,
      };
      const before = found.at(-1);
      if (before?.from[1] === move.from[0] && before.to[1] === move.to[0] && before.rivalled === rivalled) {
        found.pop();
        found.push({
          from: [before.from[0], move.from[1]],
          to: [before.to[0], move.to[1]],
          rivalled,
          pairs: [...before.pairs, ...move.pairs],
        });
      } else found.push(move);
    }
  }
  return found;
}

/** Sentences over few words, so that runs of words stand in several places; B is A's sentences moved and edited. */
const texts = fc
  .record({
    sentences: fc.array(fc.array(fc.integer({ min: 0, max: 11 }), { minLength: 5, maxLength: 12 }), {
      minLength: 2,
      maxLength: 6,
    }),
    order: fc.array(fc.nat(20), { minLength: 2, maxLength: 8 }),
    edits: fc.array(
      fc.record({ at: fc.nat(60), kind: fc.constantFrom('drop', 'add', 'other'), word: fc.nat(14) }),
      { maxLength: 5 },
    ),
  })
  .map(({ sentences, order, edits }) => {
    // Each sentence mostly has words of its own.
    const own = sentences.map((words, n) => words.map((word) => (word < 9 ? `s${n}w${word}` : `w${word}`)));
    const b = order.map((n) => [...own[n % own.length]]);
    for (const { at, kind, word } of edits) {
      const sentence = b[at % b.length];
      const place = at % (sentence.length + 1);
      if (kind === 'add') sentence.splice(place, 0, `w${word}`);
      else if (sentence.length > 1 && place < sentence.length)
        sentence.splice(place, 1, ...(kind === 'other' ? [`w${word}`] : []));
    }
    const written = (all: readonly (readonly string[])[]) =>
      all.map((words) => `${words.join(' ').replace(/^./, (first) => first.toUpperCase())}.`).join(' ');
    return [written(own), written(b)] as const;
  });

describe('the moves of a difference', () => {
  it('are those that trying everything finds', () => {
    let some = 0;
    let rivalled = 0;
    fc.assert(
      fc.property(texts, ([textA, textB]) => {
        const vocabulary = newVocabulary();
        const difference = differenceOf(wordsOf(textA, vocabulary), wordsOf(textB, vocabulary));
        const expected = movesByTrying(textA, difference);
        some += expected.length;
        rivalled += expected.filter((move) => move.rivalled).length;
        expect(
          difference.moves.map(({ fromA, toA, fromB, toB, ...move }) => ({
            from: [fromA, toA],
            to: [fromB, toB],
            rivalled: move.rivalled,
            pairs: move.pairs,
          })),
        ).toEqual(expected);
      }),
      { numRuns: 1500, seed: 20261127 },
    );
    // Otherwise it would show nothing.
    expect(some).toBeGreaterThan(400);
    expect(rivalled).toBeGreaterThan(8);
  });
});

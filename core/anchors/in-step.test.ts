import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inStep, risingPairs, type Pair } from './in-step.ts';

const pair = fc.tuple(fc.nat({ max: 60 }), fc.nat({ max: 60 }));

describe('two texts in step', () => {
  it('go by as many pairs that rise in both as there can be', () => {
    fc.assert(
      fc.property(fc.array(pair, { maxLength: 9 }), (pairs) => {
        const isRising = (list: readonly Pair[]) =>
          list.every((one, index) => index === 0 || one[1] > list[index - 1][1]);
        const rising = risingPairs(pairs);
        expect(isRising(rising)).toBe(true);
        // Every choice of the pairs, in the order of the first text.
        const sorted = pairs.toSorted((x, y) => x[0] - y[0] || x[1] - y[1]);
        let most = 0;
        for (let bits = 0; bits < 2 ** sorted.length; bits++) {
          const chosen = sorted.filter((_, index) => ((bits >> index) & 1) === 1);
          if (isRising(chosen)) most = Math.max(most, chosen.length);
        }
        expect(rising).toHaveLength(most);
      }),
    );
  });

  it('stand where a pair says, between two in proportion, and end together', () => {
    const rising: Pair[] = [
      [10, 20],
      [30, 80],
    ];
    expect([0, 10, 20, 30, 40].map((at) => inStep(rising, [40, 100], at))).toEqual([0, 20, 50, 80, 100]);
    expect(inStep([], [10, 20], 5)).toBe(10);
    expect(inStep([], [0, 0], 0)).toBe(0);
  });

  it('never go back while one reads on', () => {
    fc.assert(
      fc.property(fc.array(pair, { maxLength: 12 }), (pairs) => {
        const rising = risingPairs(pairs);
        let last = 0;
        for (let at = 0; at <= 70; at++) {
          const there = inStep(rising, [70, 70], at);
          expect(there).toBeGreaterThanOrEqual(last);
          last = there;
        }
      }),
    );
  });
});

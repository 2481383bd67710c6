import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cutIntoParts, piecesOf } from './parts.ts';

const pieces = (text: string) => piecesOf(text).map(({ from, to }) => text.slice(from, to));

describe('pieces of a remark', () => {
  it('are its sentences, and clauses where one turns', () => {
    expect(pieces('Lovely opening, but the second claim has no source. Next time say so.')).toEqual([
      'Lovely opening,',
      'but the second claim has no source.',
      'Next time say so.',
    ]);
    expect(pieces('Yes, but')).toEqual(['Yes, but']);
    expect(pieces('  ')).toEqual([]);
  });

  it('stand in order, don’t overlap, and leave out nothing but white space', () => {
    fc.assert(
      fc.property(
        fc.string({
          unit: fc.constantFrom('a', 'B', ' ', ',', '.', ';', '?', '!', '–', 'but ', ' '),
          maxLength: 60,
        }),
        (text) => {
          const found = piecesOf(text);
          let at = 0;
          for (const { from, to } of found) {
            expect(text.slice(at, from).trim()).toBe('');
            expect(to).toBeGreaterThan(from);
            at = to;
          }
          expect(text.slice(at).trim()).toBe('');
        },
      ),
    );
  });
});

describe('parts', () => {
  it('are the cut that is surest, as trying all of them finds', () => {
    const sure = fc.array(fc.double({ min: 0.05, max: 1, noNaN: true }), { minLength: 21, maxLength: 21 });
    const text = 'One thing here. Another thing, but a third one; a fourth one. And the fifth one here.';
    const given = piecesOf(text);
    expect(given).toHaveLength(5);
    const cost = { sentence: -0.6, turn: -0.5, comma: 0 };
    fc.assert(
      fc.property(sure, (values) => {
        const of = (from: number, to: number) => values[(from * 5 + to) % values.length];
        const index = (at: number, end: 'from' | 'to') => given.findIndex((piece) => piece[end] === at);
        const worth = (cuts: readonly number[]) => {
          const starts = [0, ...cuts];
          return starts.reduce((sum, start, i) => {
            const last = (starts.at(i + 1) ?? given.length) - 1;
            const { after } = given[start];
            return sum + Math.log(of(start, last)) - (start === 0 || after === null ? 0 : cost[after]);
          }, 0);
        };
        const all = Array.from({ length: 16 }, (_, bits) =>
          [1, 2, 3, 4].filter((n) => (bits >> (n - 1)) & 1),
        );
        const best = Math.max(...all.map(worth));
        const parts = cutIntoParts(given, ({ from, to }) => of(index(from, 'from'), index(to, 'to')));
        expect(worth(parts.slice(1).map(({ from }) => index(from, 'from')))).toBeCloseTo(best, 10);
      }),
    );
  });
});

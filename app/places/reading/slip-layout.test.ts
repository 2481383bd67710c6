import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeSlips, type SlipToPlace } from './slip-layout.ts';

const slips = fc
  .array(fc.record({ want: fc.integer({ min: 0, max: 2000 }), height: fc.integer({ min: 20, max: 200 }) }), {
    minLength: 1,
    maxLength: 30,
  })
  .map((list) =>
    list.toSorted((x, y) => x.want - y.want).map((s, i): SlipToPlace => ({ id: String(i), ...s })),
  );

describe('placeSlips', () => {
  it('leaves slips where they want to be when there is room', () => {
    const placed = placeSlips(
      [
        { id: 'a', want: 10, height: 50 },
        { id: 'b', want: 100, height: 50 },
      ],
      8,
      0,
      null,
    );
    expect([...placed]).toEqual([
      ['a', 10],
      ['b', 100],
    ]);
  });

  it('pushes close ones apart both ways', () => {
    const placed = placeSlips(
      [
        { id: 'a', want: 100, height: 50 },
        { id: 'b', want: 100, height: 50 },
      ],
      10,
      0,
      null,
    );
    expect([...placed.values()]).toEqual([70, 130]);
  });

  it('keeps order, never overlaps, never goes above the top', () => {
    fc.assert(
      fc.property(slips, fc.nat({ max: 29 }), (list, focus) => {
        const placed = placeSlips(list, 8, 12, String(focus));
        list.forEach((slip, i) => {
          const at = placed.get(slip.id) ?? NaN;
          expect(at).toBeGreaterThanOrEqual(12);
          if (i > 0) {
            const before = list[i - 1];
            expect(at).toBeGreaterThanOrEqual((placed.get(before.id) ?? NaN) + before.height + 8 - 1e-6);
          }
        });
      }),
    );
  });

  it('keeps the slip in focus level with its passage where there is room above', () => {
    fc.assert(
      fc.property(slips, (list) => {
        const index = list.length - 1;
        const focused = { ...list[index], want: 10_000 };
        const placed = placeSlips([...list.slice(0, index), focused], 8, 0, focused.id);
        expect(Math.abs((placed.get(focused.id) ?? 0) - 10_000)).toBeLessThan(10);
      }),
    );
  });
});

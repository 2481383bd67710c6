import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeSlips, roomAbove, type SlipToPlace, type SlipWithLine } from './slip-layout.ts';

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

describe('roomAbove', () => {
  const GAP = 8;
  const TOP = 12;
  const LINE = 30;
  const stack = (count: number, want: number): SlipWithLine[] =>
    Array.from({ length: count }, (_, i) => ({ id: String(i), want, height: 100, line: LINE }));

  it('folds the farthest first, and no more than it takes', () => {
    // Two slips of 100 above one that wants to stand at 160: they need 216, there are 148.
    const { lines, aside } = roomAbove(stack(3, 160), GAP, TOP, '2');
    expect([...lines]).toEqual(['0']);
    expect(aside.size).toBe(0);
  });

  it('puts aside what finds no room in lines either', () => {
    const { lines, aside } = roomAbove(stack(20, 160), GAP, TOP, '19');
    expect(lines.size).toBe(19);
    // Of 148 pixels the line that counts takes 38: two more lines find room, 17 stand aside.
    expect(aside.size).toBe(17);
    expect([...aside]).toEqual(Array.from({ length: 17 }, (_, i) => String(i)));
  });

  it('changes nothing without a focus, or where there is room', () => {
    for (const made of [roomAbove(stack(20, 160), GAP, TOP, null), roomAbove(stack(2, 600), GAP, TOP, '1')])
      expect([made.lines.size, made.aside.size]).toEqual([0, 0]);
  });

  it('lets the slip in focus stand level with its passage, however many are above', () => {
    fc.assert(
      fc.property(slips, fc.nat({ max: 29 }), (list, at) => {
        const focus = String(Math.min(at, list.length - 1));
        const sized = list.map((slip) => ({
          ...slip,
          want: slip.want + 60,
          line: Math.min(slip.height, 30),
        }));
        const { lines, aside } = roomAbove(sized, GAP, TOP, focus);
        const shown = [
          ...(aside.size > 0 ? [{ id: 'aside', want: sized[0].want, height: sized[0].line }] : []),
          ...sized
            .filter(({ id }) => !aside.has(id))
            .map((slip) => (lines.has(slip.id) ? { ...slip, height: slip.line } : slip)),
        ];
        const placed = placeSlips(shown, GAP, TOP, focus);
        const wanted = sized.find(({ id }) => id === focus)?.want ?? NaN;
        // Others pull at it with a ten-thousandth of its weight.
        expect(Math.abs((placed.get(focus) ?? NaN) - wanted)).toBeLessThan(8);
      }),
    );
  });
});

import { describe, expect, it } from 'vitest';
import type { ShownMatch } from './items.ts';
import { columnsOf, mapOf } from './map.ts';

const match = (from: number, to: number, sourceId: string) =>
  ({ place: { from, to }, sourceId }) as ShownMatch;

describe('the map of a text', () => {
  it('puts each match at its height, in the band of its source', () => {
    const { ticks, bands } = mapOf(
      1000,
      [match(500, 600, 'b'), match(0, 100, 'a'), match(700, 750, 'a')],
      0.02,
    );
    expect(bands).toBe(2);
    expect(ticks.map(({ top, height, band }) => [top, height, band])).toEqual([
      [0, 0.1, 0],
      [0.5, 0.1, 1],
      [0.7, 0.05, 0],
    ]);
  });

  it('names a match only where the letter before leaves room', () => {
    const { ticks } = mapOf(1000, [match(0, 9, 'a'), match(10, 30, 'b'), match(40, 60, 'c')], 0.03);
    expect(ticks.map(({ isNamed }) => isNamed)).toEqual([true, false, true]);
  });

  it('has room in the margin for letters that may begin in one line', () => {
    expect(columnsOf([0, 40, 70, 300, 400])).toEqual([0, 1, 0, 0, 0]);
    expect(columnsOf([])).toEqual([]);
  });

  it('lets sources share the last band once there are too many', () => {
    const many = Array.from({ length: 20 }, (_, i) => match(i, i + 1, `s${i}`));
    const { ticks, bands } = mapOf(20, many, 0);
    expect(bands).toBe(8);
    expect(ticks.at(-1)?.band).toBe(7);
    expect(mapOf(0, [], 0.1)).toEqual({ ticks: [], bands: 1 });
  });
});

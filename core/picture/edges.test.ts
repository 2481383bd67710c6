import fc from 'fast-check';
import { expect, it } from 'vitest';
import { edgesOf, withEdge, within, type Edge } from './edges.ts';

const number = fc.double({ min: -0.5, max: 1.5, noNaN: true });
const place = fc.record({ x: number, y: number, width: number, height: number });
const edge = fc.constantFrom<Edge>('left', 'right', 'top', 'bottom');

it('whatever edge is moved wherever, the rectangle stays one on the picture', () => {
  fc.assert(
    fc.property(place, fc.array(fc.tuple(edge, number), { maxLength: 20 }), (start, moves) => {
      let now = within(start);
      for (const [which, to] of moves) now = withEdge(now, which, to);
      const { left, right, top, bottom } = edgesOf(now);
      expect(Math.min(left, top)).toBeGreaterThanOrEqual(0);
      expect(Math.max(right, bottom)).toBeLessThanOrEqual(1 + 1e-9);
      expect(Math.min(right - left, bottom - top)).toBeGreaterThan(0.0199);
    }),
  );
});

it('moves one edge and no other', () => {
  const start = { x: 0.25, y: 0.25, width: 0.5, height: 0.5 };
  expect(withEdge(start, 'left', 0.5)).toEqual({ x: 0.5, y: 0.25, width: 0.25, height: 0.5 });
  expect(withEdge(start, 'bottom', 1)).toEqual({ x: 0.25, y: 0.25, width: 0.5, height: 0.75 });
  expect(within(start)).toEqual(start);
});

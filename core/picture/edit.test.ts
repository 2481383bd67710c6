import fc from 'fast-check';
import { expect, it } from 'vitest';
import { placeAfter, sizeAfter, WHOLE, type PictureEdit } from './edit.ts';

const share = fc
  .record({
    x: fc.double({ min: 0, max: 0.8, noNaN: true }),
    y: fc.double({ min: 0, max: 0.8, noNaN: true }),
    width: fc.double({ min: 0.05, max: 0.2, noNaN: true }),
    height: fc.double({ min: 0.05, max: 0.2, noNaN: true }),
  })
  .map((one) => one);
const turn = fc.constantFrom<PictureEdit['turn']>(0, 90, 180, 270);

it('four turns bring a place back to where it was', () => {
  fc.assert(
    fc.property(share, (place) => {
      let turned = place;
      for (let n = 0; n < 4; n++) turned = placeAfter(turned, { crop: WHOLE, turn: 90 }) ?? turned;
      for (const key of ['x', 'y', 'width', 'height'] as const) expect(turned[key]).toBeCloseTo(place[key]);
    }),
  );
});

it('a turn is as many quarter turns', () => {
  fc.assert(
    fc.property(share, turn, (place, by) => {
      let turned = place;
      for (let n = 0; n < by / 90; n++) turned = placeAfter(turned, { crop: WHOLE, turn: 90 }) ?? turned;
      const once = placeAfter(place, { crop: WHOLE, turn: by }) ?? place;
      for (const key of ['x', 'y', 'width', 'height'] as const) expect(once[key]).toBeCloseTo(turned[key]);
    }),
  );
});

it('a place stays within what is left, and outside of that there is none', () => {
  fc.assert(
    fc.property(share, share, turn, (place, crop, by) => {
      const found = placeAfter(place, { crop, turn: by });
      const apart =
        place.x >= crop.x + crop.width ||
        crop.x >= place.x + place.width ||
        place.y >= crop.y + crop.height ||
        crop.y >= place.y + place.height;
      expect(found === null).toBe(apart);
      if (found === null) return;
      expect(Math.min(found.x, found.y)).toBeGreaterThanOrEqual(-1e-9);
      expect(found.x + found.width).toBeLessThanOrEqual(1 + 1e-9);
      expect(found.y + found.height).toBeLessThanOrEqual(1 + 1e-9);
    }),
  );
});

it('a quarter turn exchanges width and height', () => {
  const crop = { x: 0.5, y: 0, width: 0.5, height: 1 };
  expect(sizeAfter({ width: 400, height: 300 }, { crop, turn: 90 })).toEqual({ width: 300, height: 200 });
  expect(sizeAfter({ width: 400, height: 300 }, { crop, turn: 180 })).toEqual({ width: 200, height: 300 });
  // The upper left corner stands at the upper right after a quarter turn clockwise.
  const corner = { x: 0, y: 0, width: 0.1, height: 0.2 };
  expect(placeAfter(corner, { crop: WHOLE, turn: 90 })).toEqual({ x: 0.8, y: 0, width: 0.2, height: 0.1 });
});

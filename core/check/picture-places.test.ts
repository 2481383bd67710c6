import fc from 'fast-check';
import { expect, it } from 'vitest';
import { asId, FileHash } from '../model/ids.ts';
import { exampleRemark } from '../model/example.ts';
import { placeIn, regionShares, shareIn } from './picture-places.ts';

const HASH = asId(FileHash, 'a'.repeat(64));

it('a place drawn on a picture lies where it was drawn, to the pixel, whatever size it is shown at', () => {
  const length = fc.integer({ min: 1, max: 8000 });
  fc.assert(
    fc.property(length, length, fc.nat(8000), fc.nat(8000), length, length, (w, h, x, y, width, height) => {
      const size = { width: w, height: h };
      const place = { x, y, width, height };
      expect(placeIn(HASH, shareIn(place, size), size)).toEqual({ fileHash: HASH, ...place });
    }),
  );
});

it('a remark has a share for each of its regions, and none for what is no region', () => {
  const region = { kind: 'region', x: 20, y: 10, width: 40, height: 5, outline: null };
  const remark = exampleRemark({ targets: [region, { kind: 'whole' }] });
  expect(regionShares(remark, { width: 200, height: 50 })).toEqual([
    { x: 0.1, y: 0.2, width: 0.2, height: 0.1 },
  ]);
});

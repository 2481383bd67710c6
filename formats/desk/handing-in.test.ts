import fc from 'fast-check';
import { expect, it } from 'vitest';
import { contentRange, partOf } from './handing-in.ts';

it('tells a part by its header, and reads it back', () => {
  fc.assert(
    fc.property(fc.nat(1e9), fc.nat(1e6), fc.nat(1e6), (from, length, rest) => {
      const part = { from, to: from + length, size: from + length + 1 + rest };
      expect(partOf(contentRange(part))).toEqual(part);
    }),
  );
});

it.each([
  undefined,
  '',
  'bytes 0-4',
  'bytes 4-0/9',
  'bytes 0-9/9',
  'bytes -1-3/9',
  'bytes 0-3/*',
  'lines 0-3/9',
])('takes %j for no part', (header) => {
  expect(partOf(header)).toBeNull();
});

import fc from 'fast-check';
import { expect, test } from 'vitest';
import { indexed, searching } from './grams.ts';

const few = fc.string({ unit: fc.constantFrom('a', 'b', '😀'), maxLength: 300 });

test('an index finds what a search finds, overlapping places too, for a piece of any length', () => {
  fc.assert(
    fc.property(few, fc.nat(300), fc.nat(60), (text, from, length) => {
      const piece = text.slice(from, from + length);
      expect(indexed(text)(piece)).toEqual(searching(text)(piece));
    }),
  );
  fc.assert(
    fc.property(few, few, (text, piece) => {
      expect(indexed(text)(piece)).toEqual(searching(text)(piece));
    }),
  );
});

test('places that overlap are all found', () => {
  const text = 'ab'.repeat(20);
  expect(indexed(text)('ab'.repeat(15))).toEqual([0, 2, 4, 6, 8, 10]);
  expect(indexed(text)('ba')).toEqual(searching(text)('ba'));
  expect(indexed(text)('')).toEqual([]);
});

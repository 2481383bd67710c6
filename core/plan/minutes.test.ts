import fc from 'fast-check';
import { expect, it } from 'vitest';
import { minutesIn, MOST_MINUTES } from './minutes.ts';

it('minutes are read as people write them', () => {
  const read = Object.fromEntries(
    ['45', '1h', '1 h', '1.5 h', '1,5 hours', '90 min', '90 minutes', '1:30', '1 h 30', '2h15m', ' 20m '].map(
      (text) => [text, minutesIn(text)],
    ),
  );
  expect(read).toEqual({
    '45': 45,
    '1h': 60,
    '1 h': 60,
    '1.5 h': 90,
    '1,5 hours': 90,
    '90 min': 90,
    '90 minutes': 90,
    '1:30': 90,
    '1 h 30': 90,
    '2h15m': 135,
    ' 20m ': 20,
  });
});

it('minutes are none where they are no time, nothing, or more than a day', () => {
  for (const text of ['', '0', '0h', 'soon', '-5', '25h', '1441', 'h', '1:75'])
    expect(minutesIn(text)).toBeNull();
});

it('any number of minutes is itself', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: MOST_MINUTES }), (minutes) => {
      expect(minutesIn(String(minutes))).toBe(minutes);
      expect(minutesIn(`${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`)).toBe(minutes);
    }),
  );
});

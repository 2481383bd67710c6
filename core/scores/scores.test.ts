import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { AttemptPolicy } from '../model/facts.ts';
import type { DecimalString } from '../model/ids.ts';
import { add, compare, divide, fromDecimal, multiply, subtract, toHundredths, toShown } from './fraction.ts';
import { scoreOf } from './policy.ts';

const dec = (text: string) => text as DecimalString;
const score = (policy: AttemptPolicy, ...scores: string[]) => {
  const result = scoreOf(
    policy,
    scores.map((s) => fromDecimal(dec(s))),
    fromDecimal(dec('40')),
  );
  return result === null ? null : toShown(result, 2);
};
const capped: AttemptPolicy = { kind: 'capped', cap: dec('0.85') };
const recover: AttemptPolicy = { kind: 'recover', share: dec('0.5') };

describe('attempt policy', () => {
  it('reckons the worked examples', () => {
    expect(score({ kind: 'latest' }, '26', '37')).toBe('37');
    expect(score({ kind: 'best' }, '26', '37')).toBe('37');
    expect(score({ kind: 'mean' }, '26', '37')).toBe('31.5');
    expect(score(capped, '26', '37')).toBe('34');
    expect(score(recover, '26', '37')).toBe('31.5');
    expect(score({ kind: 'latest' }, '35', '30')).toBe('30');
    expect(score(capped, '35', '30')).toBe('35');
    expect(score(recover, '35', '30')).toBe('35');
  });

  it('has no score where nothing is marked', () => {
    expect(score(capped)).toBeNull();
  });
});

describe('fractions', () => {
  const decimal = fc
    .tuple(fc.integer({ min: -9999, max: 9999 }), fc.nat({ max: 999 }))
    .map(([w, p]) => dec(`${w}.${String(p).padStart(3, '0')}`));

  it('reckons exactly', () => {
    expect(toShown(add(fromDecimal(dec('0.1')), fromDecimal(dec('0.2'))), 20)).toBe('0.3');
    fc.assert(
      fc.property(decimal, decimal, (x, y) => {
        const [a, b] = [fromDecimal(x), fromDecimal(y)];
        expect(compare(subtract(add(a, b), b), a)).toBe(0);
        if (b.n !== 0n) expect(compare(multiply(divide(a, b), b), a)).toBe(0);
      }),
    );
  });

  it('rounds half up', () => {
    expect(toShown(fromDecimal(dec('1.005')), 2)).toBe('1.01');
    expect(toShown(fromDecimal(dec('-0.004')), 2)).toBe('0');
    expect(toShown(fromDecimal(dec('28.50')), 2)).toBe('28.5');
    expect(toHundredths(fromDecimal(dec('2.675')))).toBe(268);
    expect(() => divide(fromDecimal(dec('1')), fromDecimal(dec('0')))).toThrow(RangeError);
  });
});

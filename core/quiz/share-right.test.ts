import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { DecimalString } from '../model/ids.ts';
import { compare, fromDecimal, ONE, toShown, ZERO } from '../scores/fraction.ts';
import { questionKinds, type QuestionKind } from './question.ts';
import { isRight, shareRight } from './share-right.ts';

const item = (kind: QuestionKind, correct: readonly string[]) => ({
  title: '',
  kind,
  prompt: '',
  choices: [],
  partners: [],
  correct,
});

it.each([
  ['short', ['peat'], ['  Peat '], true],
  ['short', ['peat', 'turf'], ['turf'], true],
  ['short', ['peat'], ['moss'], false],
  ['short', ['x'], [''], false],
  ['one', ['B'], ['B'], true],
  ['one', ['B'], ['A', 'B'], false],
  ['several', ['a', 'b'], ['b', 'a'], true],
  ['several', ['a', 'b'], ['a'], false],
  ['order', ['a', 'b'], ['a', 'b'], true],
  ['order', ['a', 'b'], ['b', 'a'], false],
  ['number', ['0.5'], ['0,50'], true],
  ['number', ['0.5'], ['0.05'], false],
  ['number', ['-3'], ['−3 °C'], true],
  ['number', ['80'], ['80 minutes'], true],
  ['number', ['80'], ['eighty'], false],
  ['long', [], ['x'], null],
] as const)('of %s %j the response %j is right: %s', (kind, correct, response, right) => {
  expect(isRight(item(kind, correct), response)).toBe(right);
});

describe('a share that is right', () => {
  const share = (kind: QuestionKind, correct: readonly string[], response: readonly string[]) =>
    toShown(shareRight(item(kind, correct), response) ?? ONE, 3);

  it('of several choices grows with the right ones and shrinks with the wrong ones, never below nothing', () => {
    const of = (...response: string[]) => share('several', ['a', 'b', 'c'], response);
    expect([of('a'), of('a', 'b'), of('a', 'b', 'x'), of('x', 'y')]).toEqual([
      '0.333',
      '0.667',
      '0.333',
      '0',
    ]);
  });

  it('of an order and of pairs counts what stands where it should', () => {
    expect(share('order', ['a', 'b', 'c', 'd'], ['a', 'b', 'd', 'c'])).toBe('0.5');
    expect(share('pairs', ['a x', 'b y', 'c z'], ['a x', 'b z', 'c y'])).toBe('0.333');
  });

  it('of a number allows for what it may be off, and no more', () => {
    const near = (given: string) =>
      shareRight(item('number', ['0.28']), [given], fromDecimal('0.01' as DecimalString));
    expect(['0.27', '0.28', '0,29'].map(near)).toEqual([ONE, ONE, ONE]);
    expect(['0.26', '0.291'].map(near)).toEqual([ZERO, ZERO]);
  });

  it('lies between nothing and all of it, and the right response has all, whatever is asked', () => {
    const word = fc.stringMatching(/^[a-z]{1,6}$/);
    const words = fc.uniqueArray(word, { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(fc.constantFrom(...questionKinds), words, fc.array(word), (kind, correct, response) => {
        const some = shareRight(item(kind, correct), response) ?? ONE;
        expect(compare(some, ZERO)).toBeGreaterThanOrEqual(0);
        expect(compare(some, ONE)).toBeLessThanOrEqual(0);
        const whole = ['several', 'order', 'pairs'].includes(kind) ? correct : correct.slice(0, 1);
        expect(isRight(item(kind, correct), whole)).toBe(true);
      }),
    );
  });
});

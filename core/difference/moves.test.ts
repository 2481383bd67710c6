import { describe, expect, it } from 'vitest';
import { newVocabulary, wordsOf } from '../text/words.ts';
import { countChanges, differenceOf } from './difference.ts';

const compare = (a: string, b: string) => {
  const vocabulary = newVocabulary();
  return differenceOf(wordsOf(a, vocabulary), wordsOf(b, vocabulary));
};

/** Moves as [from, to) in both texts, how many words moved, and whether another place fits. */
const moves = (a: string, b: string) =>
  compare(a, b).moves.map(({ fromA, toA, fromB, toB, pairs, rivalled }) => {
    for (const [i, j] of pairs) {
      expect(i >= fromA && i < toA && j >= fromB && j < toB).toBe(true);
      expect(wordOf(a, i)).toBe(wordOf(b, j));
    }
    for (let n = 1; n < pairs.length; n++)
      expect(pairs[n][0] > pairs[n - 1][0] && pairs[n][1] > pairs[n - 1][1]).toBe(true);
    return [fromA, toA, fromB, toB, pairs.length, rivalled];
  });
const wordOf = (text: string, n: number) => text.match(/\w+/g)?.[n];

/** A sentence of words that stand nowhere else. */
const sentence = (start: string, count: number) =>
  `${Array.from({ length: count }, (_, n) => `${n === 0 ? start.toUpperCase() : start}${n}`).join(' ')}.`;
const A6 = sentence('a', 6);
const B8 = sentence('b', 8);
const STAY = sentence('s', 20);
const REST = sentence('r', 20);

describe('a sentence that stands elsewhere', () => {
  it('has moved, forward or back', () => {
    expect(moves(`${A6} ${STAY}`, `${STAY} ${A6}`)).toEqual([[0, 6, 20, 26, 6, false]]);
    expect(moves(`${STAY} ${A6}`, `${A6} ${STAY}`)).toEqual([[20, 26, 0, 6, 6, false]]);
    expect(moves(`${STAY} ${A6} ${REST}`, `${STAY} ${REST} ${A6}`)).toEqual([[20, 26, 40, 46, 6, false]]);
  });

  it('of five words is chance', () => {
    const five = sentence('f', 5);
    expect(moves(`${five} ${STAY}`, `${STAY} ${five}`)).toEqual([]);
    expect(moves(`${five} ${five} ${STAY}`, `${STAY} ${five} ${five}`)).toEqual([]);
  });

  it('has moved with four fifths of its words, and not with fewer', () => {
    const ten = sentence('t', 10);
    const first = (n: number) => ten.split(' ').slice(0, n).join(' ');
    expect(moves(`${ten} ${STAY}`, `${STAY} ${first(8)}.`)).toEqual([[0, 10, 20, 28, 8, false]]);
    expect(moves(`${ten} ${STAY}`, `${STAY} ${first(7)}.`)).toEqual([]);
    // Out of its middle, too.
    const without = ten.replace('t4 t5 ', '');
    expect(moves(`${ten} ${STAY}`, `${STAY} ${without}`)).toEqual([[0, 10, 20, 28, 8, false]]);
    // Eight words have to be six at least, and seven of them make the share.
    expect(moves(`${B8} ${STAY}`, `${STAY} ${B8.replace('b3 ', '')}`)).toEqual([[0, 8, 20, 27, 7, false]]);
    expect(moves(`${B8} ${STAY}`, `${STAY} ${B8.replace('b3 b4 ', '')}`)).toEqual([]);
  });

  it('has moved with new words in it, up to a fifth of what it is now', () => {
    const with2 = B8.replace('b4', 'x0 x1 b4');
    expect(moves(`${B8} ${STAY}`, `${STAY} ${with2}`)).toEqual([[0, 8, 20, 30, 8, false]]);
    const with3 = B8.replace('b4', 'x0 x1 x2 b4');
    expect(moves(`${B8} ${STAY}`, `${STAY} ${with3}`)).toEqual([]);
  });

  it('has a rival where it stands a second time as well', () => {
    const apart = `${STAY} ${A6} ${sentence('x', 9)} ${A6}`;
    expect(moves(`${A6} ${STAY}`, apart)).toEqual([[0, 6, 20, 26, 6, true]]);
    // Where it has more of its words it has none.
    const less = B8.replace('b7', 'x');
    expect(moves(`${B8} ${STAY}`, `${STAY} ${less} ${sentence('y', 9)} ${B8}`)).toEqual([
      [0, 8, 37, 45, 8, false],
    ]);
    expect(moves(`${B8} ${STAY}`, `${STAY} ${B8} ${sentence('y', 9)} ${less}`)).toEqual([
      [0, 8, 20, 28, 8, false],
    ]);
  });

  it('is one with its neighbour where both moved together', () => {
    expect(moves(`${A6} ${B8} ${STAY}`, `${STAY} ${A6} ${B8}`)).toEqual([[0, 14, 20, 34, 14, false]]);
    expect(moves(`${A6} ${B8} ${STAY}`, `${STAY} ${B8} ${A6}`)).toEqual([
      [0, 6, 28, 34, 6, false],
      [6, 14, 20, 28, 8, false],
    ]);
    expect(moves(`${A6} ${B8} ${STAY}`, `${STAY} ${A6} ${sentence('x', 3)} ${B8}`)).toEqual([
      [0, 6, 20, 26, 6, false],
      [6, 14, 29, 37, 8, false],
    ]);
    expect(moves(`${A6} ${STAY} ${B8} ${REST}`, `${STAY} ${REST} ${A6} ${B8}`)).toEqual([
      [0, 6, 40, 46, 6, false],
      [26, 34, 46, 54, 8, false],
    ]);
  });

  it('takes its new place for itself', () => {
    expect(moves(`${A6} ${STAY} ${A6} ${REST}`, `${STAY} ${REST} ${A6}`)).toEqual([[0, 6, 40, 46, 6, false]]);
  });

  it('did not move where it was said twice and one of them went', () => {
    expect(moves(`${A6} ${STAY} ${A6}`, `${STAY} ${A6}`)).toEqual([]);
  });

  it('may be half a sentence that went alone', () => {
    const joined = `${B8.slice(0, -1)} ${STAY}`;
    expect(moves(`${joined} ${REST}`, `${STAY} ${REST} ${B8}`)).toEqual([[0, 8, 40, 48, 8, false]]);
  });
});

describe('the counts of a difference', () => {
  it('add up to the words of both texts', () => {
    expect(countChanges(compare('one two three', 'one two three'))).toEqual({
      kept: 3,
      moved: 0,
      added: 0,
      removed: 0,
    });
    expect(countChanges(compare('new one two', 'one old'))).toEqual({
      kept: 1,
      moved: 0,
      added: 1,
      removed: 2,
    });
    expect(countChanges(compare(`${A6} ${STAY} gone`, `${STAY} ${A6} new words`))).toEqual({
      kept: 20,
      moved: 6,
      added: 2,
      removed: 1,
    });
    expect(countChanges(compare('', 'one two'))).toEqual({ kept: 0, moved: 0, added: 2, removed: 0 });
  });
});

describe('a coincidence between changes', () => {
  const around = (size: number, before: number, after: number) => {
    const bare = (start: string, count: number) => sentence(start, count).slice(0, -1);
    const text = (own: string) =>
      `${STAY} ${bare(`${own}p`, before)} ${bare('k', size)} ${bare(`${own}q`, after)} ${REST}`;
    return countChanges(compare(text('x'), text('y'))).kept - 40;
  };

  it('of one to three words goes with them where both are twice as large, and stays otherwise', () => {
    expect([around(1, 2, 2), around(2, 4, 4), around(3, 6, 6)]).toEqual([0, 0, 0]);
    expect([around(1, 1, 2), around(1, 2, 1), around(2, 3, 9), around(3, 9, 5)]).toEqual([1, 1, 2, 3]);
    expect([around(4, 8, 8), around(4, 20, 20)]).toEqual([4, 4]);
  });

  it('is measured by the larger side of a change', () => {
    expect(countChanges(compare(`${STAY} k ${REST}`, `${STAY} x0 x1 k y0 y1 ${REST}`)).kept).toBe(40);
    expect(countChanges(compare(`${STAY} k ${REST}`, `${STAY} x0 k y0 y1 ${REST}`)).kept).toBe(41);
  });
});

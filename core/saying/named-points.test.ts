import { expect, it } from 'vitest';
import { pointsNamed } from './named-points.ts';

it.each([
  ['That is four of the ten points.', 4],
  ['-2 for units', 2],
  ['−2', 2],
  ['–½', 0.5],
  ['(2 marks lost for no ground plan)', 2],
  ['half a mark off for the tense', 0.5],
  ['You lost 1.5 points here because of the axis.', 1.5],
  ['Minus five: log starts in week 4.', 5],
  ['3/10 lost, no assumptions', 3],
  ['I had to take five off for it being late, you know that.', 5],
  ['Two of the eight marks were for the error, and I can’t give them.', 2],
  ['no points off for this', null],
  ['Full marks.', null],
  ['The first two points are good, the third is not.', null],
  ['Between 1990 and 2001 the level fell by -3 metres.', null],
  ['Use 2 decimals.', null],
  ['Two points don’t make a calibration.', null],
  ['Penalty of 5 marks for exceeding the word limit.', 5],
  ['See figure 2-3.', null],
  ['Nine of ten; the tenth is for the clause.', null],
  ['8 of the 10 marks for this part.', null],
  ['Your dam, in section three point two, is the only one; it was lost.', null],
])('points named in %j', (text, points) => {
  expect(pointsNamed(text)).toBe(points);
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exampleRemark } from '#core/model/example.ts';
import type { Target } from '#core/model/remark.ts';
import type { PageSize } from '#formats/marked-paper.ts';
import { marksOf, marksOnPage, pagesOf, pageTops } from './geometry.ts';

const upright: PageSize = { width: 600, height: 800, transform: [1, 0, 0, -1, 0, 800] };
/** The same page turned a quarter to the right. */
const turned: PageSize = { width: 800, height: 600, transform: [0, 1, 1, 0, 0, 0] };

const about = (target: Target) => exampleRemark({ targets: [target] });
const words = (...quads: number[][]): Target => ({
  kind: 'words',
  page: 1,
  quads,
  rect: [100, 700, 200, 720],
  quote: { exact: 'wet', prefix: '', suffix: '' },
});

describe('where marks are on the screen', () => {
  it('a remark about several places has each on its page', () => {
    const quad = [100, 720, 200, 720, 100, 700, 200, 700];
    const below = [100, 320, 160, 320, 100, 300, 160, 300];
    const remark = exampleRemark({
      targets: [words(quad), { ...words(below), page: 4 } as Target, words(below)],
    });
    expect(pagesOf(remark)).toEqual([1, 4]);
    expect(marksOnPage(remark, 1, upright, 1).map(({ top }) => top)).toEqual([80, 480]);
    expect(marksOnPage(remark, 4, upright, 1)).toEqual([{ left: 100, top: 480, width: 60, height: 20 }]);
    expect(marksOnPage(remark, 2, upright, 1)).toEqual([]);
    // It is shown at the first.
    expect(marksOf(remark, upright, 1).map(({ top }) => top)).toEqual([80]);
  });

  it('a line of words lies where its corners are, counted from the top', () => {
    const quad = [100, 720, 200, 720, 100, 700, 200, 700];
    expect(marksOf(about(words(quad)), upright, 1)).toEqual([{ left: 100, top: 80, width: 100, height: 20 }]);
    expect(marksOf(about(words(quad)), upright, 2)).toEqual([
      { left: 200, top: 160, width: 200, height: 40 },
    ]);
  });

  it('words over two lines are two boxes', () => {
    const boxes = marksOf(
      about(words([0, 20, 50, 20, 0, 0, 50, 0], [0, 40, 90, 40, 0, 20, 90, 20])),
      upright,
      1,
    );
    expect(boxes.map((box) => box.width)).toEqual([50, 90]);
  });

  it('a turned page turns its marks', () => {
    const quad = [100, 720, 200, 720, 100, 700, 200, 700];
    expect(marksOf(about(words(quad)), turned, 1)).toEqual([{ left: 700, top: 100, width: 20, height: 100 }]);
  });

  it('a note is its own rectangle; what is on no page has no box', () => {
    expect(
      marksOf(
        about({ kind: 'point', page: 1, rect: [10, 780, 26, 796], shape: [], drawn: true }),
        upright,
        1,
      ),
    ).toEqual([{ left: 10, top: 4, width: 16, height: 16 }]);
    expect(marksOf(about({ kind: 'whole' }), upright, 1)).toEqual([]);
    expect(marksOf(about(words()), upright, 1)).toEqual([{ left: 100, top: 80, width: 100, height: 20 }]);
  });

  it('pages stand below one another with a gap, at any scale', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 100, max: 1200 }), { minLength: 1, maxLength: 9 }),
        fc.double({ min: 0.5, max: 4, noNaN: true }),
        (heights, scale) => {
          const { tops, height } = pageTops(
            heights.map((h) => ({ ...upright, height: h })),
            scale,
          );
          heights.forEach((h, i) => {
            const next = i + 1 < tops.length ? tops[i + 1] : height;
            expect(next - tops[i]).toBeCloseTo(h * scale + 18, 6);
          });
          expect(tops[0]).toBe(18);
        },
      ),
    );
  });
});

import { describe, expect, it } from 'vitest';
import { squeeze } from '#core/text/squeeze.ts';
import type { Glyph } from './glyphs.ts';
import {
  ellipseArea,
  glyphsIn,
  locateGlyphs,
  markedGlyphs,
  polygonArea,
  quadArea,
  rectArea,
  textOfGlyphs,
  wordsIn,
} from './marked-words.ts';

/** Characters 10 wide and 10 tall, line by line, 20 apart. */
function glyphsOf(...lines: string[]): Glyph[] {
  return lines.flatMap((line, row) =>
    Array.from(line, (text, column): Glyph => ({
      text,
      x: column * 10,
      y: -row * 20,
      dx: 10,
      dy: 0,
      size: 10,
    })),
  );
}
const box = (left: number, bottom: number, right: number, top: number) =>
  rectArea([left, bottom, right, top]);
const text = (glyphs: readonly Glyph[], indices: readonly number[]) => textOfGlyphs(glyphs, indices);

describe('characters in an area', () => {
  const glyphs = glyphsOf('the wet bog', 'holds water');

  it('are those whose middle lies in it, in the order of the page', () => {
    expect(text(glyphs, glyphsIn(glyphs, [box(40, 0, 70, 10)]))).toBe('wet');
    expect(text(glyphs, glyphsIn(glyphs, [box(80, 0, 110, 10), box(0, -20, 50, -10)]))).toBe('bog holds');
  });

  it('take in the one letter that a mark cut short of a word', () => {
    expect(text(glyphs, markedGlyphs(glyphs, [box(40, 0, 62, 10)]))).toBe('wet');
    expect(text(glyphs, markedGlyphs(glyphs, [box(48, 0, 70, 10)]))).toBe('wet');
    expect(text(glyphs, markedGlyphs(glyphs, [box(40, 0, 52, 10)]))).toBe('w');
    expect(text(glyphs, markedGlyphs(glyphs, [box(40, 0, 60, 10)]))).toBe('we');
  });

  it('may be whole words only, those that are mostly inside', () => {
    expect(text(glyphs, wordsIn(glyphs, box(48, 0, 92, 10)))).toBe('wet');
    expect(text(glyphs, wordsIn(glyphs, ellipseArea([-20, -30, 70, -5])))).toBe('holds');
  });

  it('are told by any order of a quad’s corners, and by a polygon', () => {
    for (const quad of [
      [0, 10, 30, 10, 0, 0, 30, 0],
      [0, 10, 30, 10, 30, 0, 0, 0],
    ])
      expect(text(glyphs, glyphsIn(glyphs, [quadArea(quad)]))).toBe('the');
    expect(polygonArea([0, 0, 10, 0, 10, 10, 0, 10])(5, 5)).toBe(true);
    expect(polygonArea([0, 0, 10, 0, 0, 10])(9, 9)).toBe(false);
    expect(ellipseArea([0, 0, 0, 0])(0, 0)).toBe(false);
  });
});

describe('where characters stand in the text', () => {
  const place = (paper: string, glyphs: readonly Glyph[], indices: number[], near = 0) => {
    const span = locateGlyphs(squeeze(paper), glyphs, indices, near);
    return span === null ? null : [span.from, paper.slice(span.from, span.to)];
  };
  const range = (from: number, to: number) => Array.from({ length: to - from }, (_, i) => from + i);

  it('tells equal words apart by what stands around them', () => {
    const glyphs = glyphsOf('the bog and the mire and the bog');
    const paper = 'the bog and the mire and the bog';
    expect(place(paper, glyphs, range(12, 15))).toEqual([12, 'the']);
    expect(place(paper, glyphs, range(29, 32))).toEqual([29, 'bog']);
  });

  it('joins words that a line’s end cut, and leaves hyphens within a line', () => {
    const glyphs = glyphsOf('a hand-dug di-', 'tch here');
    expect(place('a hand-dug ditch here', glyphs, range(2, 17))).toEqual([2, 'hand-dug ditch']);
  });

  it('reads what runs to the left, though it was drawn from its left end', () => {
    const glyphs = glyphsOf(Array.from('الماء').reverse().join(''));
    expect(place('في الماء هنا', glyphs, range(0, 5))).toEqual([3, 'الماء']);
  });

  it('reads several lines that run to the left, with figures and Latin words among them', () => {
    const turned = (text: string) => Array.from(text).reverse().join('');
    const logical = 'עלו ב־12.5 ס״מ לפי SNH (2019) השנה';
    // As pages draw it: each line from its left end, figures and Latin words as they are.
    const first = `${turned('ס״מ')} 12.5${turned(' עלו ב־')}`;
    const second = `${turned('השנה')} (2019) SNH ${turned('לפי')}`;
    const glyphs = glyphsOf(first, second);
    const all = range(0, glyphs.length);
    expect(place(logical, glyphs, all)).toEqual([0, logical]);
    expect(textOfGlyphs(glyphs, all).replaceAll(' ', '')).toBe(logical.replaceAll(' ', ''));
  });

  it('is nowhere where the text does not have them', () => {
    expect(place('nothing of the kind', glyphsOf('sphagnum'), range(0, 8))).toBeNull();
    expect(place('anything', [], [])).toBeNull();
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drawingOn } from './draw-text.ts';

/** A canvas on which every character is as wide as its font is large, and what was written on it. */
function canvasWith(lines: { text: string; x: number; direction: string }[]) {
  return (width: number) => {
    const pen = {
      font: '',
      fillStyle: '' as string | object,
      textBaseline: '',
      textAlign: '',
      direction: '',
      measureText: (text: string) => ({ width: Array.from(text).length * Number.parseFloat(pen.font) }),
      fillText: (text: string, x: number) => lines.push({ text, x, direction: pen.direction }),
      fillRect: () => undefined,
    };
    return { pen, png: () => new Uint8Array([width]) };
  };
}

const look = { size: 10, width: 100, bold: false, italic: false };

describe('a paragraph that is drawn', () => {
  it('holds all of the text, no line wider than there is room', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), (given) => {
        const text = given.replaceAll('\n', ' ');
        const lines: { text: string; x: number; direction: string }[] = [];
        drawingOn(canvasWith(lines))(text, look);
        const bare = (some: string) => some.replace(/\s+/gu, '');
        expect(bare(lines.map((line) => line.text).join(''))).toBe(bare(text));
        // Ten characters of this size go into a line; a single one may be made of several.
        for (const line of lines)
          expect(
            Array.from(line.text).length <= 10 || [...new Intl.Segmenter().segment(line.text)].length === 1,
          ).toBe(true);
      }),
    );
  });

  it('begins at the right where its script does', () => {
    const lines: { text: string; x: number; direction: string }[] = [];
    drawingOn(canvasWith(lines))('لماذا', look);
    drawingOn(canvasWith(lines))('为什么', look);
    expect(lines.map(({ x, direction }) => [x, direction])).toEqual([
      [300, 'rtl'],
      [0, 'ltr'],
    ]);
  });
});

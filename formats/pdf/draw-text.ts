import type { DrawText } from './write-pdf.ts';

/** Words of scripts that no shipped font has, drawn in the fonts of whatever machine this runs on. */

/** What is used of a canvas's pen. */
interface CanvasPen {
  font: string;
  fillStyle: string | object;
  textBaseline: string;
  textAlign: string;
  direction: string;
  measureText(text: string): { readonly width: number };
  fillText(text: string, x: number, y: number): void;
  fillRect(x: number, y: number, width: number, height: number): void;
}

/** A canvas, and what is on it as PNG. */
export interface TextCanvas {
  readonly pen: CanvasPen;
  readonly png: () => Uint8Array<ArrayBuffer>;
}

/** Pixels a point: 216 an inch, which is sharp in print. */
const SCALE = 3;
const LINE_HEIGHT = 1.45;
const RIGHT_TO_LEFT =
  /\p{Script=Arabic}|\p{Script=Hebrew}|\p{Script=Syriac}|\p{Script=Thaana}|\p{Script=Nko}/u;

/** Draws paragraphs on canvases of this kind. */
export function drawingOn(newCanvas: (width: number, height: number) => TextCanvas): DrawText {
  return (text, { size, width, bold, italic }) => {
    const font = `${italic ? 'italic ' : ''}${bold ? 'bold ' : ''}${size * SCALE}px serif`;
    const measuring = newCanvas(1, 1).pen;
    measuring.font = font;
    const lines = text
      .split('\n')
      .flatMap((line) => wrapped(line, width * SCALE, (part) => measuring.measureText(part).width));
    const step = size * SCALE * LINE_HEIGHT;
    const { pen, png } = newCanvas(Math.ceil(width * SCALE), Math.ceil(step * lines.length));
    pen.fillStyle = 'white';
    pen.fillRect(0, 0, width * SCALE, step * lines.length);
    pen.fillStyle = 'black';
    pen.font = font;
    pen.textBaseline = 'middle';
    const isRight = RIGHT_TO_LEFT.test(text);
    pen.direction = isRight ? 'rtl' : 'ltr';
    pen.textAlign = isRight ? 'right' : 'left';
    lines.forEach((line, index) => pen.fillText(line, isRight ? width * SCALE : 0, step * (index + 0.5)));
    return { bytes: png(), height: (step * lines.length) / SCALE };
  };
}

/** A text in lines of this width, parted between words; where a word is wider, or there are none, between characters. */
function wrapped(text: string, width: number, widthOf: (part: string) => number): string[] {
  const lines: string[] = [];
  let line = '';
  for (const { segment } of new Intl.Segmenter(undefined, { granularity: 'word' }).segment(text)) {
    if (widthOf(line + segment) <= width) {
      line += segment;
      continue;
    }
    if (line.trim() !== '') lines.push(line.trimEnd());
    line = '';
    for (const { segment: character } of new Intl.Segmenter().segment(segment.trimStart())) {
      if (line !== '' && widthOf(line + character) > width) {
        lines.push(line);
        line = '';
      }
      line += character;
    }
  }
  return [...lines, line];
}

import {
  PDFHexString,
  PDFName,
  appendBezierCurve,
  closePath,
  fill,
  lineTo,
  moveTo,
  popGraphicsState,
  pushGraphicsState,
  rectangle,
  setFillingRgbColor,
  setLineWidth,
  setStrokingRgbColor,
  stroke,
  concatTransformationMatrix,
  type PDFDocument,
  type PDFOperator,
  type PDFPage,
  type PDFRef,
} from '@cantoo/pdf-lib';
import { fontOutlines, type Outlines, type OutlineStep } from '../pdf/pdfkit.ts';

/**
 * Numbers on the pages. They are drawn as outlines and not as text, so that whoever reads the paper's words from the page
 * finds the same ones as before.
 */

/** In points: half of the size of usual text, so that it fits between two lines. */
const SIZE = 6;
const PAD = 1.2;

/** A number beside its mark, and where it leads. */
export interface NumberedMark {
  readonly number: number;
  /** Left and top of the mark. */
  readonly at: readonly [number, number];
  readonly says: string;
  readonly to: { readonly page: PDFRef; readonly left: number; readonly top: number };
}

/** The outlines of the ten digits in a font. */
export function digitsIn(font: Uint8Array): Promise<Outlines> {
  return fontOutlines(font, '0123456789');
}

/** Draws the numbers of a page and lays a link over each. Those that would lie on one another stand side by side. */
export function putNumbers(
  document: PDFDocument,
  page: PDFPage,
  marks: readonly NumberedMark[],
  digits: Outlines,
): void {
  const taken: { left: number; right: number; top: number }[] = [];
  const operators: PDFOperator[] = [];
  const angle = page.getRotation().angle;
  const height = SIZE + 2 * PAD;
  for (const { number, at, says, to } of marks) {
    const width = widthOf(number, digits) + 2 * PAD;
    // Half over the space before the mark and a little over its edge, so that no word is covered.
    let left = at[0] - width / 2;
    const top = at[1] - PAD;
    for (
      let other = overlapped(taken, left, width, top, height);
      other !== undefined;
      other = overlapped(taken, left, width, top, height)
    )
      left = other.right + 0.5;
    taken.push({ left, right: left + width, top });
    operators.push(...numberAt(number, left, top, width, height, angle, digits));
    const link = document.context.obj({
      Type: 'Annot',
      Subtype: 'Link',
      Rect: turnedBox(left, top, width, height, angle),
      Border: [0, 0, 0],
      F: 4,
      Dest: [to.page, 'XYZ', to.left, to.top, null],
    });
    link.set(PDFName.of('Contents'), PDFHexString.fromText(says));
    page.node.addAnnot(document.context.register(link));
  }
  if (operators.length > 0) page.pushOperators(...operators);
}

function overlapped(
  taken: readonly { left: number; right: number; top: number }[],
  left: number,
  width: number,
  top: number,
  height: number,
) {
  return taken.find((one) => one.left < left + width && left < one.right && Math.abs(one.top - top) < height);
}

function widthOf(number: number, { unitsPerEm, glyphs }: Outlines): number {
  const units = Array.from(String(number)).reduce((sum, digit) => sum + (glyphs.get(digit)?.width ?? 0), 0);
  return (units * SIZE) / unitsPerEm;
}

/** On a turned page the number stands upright as the page is looked at. */
function matrixAt(
  left: number,
  top: number,
  angle: number,
): [number, number, number, number, number, number] {
  const turn = (angle * Math.PI) / 180;
  const [cos, sin] = [Math.round(Math.cos(turn)), Math.round(Math.sin(turn))];
  return [cos, sin, -sin, cos, left, top];
}

function turnedBox(left: number, top: number, width: number, height: number, angle: number): number[] {
  const [a, b, c, d] = matrixAt(0, 0, angle);
  const [x, y] = [left + a * width + c * height, top + b * width + d * height];
  return [Math.min(left, x), Math.min(top, y), Math.max(left, x), Math.max(top, y)];
}

function numberAt(
  number: number,
  left: number,
  top: number,
  width: number,
  height: number,
  angle: number,
  { unitsPerEm, glyphs }: Outlines,
): PDFOperator[] {
  const scale = SIZE / unitsPerEm;
  const operators: PDFOperator[] = [
    pushGraphicsState(),
    concatTransformationMatrix(...matrixAt(left, top, angle)),
    setFillingRgbColor(1, 1, 1),
    setStrokingRgbColor(0.12, 0.16, 0.17),
    setLineWidth(0.5),
    rectangle(0, 0, width, height),
    fill(),
    rectangle(0, 0, width, height),
    stroke(),
    setFillingRgbColor(0.12, 0.16, 0.17),
  ];
  let x = PAD;
  for (const digit of String(number)) {
    const glyph = glyphs.get(digit);
    if (glyph === undefined) continue;
    operators.push(...outlineOf(glyph.steps, x, PAD * 1.4, scale), fill());
    x += glyph.width * scale;
  }
  operators.push(popGraphicsState());
  return operators;
}

function outlineOf(steps: readonly OutlineStep[], x: number, y: number, scale: number): PDFOperator[] {
  let at: [number, number] = [0, 0];
  return steps.map(({ command, args }) => {
    const points = args.map((value, i) => value * scale + (i % 2 === 0 ? x : y));
    const from = at;
    if (points.length >= 2) at = [points[points.length - 2], points[points.length - 1]];
    switch (command) {
      case 'moveTo':
        return moveTo(at[0], at[1]);
      case 'lineTo':
        return lineTo(at[0], at[1]);
      case 'quadraticCurveTo': {
        // The cubic curve that is the same as a quadratic one.
        const [cx, cy] = points;
        const third = (end: number, handle: number) => end + (2 / 3) * (handle - end);
        return appendBezierCurve(
          third(from[0], cx),
          third(from[1], cy),
          third(at[0], cx),
          third(at[1], cy),
          at[0],
          at[1],
        );
      }
      case 'bezierCurveTo':
        return appendBezierCurve(points[0], points[1], points[2], points[3], at[0], at[1]);
      case 'closePath':
        return closePath();
    }
  });
}

import { OPS, type PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { parsed } from '../malformed.ts';
import { IDENTITY, matrixOf, multiply, type Matrix } from './matrix.ts';

/** A part of a page, in PDF points: left, bottom, right, top. */
export type Rect = readonly [number, number, number, number];

/** What is drawn within so many points of one another lies together. */
const TOGETHER = 6;
/** What covers more of a page than this is its ground. */
const GROUND = 0.8;
/** Of a page with more strokes than this the rest is not looked at; no figure needs so many to be seen where it is. */
const MOST_DRAWN = 20_000;

const PICTURES = new Set<number>([
  OPS.paintImageXObject,
  OPS.paintInlineImageXObject,
  OPS.paintImageMaskXObject,
  OPS.paintInlineImageXObjectGroup,
  OPS.paintImageXObjectRepeat,
]);
/** A path that is not painted only cuts off what comes after it. */
const UNPAINTED = new Set<number>([OPS.endPath, OPS.clip, OPS.eoClip]);

/** The pictures and drawings of a page, without its annotations, as they lie together. */
export async function drawnPartsOf(page: PDFPageProxy): Promise<Rect[]> {
  const { fnArray, argsArray } = await parsed(page.getOperatorList({ annotationMode: 0 }));
  const [left, bottom, right, top] = page.view;
  const ground = GROUND * (right - left) * (top - bottom);
  const saved: Matrix[] = [];
  let matrix: Matrix = IDENTITY;
  const drawn: Rect[] = [];
  for (const [at, operator] of fnArray.entries()) {
    if (drawn.length >= MOST_DRAWN) break;
    const args = (argsArray[at] ?? []) as unknown[];
    const put = (corners: Rect) => {
      const rect = clipped(boundsUnder(matrix, corners), [left, bottom, right, top]);
      if (rect !== null && areaOf(rect) < ground) drawn.push(rect);
    };
    if (operator === OPS.save) saved.push(matrix);
    else if (operator === OPS.restore) matrix = saved.pop() ?? matrix;
    else if (operator === OPS.transform) matrix = multiply(matrix, matrixOf(args));
    else if (operator === OPS.paintFormXObjectBegin) {
      saved.push(matrix);
      if (args[0] != null) matrix = multiply(matrix, matrixOf(args[0]));
    } else if (operator === OPS.paintFormXObjectEnd) matrix = saved.pop() ?? matrix;
    else if (PICTURES.has(operator)) put([0, 0, 1, 1]);
    else if (operator === OPS.constructPath && args[2] != null && !UNPAINTED.has(Number(args[0]))) {
      const [x0, y0, x1, y1] = Array.from(args[2] as ArrayLike<number>, Number);
      if ([x0, y0, x1, y1].every(Number.isFinite)) put([x0, y0, x1, y1]);
    }
  }
  return together(drawn);
}

function boundsUnder(m: Matrix, [x0, y0, x1, y1]: Rect): Rect {
  const corners = [
    [x0, y0],
    [x1, y0],
    [x0, y1],
    [x1, y1],
  ].map(([x, y]) => [m[0] * x + m[2] * y + m[4], m[1] * x + m[3] * y + m[5]]);
  const xs = corners.map(([x]) => x);
  const ys = corners.map(([, y]) => y);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}

function clipped(rect: Rect, page: Rect): Rect | null {
  const cut: Rect = [
    Math.max(rect[0], page[0]),
    Math.max(rect[1], page[1]),
    Math.min(rect[2], page[2]),
    Math.min(rect[3], page[3]),
  ];
  return cut[2] < cut[0] || cut[3] < cut[1] ? null : cut;
}

function areaOf([left, bottom, right, top]: Rect): number {
  return (right - left) * (top - bottom);
}

/** Whether two parts lie within some points of one another. */
function isNear(x: Rect, y: Rect, within: number): boolean {
  return x[0] <= y[2] + within && y[0] <= x[2] + within && x[1] <= y[3] + within && y[1] <= x[3] + within;
}

/** Joins what lies together, until nothing does any more. */
function together(drawn: readonly Rect[]): Rect[] {
  const parts: Rect[] = [];
  for (const rect of drawn) {
    let joined = rect;
    for (let at = nearOf(joined); at >= 0; at = nearOf(joined)) {
      const [other] = parts.splice(at, 1);
      joined = [
        Math.min(joined[0], other[0]),
        Math.min(joined[1], other[1]),
        Math.max(joined[2], other[2]),
        Math.max(joined[3], other[3]),
      ];
    }
    parts.push(joined);
  }
  return parts;

  function nearOf(rect: Rect): number {
    return parts.findIndex((other) => isNear(other, rect, TOGETHER));
  }
}

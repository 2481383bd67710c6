import { parsed } from '../malformed.ts';
import { OPS, type PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import * as v from 'valibot';
import { IDENTITY, matrixOf, multiply, type Matrix } from './matrix.ts';

/**
 * A character as a page draws it, in PDF points. The base line runs from (x, y) by (dx, dy); `size` is how tall the font
 * stands on it.
 */
export interface Glyph {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
  readonly size: number;
}

/** The part of the graphics state that says where text goes (ISO 32000-1, 9.3 and 9.4). */
interface TextState {
  matrix: Matrix;
  textMatrix: Matrix;
  x: number;
  y: number;
  lineX: number;
  lineY: number;
  leading: number;
  charSpacing: number;
  wordSpacing: number;
  scale: number;
  rise: number;
  size: number;
  direction: 1 | -1;
  /** Glyph widths times this are text units. */
  unit: number;
  vertical: boolean;
}

const number = v.number();
const FontFacts = v.object({
  fontMatrix: v.optional(v.array(number), [0.001, 0, 0, 0.001, 0, 0]),
  vertical: v.optional(v.boolean(), false),
});

const FIRST: TextState = {
  matrix: IDENTITY,
  textMatrix: IDENTITY,
  x: 0,
  y: 0,
  lineX: 0,
  lineY: 0,
  leading: 0,
  charSpacing: 0,
  wordSpacing: 0,
  scale: 1,
  rise: 0,
  size: 0,
  direction: 1,
  unit: 0.001,
  vertical: false,
};
const AT_ORIGIN = { x: 0, y: 0, lineX: 0, lineY: 0 };

/** A walk over the operators of a page. */
interface Walk {
  state: TextState;
  readonly saved: TextState[];
  readonly glyphs: Glyph[];
  readonly fontNamed: (name: string) => unknown;
}

function save({ state, saved }: Walk): void {
  saved.push({ ...state });
}

function restore(walk: Walk): void {
  walk.state = walk.saved.pop() ?? walk.state;
}

function transform({ state }: Walk, raw: unknown): void {
  state.matrix = multiply(state.matrix, matrixOf(raw));
}

function moveText({ state }: Walk, x: number, y: number): void {
  state.x = state.lineX += x;
  state.y = state.lineY += y;
}

/** What each operator does (ISO 32000-1, 8.4.4, 9.3, 9.4); those that are not here neither move nor show text. */
const operators: Readonly<Partial<Record<number, (walk: Walk, args: readonly unknown[]) => void>>> = {
  [OPS.save]: save,
  [OPS.restore]: restore,
  [OPS.transform]: transform,
  [OPS.paintFormXObjectBegin]: (walk, [matrix]) => {
    save(walk);
    if (matrix !== null && matrix !== undefined) transform(walk, matrix);
  },
  [OPS.paintFormXObjectEnd]: restore,
  [OPS.beginText]: ({ state }) => Object.assign(state, { textMatrix: IDENTITY, ...AT_ORIGIN }),
  [OPS.setTextMatrix]: ({ state }, [matrix]) =>
    Object.assign(state, { textMatrix: matrixOf(matrix), ...AT_ORIGIN }),
  [OPS.moveText]: (walk, [x, y]) => moveText(walk, Number(x), Number(y)),
  [OPS.setLeadingMoveText]: (walk, [x, y]) => {
    walk.state.leading = Number(y);
    moveText(walk, Number(x), Number(y));
  },
  [OPS.setLeading]: ({ state }, [leading]) => (state.leading = -Number(leading)),
  [OPS.nextLine]: (walk) => moveText(walk, 0, walk.state.leading),
  [OPS.setCharSpacing]: ({ state }, [spacing]) => (state.charSpacing = Number(spacing)),
  [OPS.setWordSpacing]: ({ state }, [spacing]) => (state.wordSpacing = Number(spacing)),
  [OPS.setHScale]: ({ state }, [percent]) => (state.scale = Number(percent) / 100),
  [OPS.setTextRise]: ({ state }, [rise]) => (state.rise = Number(rise)),
  [OPS.setFont]: ({ state, fontNamed }, [name, size]) => {
    const font = v.safeParse(FontFacts, fontNamed(String(name)));
    Object.assign(state, {
      size: Math.abs(Number(size)),
      direction: Number(size) < 0 ? -1 : 1,
      unit: font.success ? font.output.fontMatrix[0] : 0.001,
      vertical: font.success && font.output.vertical,
    });
  },
  [OPS.showText]: ({ state, glyphs }, [shown]) => showText(state, shown as unknown[], glyphs),
};

/** Every character that a page draws, in the order in which it does, without those of its annotations. */
export async function glyphsOfPage(page: PDFPageProxy): Promise<Glyph[]> {
  // 0: annotations are left out.
  const { fnArray, argsArray } = await parsed(page.getOperatorList({ annotationMode: 0 }));
  const fontNamed = (name: string): unknown => (page.commonObjs.has(name) ? page.commonObjs.get(name) : {});
  const walk: Walk = { state: { ...FIRST }, saved: [], glyphs: [], fontNamed };
  // An operator without operands may have null for them.
  fnArray.forEach((operator, at) => operators[operator]?.(walk, (argsArray[at] ?? []) as unknown[]));
  return walk.glyphs;
}

function showText(state: TextState, shown: unknown[], into: Glyph[]): void {
  const matrix = multiply(state.matrix, state.textMatrix);
  const tall = Math.hypot(matrix[2], matrix[3]) * state.size;
  // A negative font size writes backwards.
  const scale = state.scale * state.direction;
  let along = 0;
  for (const item of shown) {
    if (typeof item === 'number') {
      along += ((state.vertical ? 1 : -1) * item * state.size) / 1000;
      continue;
    }
    // Checked by hand: there is one of these for every character of the paper.
    const { unicode, width, isSpace } = (item ?? {}) as Readonly<Record<string, unknown>>;
    if (typeof unicode !== 'string' || typeof width !== 'number') continue;
    const spacing = (isSpace === true ? state.wordSpacing : 0) + state.charSpacing;
    const own = width * state.size * state.unit;
    const from = state.vertical ? state.x : state.x + along * scale;
    const height = state.y + state.rise - (state.vertical ? along : 0);
    into.push({
      text: unicode,
      x: matrix[0] * from + matrix[2] * height + matrix[4],
      y: matrix[1] * from + matrix[3] * height + matrix[5],
      dx: matrix[0] * own * scale,
      dy: matrix[1] * own * scale,
      size: tall,
    });
    along += own + spacing * state.direction;
  }
  if (state.vertical) state.y -= along;
  else state.x += along * scale;
}

/** The middle of a character, somewhat above its base line. */
export function middleOf({ x, y, dx, dy, size }: Glyph): { x: number; y: number } {
  const length = Math.hypot(dx, dy);
  const up = length === 0 ? { x: 0, y: 1 } : { x: -dy / length, y: dx / length };
  return { x: x + dx / 2 + up.x * size * 0.3, y: y + dy / 2 + up.y * size * 0.3 };
}

/** The corners of a run of characters of one line, in the order of a quad: top-left, top-right, bottom-left, bottom-right. */
export function quadOf(first: Glyph, last: Glyph): number[] {
  const right = { x: last.x + last.dx, y: last.y + last.dy };
  const length = Math.hypot(right.x - first.x, right.y - first.y) || 1;
  const up = { x: -(right.y - first.y) / length, y: (right.x - first.x) / length };
  const [above, below] = [first.size * 0.8, first.size * 0.22];
  return [
    first.x + up.x * above,
    first.y + up.y * above,
    right.x + up.x * above,
    right.y + up.y * above,
    first.x - up.x * below,
    first.y - up.y * below,
    right.x - up.x * below,
    right.y - up.y * below,
  ];
}

import { CONTEXT_UNITS } from '#core/text/quotation.ts';
import { locateQuote } from '#core/anchors/locate.ts';
import type { Span } from '#core/text/span.ts';
import type { Squeezed } from '#core/text/squeeze.ts';
import type { TextQuote } from '#core/model/remark.ts';
import { boundsOf } from './bounds.ts';
import { middleOf, type Glyph } from './glyphs.ts';

/** So many characters around a mark tell its place among equal words. */
/** Further apart than this share of their size, two characters of a line have a space between them. */
const SPACE_GAP = 0.18;
/** A word belongs to a shape when so much of it lies within. */
const WITHIN_SHAPE = 0.5;

/** An area of a page: whether a point of it, in PDF points, is inside. */
export type Area = (x: number, y: number) => boolean;

interface Middles {
  readonly x: Float64Array;
  readonly y: Float64Array;
}

/** The middles of a page's characters are asked for by every mark on it. */
const middlesByPage = new WeakMap<readonly Glyph[], Middles>();

function middlesOf(glyphs: readonly Glyph[]): Middles {
  const known = middlesByPage.get(glyphs);
  if (known !== undefined) return known;
  const middles = { x: new Float64Array(glyphs.length), y: new Float64Array(glyphs.length) };
  glyphs.forEach((glyph, index) => {
    const { x, y } = middleOf(glyph);
    // What shows nothing is nowhere.
    [middles.x[index], middles.y[index]] = glyph.text.trim() === '' ? [NaN, NaN] : [x, y];
  });
  middlesByPage.set(glyphs, middles);
  return middles;
}

/** The inside of a polygon given by its corners (x y x y ...), by the even-odd rule. */
export function polygonArea(corners: readonly number[]): Area {
  const around = rectArea(boundsOf(corners));
  return (x, y) => {
    if (!around(x, y)) return false;
    let inside = false;
    for (let i = 0, j = corners.length - 2; i + 1 < corners.length; j = i, i += 2) {
      const [xi, yi, xj, yj] = [corners[i], corners[i + 1], corners[j], corners[j + 1]];
      if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) inside = !inside;
    }
    return inside;
  };
}

/** The inside of a quad, in whichever order its corners are given. */
export function quadArea(quad: readonly number[]): Area {
  const corners = [0, 2, 4, 6].map((i) => ({ x: quad[i], y: quad[i + 1] }));
  const center = {
    x: corners.reduce((sum, c) => sum + c.x, 0) / 4,
    y: corners.reduce((sum, c) => sum + c.y, 0) / 4,
  };
  const around = corners.toSorted(
    (p, q) => Math.atan2(p.y - center.y, p.x - center.x) - Math.atan2(q.y - center.y, q.x - center.x),
  );
  return polygonArea(around.flatMap(({ x, y }) => [x, y]));
}

/** The area of a rectangle: left, bottom, right, top, in points of the page. */
export function rectArea([left, bottom, right, top]: readonly number[]): Area {
  return (x, y) => x >= left && x <= right && y >= bottom && y <= top;
}

/** The area of the ellipse in a rectangle; none where that has no width or height. */
export function ellipseArea([left, bottom, right, top]: readonly number[]): Area {
  const [cx, cy, rx, ry] = [(left + right) / 2, (bottom + top) / 2, (right - left) / 2, (top - bottom) / 2];
  return (x, y) => rx > 0 && ry > 0 && ((x - cx) / rx) ** 2 + ((y - cy) / ry) ** 2 <= 1;
}

/** Which characters of a page lie in one of some areas, in the order in which they are drawn. */
export function glyphsIn(glyphs: readonly Glyph[], areas: readonly Area[]): number[] {
  const { x, y } = middlesOf(glyphs);
  const found: number[] = [];
  for (let index = 0; index < x.length; index++)
    if (areas.some((area) => area(x[index], y[index]))) found.push(index);
  return found;
}

/**
 * The same for a mark over words. Many programs cut their marks short by a part of a letter: one letter at a word's end or
 * beginning that lies partly inside belongs to the mark, when it is all that the word lacks.
 */
export function markedGlyphs(glyphs: readonly Glyph[], areas: readonly Area[]): number[] {
  const marked = new Set(glyphsIn(glyphs, areas));
  const isLetter = (index: number) => {
    const glyph = glyphs.at(index);
    return index >= 0 && glyph !== undefined && /[\p{L}\p{N}]/u.test(glyph.text);
  };
  const joined = (index: number) =>
    isLetter(index) && isLetter(index - 1) && !partsWords(glyphs[index - 1], glyphs[index], index);
  const partly = (index: number, at: number) => {
    const { dx, dy } = glyphs[index];
    const { x, y } = middleOf(glyphs[index]);
    return areas.some((area) => area(x + dx * (at - 0.5), y + dy * (at - 0.5)));
  };
  for (const index of [...marked]) {
    const after = index + 1;
    if (!marked.has(after) && joined(after) && !joined(after + 1) && partly(after, 0.1)) marked.add(after);
    const before = index - 1;
    if (!marked.has(before) && joined(index) && !joined(before) && partly(before, 0.9)) marked.add(before);
  }
  return [...marked].sort((x, y) => x - y);
}

/** The characters of the words that a shape encloses: all of each, where most of it lies within. */
export function wordsIn(glyphs: readonly Glyph[], area: Area): number[] {
  const inside = new Set(glyphsIn(glyphs, [area]));
  const found: number[] = [];
  let word: number[] = [];
  const end = () => {
    const within = word.filter((index) => inside.has(index)).length;
    if (word.length > 0 && within > WITHIN_SHAPE * word.length) found.push(...word);
    word = [];
  };
  glyphs.forEach((glyph, index) => {
    if (glyph.text.trim() === '' || partsWords(glyphs.at(index - 1), glyph, index)) end();
    if (glyph.text.trim() !== '') word.push(index);
  });
  end();
  return found;
}

function partsWords(before: Glyph | undefined, glyph: Glyph, index: number): boolean {
  if (before === undefined || index === 0) return true;
  const gap = Math.hypot(glyph.x - before.x - before.dx, glyph.y - before.y - before.dy);
  return gap > SPACE_GAP * glyph.size;
}

const RIGHT_TO_LEFT = /[\u0590-\u08FF\uFB1D-\uFDFF\uFE70-\uFEFC]/;
/** What runs to the right within text that runs to the left: figures and words of other scripts, with what joins them. */
const RUN_TO_THE_RIGHT = /[\p{N}A-Za-z\u00C0-\u058F]+(?:[.,:/%-][\p{N}A-Za-z\u00C0-\u058F]+)*/gu;
const MIRRORED: Readonly<Record<string, string>> = {
  '(': ')',
  ')': '(',
  '[': ']',
  ']': '[',
  '«': '»',
  '»': '«',
};
/** Base lines that lie closer than this share of a letter's size are one line. */
const SAME_LINE = 0.5;

/** Characters line by line, as they stand below one another on the page. */
function inLines(glyphs: readonly Glyph[], indices: readonly number[]): number[][] {
  const lines: number[][] = [];
  for (const index of indices) {
    const glyph = glyphs[index];
    const before = lines.at(-1)?.at(-1);
    const isSame =
      before !== undefined && Math.abs(glyphs[before].y - glyph.y) < SAME_LINE * Math.max(1, glyph.size);
    if (isSame) lines[lines.length - 1].push(index);
    else lines.push([index]);
  }
  return lines;
}

/** A line that runs to the left, drawn from its left end, in the order in which it is read. */
function readFromRight(drawn: string): string {
  const turned = Array.from(drawn)
    .reverse()
    .map((character) => MIRRORED[character] ?? character)
    .join('');
  return turned.replaceAll(RUN_TO_THE_RIGHT, (run) => Array.from(run).reverse().join(''));
}

/** Whether a line of text that runs to the left was drawn from its left end. */
function isDrawnFromLeft(glyphs: readonly Glyph[], line: readonly number[]): boolean {
  const [first, last] = [line[0], line[line.length - 1]];
  const letters = line.filter((index) => /\p{L}/u.test(glyphs[index].text));
  const toLeft = letters.filter((index) => RIGHT_TO_LEFT.test(glyphs[index].text));
  return 2 * toLeft.length > letters.length && glyphs[last].x > glyphs[first].x;
}

/** Characters as text in the order in which they are read, with the spaces that the page shows between them. */
export function textOfGlyphs(glyphs: readonly Glyph[], indices: readonly number[]): string {
  if (!indices.some((index) => RIGHT_TO_LEFT.test(glyphs[index].text))) return drawnText(glyphs, indices);
  return inLines(glyphs, indices)
    .map((line) => {
      const drawn = drawnText(glyphs, line);
      return isDrawnFromLeft(glyphs, line) ? readFromRight(drawn) : drawn;
    })
    .join(' ');
}

function drawnText(glyphs: readonly Glyph[], indices: readonly number[]): string {
  return indices.reduce((text, index, at) => {
    const before = indices.at(at - 1);
    const space =
      at > 0 &&
      before !== undefined &&
      (before !== index - 1 || partsWords(glyphs[before], glyphs[index], index));
    return text + (space ? ' ' : '') + glyphs[index].text;
  }, '');
}

/**
 * Where characters of a page stand in the paper's text; null where the text does not hold them in this order.
 * @param near the offset of the line nearest to them
 */
export function locateGlyphs(
  squeezed: Squeezed,
  glyphs: readonly Glyph[],
  indices: readonly number[],
  near: number,
): Span | null {
  const [first, last] = [indices.at(0), indices.at(-1)];
  if (first === undefined || last === undefined) return null;
  const text = (from: number, to: number) =>
    glyphs
      .slice(Math.max(0, from), to)
      .map((glyph) => glyph.text)
      .join('');
  const exact = indices.map((index) => glyphs[index].text).join('');
  const quote: TextQuote = {
    exact,
    prefix: text(first - CONTEXT_UNITS, first),
    suffix: text(last + 1, last + 1 + CONTEXT_UNITS),
  };
  const found =
    locateQuote(squeezed, quote, near) ??
    locateQuote(squeezed, withoutLineEndHyphens(glyphs, indices, quote), near);
  if (found !== null || !RIGHT_TO_LEFT.test(exact)) return found;
  // Text that runs to the left may be drawn from its left end, line by line.
  return locateQuote(squeezed, { exact: textOfGlyphs(glyphs, indices), prefix: '', suffix: '' }, near);
}

/** A quotation whose words are joined where a line's end cut them, as the paper's text has them. */
function withoutLineEndHyphens(
  glyphs: readonly Glyph[],
  indices: readonly number[],
  quote: TextQuote,
): TextQuote {
  const exact = indices
    .filter((index, at) => {
      const next = indices.at(at + 1);
      if (next === undefined || !/[-\u2010]/.test(glyphs[index].text)) return true;
      const [glyph, after] = [glyphs[index], glyphs[next]];
      const sameLine =
        Math.abs((after.x - glyph.x) * glyph.dy - (after.y - glyph.y) * glyph.dx) <
        0.5 * glyph.size * Math.hypot(glyph.dx, glyph.dy);
      return sameLine;
    })
    .map((index) => glyphs[index].text)
    .join('');
  return { ...quote, exact };
}

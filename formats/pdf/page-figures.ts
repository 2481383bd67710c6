import type { Rect } from './drawn-parts.ts';
import { turned, type Line } from './page-text.ts';

/** What is drawn on a page, seen beside its text. */

/** Smaller drawings are rules, marks and letters. In points. */
const LEAST_FIGURE = { width: 50, height: 30 };
/** Text that fills more of a drawing than this share is a text in a box, or before a picture. */
const FULL_OF_TEXT = 0.3;
/** Room around a figure, so that its edges are not cut. In points. */
const MARGIN = 2;

/** The drawings of a page that are figures: large enough, no table, and no ground for text. */
export function figuresOf(
  parts: readonly Rect[],
  lines: readonly Line[],
  isInTable: (line: number) => boolean,
): Rect[] {
  return parts.filter((part) => {
    const [left, bottom, right, top] = part;
    if (right - left < LEAST_FIGURE.width || top - bottom < LEAST_FIGURE.height) return false;
    const inside = lines.flatMap((line, index) => (isWithin(line, part) ? [{ line, index }] : []));
    if (inside.some(({ index }) => isInTable(index))) return false;
    const covered = inside.reduce((sum, { line }) => sum + (line.right - line.x) * line.size, 0);
    return covered < FULL_OF_TEXT * (right - left) * (top - bottom);
  });
}

/** Whether the middle of a line lies in a part of its page. */
export function isWithin(line: Line, [left, bottom, right, top]: Rect): boolean {
  // From the line's own axes back to the page's.
  const { x, y } = turned((line.x + line.right) / 2, line.y + line.size * 0.3, -line.angle);
  return x >= left && x <= right && y >= bottom && y <= top;
}

/** The line that stands right above a figure, or the last before those that stand in it. */
export function lastAbove(lines: readonly Line[], rect: Rect): Line | null {
  const within = lines.findIndex((line) => isWithin(line, rect));
  if (within > 0) return lines[within - 1];
  if (within === 0) return lines[0];
  const [, , , top] = rect;
  let above: Line | null = null;
  for (const line of lines) if (line.angle === 0 && line.y >= top - line.size) above = line;
  return above;
}

/** The words that stand in a figure. */
export function wordsIn(lines: readonly Line[], rect: Rect): string {
  return lines
    .filter((line) => isWithin(line, rect))
    .map(({ text }) => text.trim())
    .join(' ');
}

/** A figure with some room around it, as far as the page reaches. */
export function widened([left, bottom, right, top]: Rect, [x0, y0, x1, y1]: readonly number[]): Rect {
  return [
    Math.max(x0, left - MARGIN),
    Math.max(y0, bottom - MARGIN),
    Math.min(x1, right + MARGIN),
    Math.min(y1, top + MARGIN),
  ];
}

/** Of a small mark that is drawn before a line: how large it is, and how far away, in points. */
const BULLET = { least: 1.5, most: 8, nearest: 2, farthest: 30 };

const MARK = '• ';

/** Lines with the marks of items that some programs draw instead of writing them. */
export function withBullets(lines: readonly Line[], parts: readonly Rect[]): Line[] {
  const bullets = parts.filter(([left, bottom, right, top]) => {
    const [width, height] = [right - left, top - bottom];
    return Math.min(width, height) >= BULLET.least && Math.max(width, height) <= BULLET.most;
  });
  return lines.map((line) => {
    const isBefore = bullets.some(([, bottom, right, top]) => {
      const middle = (bottom + top) / 2;
      const away = line.x - right;
      const isLevel = middle >= line.y && middle <= line.y + line.size;
      return line.angle === 0 && isLevel && away >= BULLET.nearest && away <= BULLET.farthest;
    });
    if (!isBefore) return line;
    const moved = <One extends { readonly at: number }>(all: readonly One[] = []): One[] =>
      all.map((one) => ({ ...one, at: one.at + MARK.length }));
    const { raised, breaks } = line;
    return { ...line, text: MARK + line.text, raised: moved(raised), breaks: moved(breaks) };
  });
}

import { parsed } from '../malformed.ts';
import type { PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';

/**
 * A line of text on a page, in PDF points turned so that the line runs to the right: by `angle` degrees against the
 * page's own axes. `y` is the base line and grows upwards.
 */
export interface Line {
  readonly page: number;
  readonly angle: number;
  readonly text: string;
  readonly x: number;
  readonly right: number;
  readonly y: number;
  readonly size: number;
  /** What the file calls the font of all of it; null for several. */
  readonly font: string | null;
  /** Small pieces above the base line, by where they stand in the text: what calls a footnote is one. */
  readonly raised?: readonly Raised[];
  /** Wide room within it, though not as wide as between columns. */
  readonly breaks?: readonly Break[];
}

/** Room within a line that may part two cells of a table. */
interface Break {
  /** Where in the text what follows it begins. */
  readonly at: number;
  readonly left: number;
  readonly right: number;
}

/** A piece of a line that is smaller than the rest and stands higher. */
interface Raised {
  readonly at: number;
  readonly text: string;
}

/** Text pieces whose baselines differ by less than this share of their size stand on one line. */
const SAME_LINE = 0.45;
/** A gap wider than this share of the size between two pieces is a space that the file left out. */
const SPACE_GAP = 0.18;
/** A wider gap, counted in sizes, parts two columns or the cells of a table. */
const COLUMN_GAP = 2.2;
/** Between words there is less room than this many sizes. */
const BREAK_GAP = 0.6;
/** The mark of an item may stand further from its text. */
const MARK_GAP = 5;
const MARK_ALONE = /^\s*(?:[•‣◦–▪●○■\uF0B7\u0080-\u009F]|\(?\d{1,2}[.)])\s*$/;
/** A piece is raised from this share of the size on, where it is at most so large. */
const RAISED = { by: 0.2, size: 0.8 };
/** Lines of nothing but a number within this share of the page's height from its edges are page numbers. */
const EDGE = 0.09;
const PAGE_NUMBER = /^[-–\s]*\d{1,4}[-–\s]*$/;
/** So many lines have to stand beside another, parted in the same place, before they are taken for columns. */
const LINES_BESIDE = 3;

/** A point of the page on the axes of lines that run at an angle. */
export function turned(x: number, y: number, angle: number): { x: number; y: number } {
  const radians = (angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
  return { x: x * cos + y * sin, y: y * cos - x * sin };
}

/** The lines of a page in reading order; page numbers are left out. */
export async function linesOfPage(page: PDFPageProxy): Promise<Line[]> {
  const { items } = await parsed(page.getTextContent());
  const lines: Line[] = [];
  /** How much of the end of the last line is empty. */
  let empty = 0;
  for (const item of items) {
    if (!('str' in item) || item.str === '') continue;
    const [a, b, c, d, e, f] = item.transform as number[];
    const size = Math.hypot(c, d);
    if (size === 0) continue;
    // pdf.js tells the room between two columns as a wide space.
    if (item.str.trim() === '' && item.width > COLUMN_GAP * size) continue;
    const angle = Math.round((Math.atan2(b, a) * 180) / Math.PI);
    const { x, y } = turned(e, f, angle);
    const line = lines.at(-1);
    const gap = line === undefined ? 0 : x - line.right;
    if (
      line === undefined ||
      line.angle !== angle ||
      Math.abs(line.y - y) > SAME_LINE * Math.max(size, line.size) ||
      gap < -2 * size ||
      gap > (MARK_ALONE.test(line.text) ? MARK_GAP : COLUMN_GAP) * size
    ) {
      const { fontName: font, str: text } = item;
      lines.push({ page: page.pageNumber, angle, text, x, right: x + item.width, y, size, font });
      empty = 0;
      continue;
    }
    const space = gap > SPACE_GAP * size && !line.text.endsWith(' ') && !item.str.startsWith(' ');
    const before = line.text + (space ? ' ' : '');
    const isRaised = y - line.y >= RAISED.by * line.size && size <= RAISED.size * line.size;
    // A line may begin with what is raised, as a footnote does.
    const wasRaised = line.y - y >= RAISED.by * size && line.size <= RAISED.size * size;
    const raised = [
      ...(wasRaised ? [{ at: 0, text: line.text }] : (line.raised ?? [])),
      ...(isRaised && item.str.trim() !== '' ? [{ at: before.length, text: item.str }] : []),
    ];
    const isSpace = item.str.trim() === '';
    const room = gap + empty;
    const breaks = [
      ...(line.breaks ?? []),
      ...(!isSpace && room > BREAK_GAP * size ? [{ at: before.length, left: x - room, right: x }] : []),
    ];
    empty = isSpace ? empty + gap + item.width : 0;
    lines[lines.length - 1] = {
      ...line,
      text: before + item.str,
      right: Math.max(line.right, x + item.width),
      size: Math.max(line.size, size),
      y: wasRaised ? y : line.y,
      font: line.font === item.fontName || isSpace || isRaised ? line.font : null,
      ...(raised.length > 0 && { raised }),
      ...(breaks.length > 0 && { breaks }),
    };
  }
  const [left, bottom, right, top] = page.view;
  const atEdge = (line: Line) => {
    const heights = [turned(left, bottom, line.angle).y, turned(right, top, line.angle).y];
    const edge = Math.abs(heights[0] - heights[1]) * EDGE;
    return line.y < Math.min(...heights) + edge || line.y > Math.max(...heights) - edge;
  };
  const isAlone = (line: Line) =>
    lines.every((other) => other === line || Math.abs(other.y - line.y) >= SAME_LINE * line.size);
  return inColumns(
    lines.filter(
      (line) => line.text.trim() !== '' && !(PAGE_NUMBER.test(line.text) && atEdge(line) && isAlone(line)),
    ),
  );
}

/**
 * Lines of a page that was drawn straight across its columns, put in the order in which columns are read. Pages that
 * were drawn column by column, and those of one column, stay as they are.
 */
function inColumns(lines: Line[]): Line[] {
  const gutters = lines.flatMap((line, index) => {
    const next = lines.at(index + 1);
    const beside =
      next !== undefined &&
      next.angle === line.angle &&
      Math.abs(next.y - line.y) < SAME_LINE * line.size &&
      next.x - line.right > COLUMN_GAP * line.size;
    return beside ? [{ from: line.right, to: next.x }] : [];
  });
  if (gutters.length < LINES_BESIDE) return lines;
  const from = Math.max(...gutters.map((gutter) => gutter.from));
  const to = Math.min(...gutters.map((gutter) => gutter.to));
  // Rows of a table are parted in other places from one to the next.
  if (from >= to) return lines;
  const middle = (from + to) / 2;
  const ordered: Line[] = [];
  let left: Line[] = [];
  let right: Line[] = [];
  const endBand = () => {
    ordered.push(...left, ...right);
    left = [];
    right = [];
  };
  for (const line of lines) {
    if (line.right <= middle) left.push(line);
    else if (line.x >= middle) right.push(line);
    else {
      endBand();
      ordered.push(line);
    }
  }
  endBand();
  return ordered;
}

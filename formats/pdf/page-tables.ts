import type { Rect } from './drawn-parts.ts';
import type { Line } from './page-text.ts';

/** Lines of a page that are the cells of a table. */
export interface PageTable {
  /** The numbers of its first line and of the line behind its last, in the page's order. */
  readonly from: number;
  readonly to: number;
  /** Row by row, a text for each column; '' for an empty cell. */
  readonly rows: readonly (readonly string[])[];
}

/** Lines whose base lines differ by less than this share of their size stand in one row. */
const SAME_ROW = 0.45;
/** Rows further apart than this many sizes are no rows of one table. */
const ROW_GAP = 3;
/** Two rows of two pieces may be an address beside a date; three are a table, and so are two with rules around them. */
const LEAST_ROWS = 3;
const LEAST_RULED = 2;
const LIST_MARK = /^(?:\p{P}|\p{S}|\uF0B7|\(?\w{1,2}[.)])$/u;

interface Row {
  readonly from: number;
  readonly to: number;
  readonly pieces: readonly Line[];
}

/** The tables of a page, from how its lines stand beside and below one another. No rules have to be drawn. */
export function tablesOfPage(lines: readonly Line[], drawn: readonly Rect[]): PageTable[] {
  const rows = withHeads(rowsOf(lines));
  const tables: PageTable[] = [];
  for (let first = 0; first < rows.length;) {
    const last = lastOfRun(rows, first);
    const own = rows.slice(first, last + 1);
    const least = isRuled(own, drawn) ? LEAST_RULED : LEAST_ROWS;
    const table = own.length >= least ? tableOf(own, least) : null;
    if (table !== null) tables.push(table);
    first = table === null ? first + 1 : last + 1;
  }
  return tables;
}

function rowsOf(lines: readonly Line[]): Row[] {
  const rows: Row[] = [];
  for (const [index, line] of lines.entries()) {
    const row = rows.at(-1);
    const before = row?.pieces.at(-1);
    const isBeside =
      before?.angle === line.angle &&
      Math.abs(before.y - line.y) < SAME_ROW * line.size &&
      line.x >= before.right;
    if (row !== undefined && isBeside)
      rows[rows.length - 1] = { ...row, to: index + 1, pieces: [...row.pieces, line] };
    else rows.push({ from: index, to: index + 1, pieces: [line] });
  }
  return rows;
}

/** Rows whose cells stand so close that they were read as one line: parted where there is room, beside rows that are parted. */
function withHeads(rows: readonly Row[]): Row[] {
  return rows.map((row, index) => {
    const [only] = row.pieces;
    const isBeside = [rows.at(index + 1), index > 0 ? rows[index - 1] : undefined].some(
      (other) => other !== undefined && other.pieces.length > 1 && other.pieces[0].angle === only.angle,
    );
    return row.pieces.length > 1 || !isBeside ? row : { ...row, pieces: partedAtRoom(only) };
  });
}

function partedAtRoom(line: Line): Line[] {
  const { breaks = [] } = line;
  return [...breaks, null].map((end, index) => {
    const begin = index === 0 ? null : breaks[index - 1];
    return {
      ...line,
      text: line.text.slice(begin?.at ?? 0, end?.at),
      x: begin?.right ?? line.x,
      right: end?.left ?? line.right,
    };
  });
}

/** The last of the rows that go on with the table which may begin here. */
function lastOfRun(rows: readonly Row[], first: number): number {
  if (rows[first].pieces.length < 2) return first;
  let last = first;
  for (let next = first + 1; next < rows.length; next++) {
    const [above, below] = [rows[next - 1].pieces[0], rows[next].pieces[0]];
    const distance = above.y - below.y;
    if (distance < 0 || distance > ROW_GAP * below.size || above.angle !== below.angle) break;
    if (rows[next].pieces.length > 1) last = next;
    // A cell that goes on in a line of its own; more of them, and it is text.
    else if (next - last > 2) break;
  }
  return last;
}

/** Whether the rows lie within one drawing of strokes. */
function isRuled(rows: readonly Row[], drawn: readonly Rect[]): boolean {
  const ends = [rows[0].pieces[0], rows[rows.length - 1].pieces[0]];
  return drawn.some(([left, bottom, right, top]) =>
    ends.every(({ angle, x, y }) => angle === 0 && x >= left && x <= right && y >= bottom && y <= top),
  );
}

function tableOf(rows: readonly Row[], least: number): PageTable | null {
  const columns = columnsOf(rows);
  if (columns.length < 2) return null;
  const filled: string[][] = [];
  for (const { pieces } of rows) {
    const cells = columns.map(() => '');
    for (const piece of pieces) {
      const at = columns.findIndex(({ left, right }) => piece.x < right && piece.right > left);
      if (at < 0 || cells[at] !== '') return null;
      cells[at] = piece.text.trim();
    }
    const above = filled.at(-1);
    if (pieces.length > 1 || above === undefined) filled.push(cells);
    else for (const [at, text] of cells.entries()) if (text !== '') above[at] = `${above[at]} ${text}`.trim();
  }
  if (filled.length < least) return null;
  // Marks with the text of items beside them.
  if (filled.every(([first]) => LIST_MARK.test(first))) return null;
  return { from: rows[0].from, to: rows[rows.length - 1].to, rows: filled };
}

/** Where columns stand: what no piece of any row reaches across parts two of them. */
function columnsOf(rows: readonly Row[]): { left: number; right: number }[] {
  const pieces = rows.flatMap((row) => (row.pieces.length > 1 ? row.pieces : []));
  const columns: { left: number; right: number }[] = [];
  for (const { x, right } of pieces.toSorted((p, q) => p.x - q.x)) {
    const last = columns.at(-1);
    if (last !== undefined && x < last.right) last.right = Math.max(last.right, right);
    else columns.push({ left: x, right });
  }
  return columns;
}

import Papa from 'papaparse';
import type { Grid } from './grid.ts';
import { withoutEmptyRows } from './grid.ts';

/** Separators that tables are written with; which one it is is told by the rows. */
const SEPARATORS = ['\t', ';', ',', '|'];

/**
 * Reads separated values (RFC 4180, and with tabs, semicolons or bars): cells in quotation marks may hold line ends. null
 * where there is no cell.
 */
export function readCsv(text: string): Grid | null {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    delimiter: separatorOf(text),
    skipEmptyLines: 'greedy',
  });
  const width = data.reduce((most, row) => Math.max(most, row.length), 0);
  if (width === 0) return null;
  const rows = data.map((row) => Array.from({ length: width }, (_, i) => plainCell(row.at(i) ?? '')));
  return withoutEmptyRows({ rows, merged: [] });
}

/** The separator that gives most rows the same number of cells, more than one. */
function separatorOf(text: string): string {
  const head = text.slice(0, 20_000);
  const rated = SEPARATORS.map((separator) => {
    const { data } = Papa.parse<string[]>(head, { delimiter: separator, preview: 30, skipEmptyLines: true });
    const widths = data.map((row) => row.length);
    const alike = (width: number) => widths.filter((one) => one === width).length;
    const usual = widths.reduce((best, width) => (alike(width) > alike(best) ? width : best), 0);
    const share = alike(usual) / Math.max(1, widths.length);
    return { separator, rate: usual > 1 ? share + Math.min(usual, 50) / 1000 : 0 };
  });
  return rated.reduce((best, one) => (one.rate > best.rate ? one : best)).separator;
}

/** A cell without the apostrophe that kept a spreadsheet from reckoning it. */
function plainCell(cell: string): string {
  return cell.trim().replace(/^'(?=[=+\-@])/, '');
}

/** Cells that a spreadsheet would take for a formula. */
const FORMULA = /^[=+\-@\t\r]/;

/** Writes rows as CSV; what a spreadsheet would reckon is neutralised with an apostrophe, but plain numbers stay. */
export function writeCsv(rows: readonly (readonly string[])[]): string {
  const safe = rows.map((row) =>
    row.map((cell) => (FORMULA.test(cell) && !/^-?\d+(\.\d+)?$/.test(cell) ? `'${cell}` : cell)),
  );
  return `${Papa.unparse(safe, { newline: '\r\n' })}\r\n`;
}

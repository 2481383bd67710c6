import type { PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** A line of text on a page, in PDF points; `y` is the baseline. */
export interface Line {
  readonly page: number;
  readonly text: string;
  readonly x: number;
  readonly right: number;
  readonly y: number;
  readonly size: number;
}

/** Text pieces whose baselines differ by less than this share of their size stand on one line. */
const SAME_LINE = 0.45;
/** A gap wider than this share of the size between two pieces is a space that the file left out. */
const SPACE_GAP = 0.18;
/** Lines of nothing but a number within this share of the page's height from its edges are page numbers. */
const EDGE = 0.09;
const PAGE_NUMBER = /^[-–\s]*\d{1,4}[-–\s]*$/;

/** The lines of a page, in the order in which the file draws them; page numbers are left out. */
export async function linesOfPage(page: PDFPageProxy): Promise<Line[]> {
  const { items } = await page.getTextContent();
  const lines: Line[] = [];
  for (const item of items) {
    if (!('str' in item) || item.str === '') continue;
    const [, , c, d, x, y] = item.transform as number[];
    const size = Math.hypot(c, d);
    if (size === 0) continue;
    const line = lines.at(-1);
    if (line === undefined || Math.abs(line.y - y) > SAME_LINE * size || x < line.right - 2 * size) {
      lines.push({ page: page.pageNumber, text: item.str, x, right: x + item.width, y, size });
      continue;
    }
    const gap = x - line.right > SPACE_GAP * size && !line.text.endsWith(' ') && !item.str.startsWith(' ');
    lines[lines.length - 1] = {
      ...line,
      text: line.text + (gap ? ' ' : '') + item.str,
      right: Math.max(line.right, x + item.width),
      size: Math.max(line.size, size),
    };
  }
  const [, bottom, , top] = page.view;
  const edge = (top - bottom) * EDGE;
  return lines.filter(
    (line) =>
      line.text.trim() !== '' &&
      !(PAGE_NUMBER.test(line.text) && (line.y < bottom + edge || line.y > top - edge)),
  );
}

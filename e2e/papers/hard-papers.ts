import {
  degrees,
  PDFArray,
  PDFDocument,
  PDFName,
  PDFString,
  StandardFonts,
  type PDFPage,
} from '@cantoo/pdf-lib';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Papers that are hard to show, made for the tests: columns, turned pages, many remarks on one page, ink. */

const WORDS = readFileSync(join(process.cwd(), 'demo', 'papers', 'skarn-moss-report.md'), 'utf8')
  .replace(/^#+ /gm, '')
  .replace(/[^\x20-\x7e]+/g, ' ')
  .split(/\s+/);
const PAGE = { width: 595, height: 842 };
const TOP = 780;
const LEADING = 17;
const SIZE = 9;

/** A remark as it was put on the page: left, bottom, right, top in points of the page as it is not turned. */
export interface Placed {
  readonly text: string;
  readonly box: readonly [number, number, number, number];
}

export interface ColumnsPaper {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly placed: readonly Placed[];
}

function annotate(
  document: PDFDocument,
  page: PDFPage,
  annotations: readonly Record<string, unknown>[],
): void {
  const list = PDFArray.withContext(document.context);
  for (const one of annotations)
    list.push(document.context.register(document.context.obj({ Type: 'Annot', ...one } as never)));
  page.node.set(PDFName.of('Annots'), list);
}

const byKeld = (name: string, text: string) => ({
  T: PDFString.of('Dr Aune Keld'),
  NM: PDFString.of(name),
  Contents: PDFString.of(text),
  CreationDate: PDFString.of('D:20260302091500Z'),
});

/**
 * A page of columns with highlights over the lines, as many as asked for, from the first line on down the columns. The
 * first `doubled` of them stand there twice, as some programs write them.
 */
export async function columnsPaper({
  columns,
  turn = 0,
  remarks,
  doubled = 0,
  said = (n: number) => `Line ${n}: say which wells these are, and for which weeks they were read.`,
}: {
  columns: number;
  turn?: 0 | 90 | 180 | 270;
  remarks: number;
  doubled?: number;
  said?: (n: number) => string;
}): Promise<ColumnsPaper> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.TimesRoman);
  const page = document.addPage([PAGE.width, PAGE.height]);
  if (turn !== 0) page.setRotation(degrees(turn));
  const columnWidth = (PAGE.width - 100) / columns;
  const perColumn = Math.max(38, Math.ceil(remarks / columns));
  const leading = Math.min(LEADING, (TOP - 60) / perColumn);
  const placed: Placed[] = [];
  let next = 0;
  for (let column = 0; column < columns; column++)
    for (let row = 0; row < perColumn; row++) {
      let line = '';
      for (;;) {
        const longer = `${line}${line === '' ? '' : ' '}${WORDS[next % WORDS.length]}`;
        if (font.widthOfTextAtSize(longer, SIZE) > columnWidth - 18) break;
        line = longer;
        next++;
      }
      const [x, y] = [50 + column * columnWidth, TOP - row * leading];
      page.drawText(line, { x, y, size: SIZE, font });
      if (placed.length < remarks)
        placed.push({
          text: said(placed.length + 1),
          box: [x, y - 2, x + font.widthOfTextAtSize(line, SIZE), y + 8],
        });
    }
  const highlight = ({ text, box: [left, bottom, right, top] }: Placed, name: string) => ({
    Subtype: 'Highlight',
    Rect: [left, bottom, right, top],
    QuadPoints: [left, top, right, top, left, bottom, right, bottom],
    C: [0.96, 0.85, 0.25],
    ...byKeld(name, text),
  });
  annotate(document, page, [
    ...placed.map((one, i) => highlight(one, `line-${i}`)),
    ...placed.slice(0, doubled).map((one, i) => highlight(one, `again-${i}`)),
  ]);
  return { bytes: new Uint8Array(await document.save()), placed };
}

/** A box of the page as it is not turned, on the page as it is shown: left, top, right, bottom in points. */
export function shownBox(
  [left, bottom, right, top]: Placed['box'],
  turn: 0 | 90 | 180 | 270,
): [number, number, number, number] {
  const { width, height } = PAGE;
  switch (turn) {
    case 0:
      return [left, height - top, right, height - bottom];
    case 90:
      return [bottom, left, top, right];
    case 180:
      return [width - right, bottom, width - left, top];
    case 270:
      return [height - top, width - right, height - bottom, width - left];
  }
}

/** How wide a page is shown, in points. */
export function shownWidth(turn: 0 | 90 | 180 | 270): number {
  return turn === 90 || turn === 270 ? PAGE.height : PAGE.width;
}

/** A page with strokes by hand, a text box, a shape around half of the page, and a note about nothing. */
export async function inkPaper(): Promise<Uint8Array<ArrayBuffer>> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.TimesRoman);
  const page = document.addPage([PAGE.width, PAGE.height]);
  for (let row = 0; row < 40; row++)
    page.drawText(WORDS.slice(row * 13, row * 13 + 13).join(' '), {
      x: 60,
      y: TOP - row * LEADING,
      size: SIZE,
      font,
    });
  const stroke = Array.from({ length: 24 }, (_, i) => [420 + i * 4, 700 + Math.sin(i / 2) * 14]).flat();
  annotate(document, page, [
    {
      Subtype: 'Ink',
      Rect: [416, 680, 520, 720],
      InkList: [stroke],
      C: [0.7, 0.1, 0.1],
      BS: { W: 2 },
      ...byKeld('ink', 'This wave is your water table. Where are the dams in it?'),
    },
    {
      Subtype: 'FreeText',
      Rect: [400, 560, 560, 600],
      DA: PDFString.of('/Helv 7 Tf 0.7 0.1 0.1 rg'),
      ...byKeld('box', 'Written beside: the second transect begins here, not on page two.'),
    },
    {
      Subtype: 'Square',
      Rect: [50, 120, 545, 440],
      C: [0.1, 0.3, 0.6],
      ...byKeld('half', 'All of this half is method. Shorten it to a table.'),
    },
    {
      Subtype: 'Text',
      Rect: [20, 640, 40, 660],
      C: [1, 0.9, 0.2],
      ...byKeld('note', 'Well begun.'),
    },
  ]);
  return new Uint8Array(await document.save());
}

/** A page with a remark about a table, a figure, three places, one without words, and one that is very long. */
export async function oddPaper(): Promise<Uint8Array<ArrayBuffer>> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.TimesRoman);
  const page = document.addPage([PAGE.width, PAGE.height]);
  const line = (row: number) => ({ x: 60, y: TOP - row * LEADING });
  for (let row = 0; row < 12; row++)
    page.drawText(WORDS.slice(row * 13, row * 13 + 13).join(' '), { ...line(row), size: SIZE, font });
  for (let row = 0; row < 5; row++)
    for (let column = 0; column < 4; column++) {
      const [x, y] = [60 + column * 110, TOP - (14 + row) * LEADING];
      page.drawRectangle({ x, y: y - 5, width: 110, height: LEADING, borderWidth: 0.5, opacity: 0 });
      page.drawText(row === 0 ? ['Well', 'May', 'July', 'October'][column] : `${row}${column}7`, {
        x: x + 6,
        y,
        size: SIZE,
        font,
      });
    }
  for (let i = 0; i < 40; i++) page.drawCircle({ x: 70 + i * 11, y: 330 + Math.sin(i / 3) * 50, size: 2 });
  const quad = (row: number, from: number, to: number) => {
    const { y } = line(row);
    return [from, y + 8, to, y + 8, from, y - 2, to, y - 2];
  };
  const highlight = (rows: readonly (readonly [number, number, number])[]) => {
    const quads = rows.map(([row, from, to]) => quad(row, from, to));
    const ys = quads.flatMap((one) => [one[1], one[5]]);
    const xs = quads.flatMap((one) => [one[0], one[2]]);
    return {
      Subtype: 'Highlight',
      Rect: [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)],
      QuadPoints: quads.flat(),
      C: [0.75, 0.87, 0.55],
    };
  };
  annotate(document, page, [
    { ...highlight([[0, 60, 200]]), ...byKeld('bare', '') },
    {
      ...highlight([
        [2, 60, 160],
        [5, 200, 330],
        [9, 90, 210],
      ]),
      ...byKeld('three', 'Three words for one thing. Choose one of them and keep to it.'),
    },
    {
      ...highlight([[7, 120, 420]]),
      ...byKeld('long', WORDS.slice(300, 620).join(' ')),
    },
    {
      Subtype: 'Square',
      Rect: [54, 468, 506, 562],
      C: [0.1, 0.3, 0.6],
      ...byKeld('table', 'Units are missing in the table, and the wells have no names.'),
    },
    {
      Subtype: 'Circle',
      Rect: [54, 268, 516, 392],
      C: [0.7, 0.1, 0.1],
      ...byKeld('figure', 'A figure without axes. What goes up here, and when?'),
    },
  ]);
  return new Uint8Array(await document.save());
}

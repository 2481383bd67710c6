import type { Layout, LayoutPicture } from '#core/paper/layout.ts';
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { parsed, refusedLaterAs } from '../malformed.ts';
import { LayoutWriter } from '../text/layout-writer.ts';
import { blocksOfLines, mostUsedSize } from './blocks.ts';
import { drawnPartsOf, type Rect } from './drawn-parts.ts';
import { figuresOf, isWithin, lastAbove, widened, withBullets, wordsIn } from './page-figures.ts';
import { openPdf, type PdfAssets } from './open-pdf.ts';
import { notesOfPage, withoutRunningHeads, type PageNote } from './page-notes.ts';
import { tablesOfPage, type PageTable } from './page-tables.ts';
import { linesOfPage, type Line } from './page-text.ts';

/** Draws a part of a page as a PNG; null where nothing can be drawn. */
export type DrawPart = (page: PDFPageProxy, part: Rect) => Promise<Uint8Array<ArrayBuffer> | null>;

/** A PDF with the structure that its pages show, and how many pictures could not be drawn. */
export interface PdfLayout {
  readonly layout: Layout;
  readonly undrawn: number;
}

/** Stand for calls of footnotes while lines are put together: characters that no text has (Unicode, private use). */
const FIRST_CALL = 0xe000;
const MOST_CALLS = 1000;
const CALL = /[\uE000-\uE3E7]/;
const NUMBERED = /^\(?\d{1,3}[.)]\s+/;
const PLAIN = { bold: false, italic: false };

/** Something that stands between the lines of a page. */
interface Between {
  /** The last line before it; null at the beginning. */
  readonly after: Line | null;
  readonly what: PageTable['rows'] | LayoutPicture;
}

/**
 * Reads a PDF for going on with its text: headings, paragraphs and items as everywhere; tables whose columns are clear as
 * tables, whatever else is drawn as pictures, footnotes where they are called, running heads left out.
 * @throws UnreadableFile
 */
export async function readPdfAsDraft(
  bytes: Uint8Array,
  assets: PdfAssets | null,
  draw: DrawPart | null,
): Promise<PdfLayout> {
  return refusedLaterAs('damaged PDF', async () => {
    const document = await openPdf(bytes, assets, { forReading: true });
    try {
      return await readPages(document, draw);
    } finally {
      await document.loadingTask.destroy();
    }
  });
}

async function readPages(document: PDFDocumentProxy, draw: DrawPart | null): Promise<PdfLayout> {
  const pages: { page: PDFPageProxy; lines: Line[]; parts: Rect[] }[] = [];
  for (let number = 1; number <= document.numPages; number++) {
    const page = await parsed(document.getPage(number));
    pages.push({ page, lines: await linesOfPage(page), parts: await drawnPartsOf(page) });
  }
  const bodySize = mostUsedSize(pages.flatMap(({ lines }) => lines));
  const withoutHeads = withoutRunningHeads(pages.map(({ lines }) => lines));
  const called = new Set<string>();
  const parted = pages.map(({ parts }, index) => {
    const own = notesOfPage(withBullets(withoutHeads[index], parts), bodySize, called);
    for (const { raised = [] } of own.text) for (const one of raised) called.add(one.text.trim());
    return own;
  });
  const notes = parted.flatMap((one) => one.notes);
  const text: Line[] = [];
  const between: Between[] = [];
  const strong = new Map<string, boolean>();
  let undrawn = 0;
  for (const [index, { page, parts }] of pages.entries()) {
    const own = withCalls(parted[index].text, (mark) => {
      // Called on its own page, or on one before the notes of all.
      const found = parted[index].notes.find((one) => one.mark === mark);
      return found === undefined
        ? notes.findIndex((one, at) => one.mark === mark && at >= countBefore(parted, index))
        : notes.indexOf(found);
    });
    const tables = tablesOfPage(own, parts);
    const isInTable = (line: number) => tables.some(({ from, to }) => line >= from && line < to);
    const figures = figuresOf(parts, own, isInTable);
    const drawn = new Map<Rect, LayoutPicture>();
    for (const figure of figures) {
      const picture = draw === null ? null : await draw(page, widened(figure, page.view));
      if (picture === null) undrawn++;
      else drawn.set(figure, { bytes: picture, mediaType: 'image/png', description: wordsIn(own, figure) });
    }
    // Figures without a line in them stand below the last line above them.
    const waiting = new Map(
      [...drawn].map(([figure, picture]) => [figure, { picture, after: lastAbove(own, figure) }]),
    );
    for (const [at, line] of own.entries()) {
      const table = tables.find(({ from }) => from === at);
      if (table !== undefined) putTable(between, text.at(-1) ?? null, table.rows);
      const figure = figures.find((one) => isWithin(line, one));
      if (figure === undefined && !isInTable(at)) text.push(line);
      for (const [one, { picture, after }] of waiting)
        if (after === line) {
          between.push({ after: text.at(-1) ?? null, what: picture });
          waiting.delete(one);
        }
    }
    for (const { picture } of waiting.values()) between.push({ after: text.at(-1) ?? null, what: picture });
    // Known once the page's drawing was looked at.
    for (const { font } of own)
      if (font !== null && !strong.has(font)) strong.set(font, isStrongFont(page, font));
    page.cleanup();
  }
  const isStrong = strongIn(text, strong);
  return { layout: layoutOf(text, between, notes, isStrong), undrawn };
}

/** What fonts of a heavier weight have in their names, those of TeX among them. */
const STRONG = /bold|black|heavy|semibold|demi|[ce]mbx|ecbx/i;

function isStrongFont(page: PDFPageProxy, font: string): boolean {
  const found: unknown = page.commonObjs.has(font) ? page.commonObjs.get(font) : null;
  const { name } = (found ?? {}) as { readonly name?: unknown };
  return typeof name === 'string' && STRONG.test(name);
}

/** Which lines are heavier than the text: none in a paper that is set in a heavy font throughout. */
function strongIn(lines: readonly Line[], strong: ReadonlyMap<string, boolean>): (line: Line) => boolean {
  const isStrong = ({ font }: Line) => font !== null && strong.get(font) === true;
  return lines.filter(isStrong).length * 2 > lines.length ? () => false : isStrong;
}

/** A table goes on with the one before where nothing stands between the two. */
function putTable(between: Between[], after: Line | null, rows: PageTable['rows']): void {
  const last = between.at(-1);
  const goesOn =
    last !== undefined &&
    !('bytes' in last.what) &&
    last.after === after &&
    last.what[0].length === rows[0].length;
  if (goesOn && !('bytes' in last.what))
    between[between.length - 1] = { after, what: [...last.what, ...rows] };
  else between.push({ after, what: rows });
}

function countBefore(parted: readonly { readonly notes: readonly PageNote[] }[], page: number): number {
  return parted.slice(0, page).reduce((sum, { notes }) => sum + notes.length, 0);
}

/** A raised figure behind a unit is its power. */
const UNIT = /(?:^|[\s\d(/·])(?:[kcdm]?m|s|h|ha|k?g|l)$/;

/**
 * Lines with the calls of footnotes as single characters of their own, each note called once.
 * @param noteOf the number of the note with a mark, or -1
 */
function withCalls(lines: readonly Line[], noteOf: (mark: string) => number): Line[] {
  const used = new Set<number>();
  return lines.map((line) => {
    let text = '';
    let from = 0;
    for (const { at, text: mark } of line.raised ?? []) {
      const note = noteOf(mark.trim());
      const isPower = UNIT.test(line.text.slice(0, at));
      if (note < 0 || note >= MOST_CALLS || used.has(note) || isPower) continue;
      used.add(note);
      text += `${line.text.slice(from, at)}${String.fromCharCode(FIRST_CALL + note)}`;
      from = at + mark.length;
    }
    return { ...line, text: text + line.text.slice(from) };
  });
}

function layoutOf(
  text: readonly Line[],
  between: readonly Between[],
  notes: readonly PageNote[],
  isStrong: (line: Line) => boolean,
): Layout {
  const { paper, lines, numbered } = blocksOfLines(text, isStrong);
  const lastBlock = new Map(lines.map(({ block, ...line }, index) => [text[index] ?? line, block]));
  const writer = new LayoutWriter();
  let table = 0;
  const writeBetween = (block: number) => {
    for (const { after, what } of between) {
      if ((after === null ? -1 : (lastBlock.get(after) ?? -1)) !== block) continue;
      if ('bytes' in what) {
        writer.beginBlock({ kind: 'paragraph', level: 0, cell: null });
        writer.picture(what);
        writer.endBlock();
        continue;
      }
      for (const [row, cells] of what.entries())
        for (const [column, words] of cells.entries()) {
          writer.beginBlock({ kind: 'paragraph', level: 0, cell: { table, row, column } });
          write(writer, words);
        }
      table++;
    }
  };
  writeBetween(-1);
  for (const [index, block] of paper.blocks.entries()) {
    const ordered = numbered.has(index);
    writer.beginBlock({
      kind: ordered ? 'item' : block.kind,
      level: block.kind === 'heading' ? block.level : 0,
      ordered,
      cell: null,
    });
    write(writer, ordered ? block.text.replace(NUMBERED, '') : block.text);
    writer.endBlock();
    writeBetween(index);
  }
  for (const [index, note] of notes.entries()) {
    const { paper: own } = blocksOfLines(note.lines);
    writer.beginBlock({ kind: 'footnote', level: index + 1, cell: null });
    write(writer, own.text.replaceAll('\n', ' '));
  }
  return writer.finish().layout;
}

/** Writes text with the footnotes that are called in it. */
function write(writer: LayoutWriter, text: string): void {
  let rest = text;
  for (let at = rest.search(CALL); at >= 0; at = rest.search(CALL)) {
    writer.append(rest.slice(0, at), PLAIN, []);
    writer.note(rest.charCodeAt(at) - FIRST_CALL + 1);
    rest = rest.slice(at + 1);
  }
  writer.append(rest, PLAIN, []);
}

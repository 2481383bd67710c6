import { newDoc, type Doc, type Structure } from './pdfkit.ts';
import type { PictureBlock, RichBlock, Run, TableBlock, TextBlock } from '#core/paper/draft.ts';

/** A table of text; cells are paragraphs. */
interface PdfTable {
  readonly kind: 'table';
  /** Heads of the columns with the share of the width that each has. */
  readonly columns: readonly { readonly title: string; readonly share: number }[];
  readonly rows: readonly (readonly (readonly string[])[])[];
}

/** The paragraphs of a cell. */
type Cell = readonly (readonly Run[])[];

/** Names with what is told under each. */
interface PdfFacts {
  readonly kind: 'facts';
  readonly rows: readonly (readonly [string, string])[];
}

/** A picture that fills a page of its own: A4, upright or across as the picture is. */
export interface PdfPicturePage {
  readonly kind: 'picture page';
  /** PNG or JPEG. */
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** In pixels. */
  readonly width: number;
  readonly height: number;
  /** What a screen reader says of it. */
  readonly alt: string;
  /** The name by which its place is told. */
  readonly key?: string;
}

/** Where something stands in a PDF that was laid out. */
export interface LaidOut {
  /** From 0. */
  readonly page: number;
  /** Left, bottom, right, top, in points from the lower left corner of the page. */
  readonly rect: readonly [number, number, number, number];
}

/** What a PDF is to hold, block after block, and what it says of itself. */
export interface PdfToWrite {
  readonly title: string;
  /** BCP 47. */
  readonly language: string;
  /** When it was made, ISO 8601: the same content at the same time gives the same bytes. */
  readonly at: string;
  readonly blocks: readonly (RichBlock | PdfTable | PdfFacts | PdfPicturePage)[];
  /** Bytes of the pictures in the text, by their hash (PNG or JPEG); others are left out, their captions kept. */
  readonly pictures?: ReadonlyMap<string, Uint8Array<ArrayBuffer>>;
  /** Whether its pages say which they are; not said: they do, where there are more than one. */
  readonly numbered?: boolean | undefined;
  /** Called with how many blocks are done, and of how many. */
  readonly progress?: ((done: number, of: number) => void) | undefined;
}

/** Fonts to embed, for each look one file for each range of characters, the most usual first (WOFF, TTF or OTF). */
export interface PdfFonts extends Readonly<Record<Look, readonly Uint8Array[]>> {
  /** Draws a paragraph that has characters which no font has; not there: they are written as "?". */
  readonly draw?: DrawText;
}

type Look = 'regular' | 'bold' | 'italic';

/** Draws a paragraph as a picture (PNG) of a width, in points, in whatever fonts there are. */
export type DrawText = (
  text: string,
  look: { readonly size: number; readonly width: number; readonly bold: boolean; readonly italic: boolean },
) => { readonly bytes: Uint8Array<ArrayBuffer>; readonly height: number };

/** In points: 1/72 inch. */
const A4_WIDTH = 595.28;
const MARGIN = 56;
const TEXT = 10.5;
const SMALL = 9;
const HEADINGS = [17, 13.5, 11.5] as const;
const GAP = 7;
const CELL = 4;
const CELL_TEXT = SMALL + 0.5;
const RULE = '#b9b4a4';
const QUIET = '#555048';

/** No key has this in it. */
const KEY_END = '\u0000';
/** How often progress is told. */
const BLOCKS_BETWEEN = 50;

/**
 * Lays text, facts and tables out on A4 pages: fonts embedded, tagged, with title and language (ISO 14289-1, PDF/UA).
 * A paragraph with characters that no font has is drawn, with its words as what it says.
 */
export async function writePdf(content: PdfToWrite, fonts: PdfFonts): Promise<Uint8Array<ArrayBuffer>> {
  return (await layOutPdf(content, fonts)).bytes;
}

/** The same, with the places of what has a name in it (`keys` of runs, a line each; `key` of a page's picture). */
export async function layOutPdf(
  { title, language, at, blocks, pictures = new Map(), numbered = true, progress }: PdfToWrite,
  fonts: PdfFonts,
): Promise<{ bytes: Uint8Array<ArrayBuffer>; pages: number; places: Map<string, LaidOut[]> }> {
  const date = new Date(at);
  const doc = await newDoc({
    size: 'A4',
    margin: MARGIN,
    bufferPages: true,
    autoFirstPage: false,
    pdfVersion: '1.7',
    subset: 'PDF/UA',
    tagged: true,
    lang: language,
    displayTitle: true,
    info: { Title: title, CreationDate: date, ModDate: date, Producer: 'Juncture', Creator: 'Juncture' },
    font: '',
  });
  const chunks: Uint8Array[] = [];
  const written = new Promise<Uint8Array<ArrayBuffer>>((resolve, reject) => {
    doc.on('data', (chunk: Uint8Array) => chunks.push(chunk));
    doc.on('end', () => resolve(joined(chunks)));
    doc.on('error', reject);
  });
  const places = new Map<string, LaidOut[]>();
  const put = (key: string, x: number, y: number, width: number, height: number) => {
    const { start, count } = doc.bufferedPageRange();
    const top = doc.page.height - y;
    const place: LaidOut = { page: start + count - 1, rect: [x, top - height, x + width, top] };
    const known = places.get(key);
    if (known === undefined) places.set(key, [place]);
    else known.push(place);
  };
  doc.goTo = (x, y, width, height, names) => {
    for (const key of names.split(KEY_END)) put(key, x, y, width, height);
    return doc;
  };
  const pen: Pen = { ...penFor(doc, fonts), pictures, notes: [], counts: new Map(), put };
  const root = doc.struct('Document');
  doc.addStructure(root);
  for (const [index, block] of blocks.entries()) {
    const isPicture = block.kind === 'picture page';
    // A picture fills its page: what follows begins another.
    if (!isPicture && (index === 0 || blocks[index - 1].kind === 'picture page')) doc.addPage();
    write(block, pen, root);
    if (index % BLOCKS_BETWEEN === 0) progress?.(index, blocks.length);
  }
  writeNotes(pen, root);
  if (blocks.length === 0) doc.addPage();
  if (numbered) numberPages(pen);
  root.end();
  const { count: pages } = doc.bufferedPageRange();
  doc.end();
  return { bytes: await written, pages, places };
}

function joined(chunks: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const whole = new Uint8Array(chunks.reduce((sum, chunk) => sum + chunk.length, 0));
  let at = 0;
  for (const chunk of chunks) {
    whole.set(chunk, at);
    at += chunk.length;
  }
  return whole;
}

/** What writes text in the fonts there are. */
interface Pen {
  readonly doc: Doc;
  /** Width between the margins. */
  readonly width: number;
  /** Writes runs as one paragraph, from a place on. */
  text(runs: readonly Run[], size: number, place: { x: number; y: number; width: number }): void;
  readonly pictures: ReadonlyMap<string, Uint8Array<ArrayBuffer>>;
  /** The footnotes that were called so far; they stand at the end. */
  readonly notes: string[];
  /** How many items of each numbered list were written. */
  readonly counts: Map<number, number>;
  /** Notes where something stands that has a name. */
  readonly put: (key: string, x: number, y: number, width: number, height: number) => void;
  /** How high a paragraph is. */
  height(runs: readonly Run[], size: number, width: number): number;
}

interface Face {
  readonly name: string;
  has(character: string): boolean;
}

function facesIn(doc: Doc, fonts: PdfFonts): Readonly<Record<Look, readonly Face[]>> {
  const faces = (look: Look) =>
    fonts[look].map((bytes, index): Face => {
      const name = `${look}-${index}`;
      doc.registerFont(name, bytes);
      doc.font(name);
      const { font } = doc._font;
      return { name, has: (character) => font.hasGlyphForCodePoint(character.codePointAt(0) ?? 0) };
    });
  return { regular: faces('regular'), bold: faces('bold'), italic: faces('italic') };
}

function penFor(doc: Doc, fonts: PdfFonts): Pick<Pen, 'doc' | 'width' | 'text' | 'height'> {
  const faces = facesIn(doc, fonts);
  const width = A4_WIDTH - 2 * MARGIN;
  // An empty paragraph is as high as one with words.
  const piecesOf = (runs: readonly Run[]) =>
    (runs.length === 0 ? plain('') : runs).flatMap(({ text, bold, italic, keys = [] }) =>
      piecesIn(text, faces[bold ? 'bold' : italic ? 'italic' : 'regular']).map((piece) => ({
        ...piece,
        goTo: keys.length === 0 ? null : keys.join(KEY_END),
      })),
    );
  const isHeld = (character: string) =>
    /\s/u.test(character) || faces.regular.some((face) => face.has(character));
  const drawn = new Map<string, ReturnType<DrawText>>();
  /** null: the fonts have all of it. */
  const drawingOf = (runs: readonly Run[], size: number, lineWidth: number) => {
    const text = runs.map((run) => run.text).join('');
    if (fonts.draw === undefined || Array.from(text).every(isHeld)) return null;
    const look = { size, width: lineWidth, bold: runs[0].bold, italic: runs[0].italic };
    const key = JSON.stringify([text, look]);
    const picture = drawn.get(key) ?? fonts.draw(text, look);
    drawn.set(key, picture);
    return { text, ...picture };
  };
  return {
    doc,
    width,
    text(runs, size, place) {
      const drawing = drawingOf(runs, size, place.width);
      if (drawing !== null) {
        let { y } = place;
        if (y + drawing.height > bottomOf(doc) && drawing.height < bottomOf(doc) - MARGIN) {
          doc.addPage();
          ({ y } = doc);
        }
        doc.markContent('Span', { actual: drawing.text });
        doc.image(drawing.bytes, place.x, y, { width: place.width, height: drawing.height });
        doc.endMarkedContent();
        doc.y = y + drawing.height;
        for (const { keys = [] } of runs)
          if (keys.length > 0) doc.goTo(place.x, y, place.width, drawing.height, keys.join(KEY_END));
        return;
      }
      const pieces = piecesOf(runs);
      doc.fontSize(size).lineGap(2);
      for (const [index, { face, text, goTo }] of pieces.entries()) {
        // What is not given goes on from the piece before.
        const options = { width: place.width, continued: index < pieces.length - 1, goTo };
        doc.font(face);
        if (index === 0) doc.text(text, place.x, place.y, options);
        else doc.text(text, options);
      }
    },
    height(runs, size, lineWidth) {
      const drawing = drawingOf(runs, size, lineWidth);
      if (drawing !== null) return drawing.height;
      const [first] = piecesOf(runs);
      doc.font(first.face).fontSize(size).lineGap(2);
      return doc.heightOfString(runs.map(({ text }) => text).join(''), { width: lineWidth });
    },
  };
}

/** A text in pieces that one font has each. */
function piecesIn(text: string, faces: readonly Face[]): { readonly face: string; readonly text: string }[] {
  const pieces: { face: string; text: string }[] = [];
  for (const character of text === '' ? ' ' : text) {
    const isSpace = /\s/u.test(character);
    const face = isSpace ? null : faces.find((one) => one.has(character));
    const last = pieces.at(-1);
    // White space belongs to whatever stands before it.
    const name = face?.name ?? last?.face ?? faces[0].name;
    const shown = face === undefined ? '?' : character;
    if (last?.face === name) last.text += shown;
    else pieces.push({ face: name, text: shown });
  }
  return pieces;
}

const plain = (text: string, bold = false): Run[] => [{ text, bold, italic: false }];
const cellOf = (...paragraphs: readonly string[]): Cell => paragraphs.map((text) => plain(text));

function write(block: PdfToWrite['blocks'][number], pen: Pen, root: Structure): void {
  switch (block.kind) {
    case 'facts': {
      const rows = block.rows.map(([name, value]) => [cellOf(name), cellOf(value)]);
      writeRows(pen, root, { head: null, shares: [0.28, 0.72], rows });
      break;
    }
    case 'table': {
      const head = block.columns.map(({ title }) => cellOf(title));
      const shares = block.columns.map(({ share }) => share);
      writeRows(pen, root, {
        head,
        shares,
        rows: block.rows.map((row) => row.map((cell) => cellOf(...cell))),
      });
      break;
    }
    case 'picture page':
      writePicture(pen, root, block);
      break;
    case 'heading': {
      const level = Math.min(Math.max(block.level, 1), HEADINGS.length);
      writeParagraph(pen, root, `H${level}`, block.runs, {
        size: HEADINGS[level - 1],
        before: GAP,
        bold: true,
      });
      break;
    }
    case 'item':
      writeItem(pen, root, block);
      break;
    case 'quote':
    case 'paragraph': {
      const isQuote = block.kind === 'quote';
      const look = { size: TEXT, before: 0, bold: false, inset: isQuote ? INSET : 0 };
      writeParagraph(pen, root, isQuote ? 'BlockQuote' : 'P', block.runs, look);
      break;
    }
    case 'picture':
      writeFigure(pen, root, block);
      break;
    case 'rows':
      writeTable(pen, root, block);
      break;
  }
}

function writeParagraph(
  pen: Pen,
  root: Structure,
  tag: string,
  runs: readonly Run[],
  { size, before, bold, inset = 0 }: { size: number; before: number; bold: boolean; inset?: number },
): void {
  const { doc } = pen;
  const own = noted(pen, bold ? runs.map((run) => ({ ...run, bold: true })) : runs);
  const width = pen.width - 2 * inset;
  doc.y += before;
  const height = pen.height(own, size, width);
  // A heading stays with the line after it; a long paragraph goes on over the page by itself.
  if (doc.y + Math.min(height, 3 * size) + (bold ? 3 * TEXT : 0) > bottomOf(doc)) doc.addPage();
  root.add(doc.struct(tag, () => pen.text(own, size, { x: MARGIN + inset, y: doc.y, width })));
  doc.y += GAP;
}

/** Where a footnote is called its number stands, in brackets: raised digits are in few fonts. */
function noted({ notes }: Pen, runs: readonly Run[]): Run[] {
  return runs.map((run) => (run.note === undefined ? run : { ...run, text: `[${notes.push(run.note)}]` }));
}

function writeNotes(pen: Pen, root: Structure): void {
  if (pen.notes.length > 0) rule(pen.doc, pen.doc.y);
  for (const [index, note] of [...pen.notes].entries())
    writeParagraph(pen, root, 'P', plain(`[${index + 1}] ${note}`), { size: SMALL, before: 0, bold: false });
}

/** In points: how far a quotation, or a level of a list, stands in. */
const INSET = 22;

function writeItem(pen: Pen, root: Structure, { runs, level, list: of }: TextBlock): void {
  const { doc, counts } = pen;
  if (doc.y + 2 * TEXT > bottomOf(doc)) doc.addPage();
  const { y } = doc;
  const number = (counts.get(of?.number ?? 0) ?? 0) + 1;
  counts.set(of?.number ?? 0, number);
  const x = MARGIN + level * INSET;
  const list = doc.struct('L');
  root.add(list);
  const item = doc.struct('LI');
  list.add(item);
  const label = of?.ordered === true ? `${number}.` : '•';
  const inset = of?.ordered === true ? 20 : 14;
  item.add(doc.struct('Lbl', () => pen.text(plain(label), TEXT, { x, y, width: inset })));
  const own = noted(pen, runs);
  const width = pen.width - (x - MARGIN) - inset;
  item.add(doc.struct('LBody', () => pen.text(own, TEXT, { x: x + inset, y, width })));
  item.end();
  list.end();
  doc.y += GAP / 2;
}

/** A CSS pixel in points. */
const PIXEL = 0.75;

function writeFigure(pen: Pen, root: Structure, block: PictureBlock): void {
  const { doc } = pen;
  const bytes = pen.pictures.get(block.hash);
  if (bytes !== undefined && block.width > 0) {
    const room = bottomOf(doc) - MARGIN - 3 * TEXT;
    const share = Math.min(1, pen.width / (block.width * PIXEL), room / (block.height * PIXEL));
    const [width, height] = [block.width * PIXEL * share, block.height * PIXEL * share];
    if (doc.y + height + 3 * TEXT > bottomOf(doc)) doc.addPage();
    const { y } = doc;
    root.add(doc.struct('Figure', { alt: block.alt }, () => doc.image(bytes, MARGIN, y, { width, height })));
    doc.y = y + height + GAP;
  }
  if (block.runs.some(({ text }) => text.trim() !== ''))
    writeParagraph(pen, root, 'Caption', block.runs, { size: SMALL, before: 0, bold: false });
}

/** A table of the text: its cells as paragraphs, under their heads where it has any. */
function writeTable(pen: Pen, root: Structure, { rows }: TableBlock): void {
  const columns = Math.max(1, ...rows.map((row) => row.reduce((sum, { across }) => sum + across, 0)));
  const cell = (blocks: readonly RichBlock[]): Cell =>
    blocks.flatMap((block) => (block.kind === 'rows' ? [] : [noted(pen, block.runs)]));
  const told = rows.map((row) =>
    row.flatMap(({ blocks, across }) => [cell(blocks), ...Array.from({ length: across - 1 }, () => [])]),
  );
  const filled = told.map((row) => [...row, ...Array.from({ length: columns - row.length }, () => [])]);
  const [first, ...rest] = filled;
  const isHead = rows[0]?.every(({ isHead: is }) => is) ?? false;
  const shares = Array.from({ length: columns }, () => 1 / columns);
  if (isHead) writeRows(pen, root, { head: first, shares, rows: rest });
  else writeRows(pen, root, { head: [], shares, rows: filled });
}

/** Around a picture that fills a page: printers leave an edge blank. */
const EDGE = 18;

function writePicture(
  { doc, put }: Pen,
  root: Structure,
  { bytes, width, height, alt, key }: PdfPicturePage,
): void {
  doc.addPage({ size: 'A4', margin: MARGIN, layout: width > height ? 'landscape' : 'portrait' });
  const room = [doc.page.width - 2 * EDGE, doc.page.height - 2 * EDGE] as const;
  const share = Math.min(room[0] / width, room[1] / height);
  const [across, down] = [width * share, height * share];
  const place = [(doc.page.width - across) / 2, (doc.page.height - down) / 2] as const;
  root.add(
    doc.struct('Figure', { alt }, () => {
      doc.image(bytes, ...place, { width: across, height: down });
    }),
  );
  if (key !== undefined) put(key, ...place, across, down);
}

function bottomOf(doc: Doc): number {
  return doc.page.height - MARGIN;
}

/** Rows with ruled lines between them; a row that finds no room begins the next page, under the head again. */
function writeRows(
  pen: Pen,
  root: Structure,
  {
    head,
    shares,
    rows,
  }: {
    /** null: the first cell of each row is its head; empty: it has no head at all. */
    readonly head: readonly Cell[] | null;
    readonly shares: readonly number[];
    readonly rows: readonly (readonly Cell[])[];
  },
): void {
  const { doc } = pen;
  const widths = shares.map((share) => share * pen.width);
  const lefts = widths.map((_, index) => MARGIN + widths.slice(0, index).reduce((sum, one) => sum + one, 0));
  const table = doc.struct('Table');
  root.add(table);
  const heightOf = (cell: Cell, index: number) =>
    cell.reduce((sum, runs) => sum + pen.height(runs, CELL_TEXT, widths[index] - 2 * CELL) + CELL / 2, CELL);
  const hasHead = head !== null && head.length > 0;
  const row = (cells: readonly Cell[], isHead: boolean) => {
    const height = Math.max(...cells.map(heightOf));
    const fits = doc.y + height <= bottomOf(doc);
    // Higher than a page: it flows on over the next by itself.
    if (!fits && height < bottomOf(doc) - MARGIN) {
      doc.addPage();
      if (hasHead && !isHead) row(head, true);
    }
    const { y } = doc;
    let end = y;
    rule(doc, y);
    const tr = doc.struct('TR');
    table.add(tr);
    for (const [index, cell] of cells.entries()) {
      const isName = isHead || (head === null && index === 0);
      const place = { x: lefts[index], y: y + CELL, width: widths[index] - 2 * CELL };
      tr.add(
        doc.struct(isName ? 'TH' : 'TD', () => {
          doc.y = place.y;
          for (const runs of cell) {
            const shown = isHead ? runs.map((run) => ({ ...run, bold: true })) : runs;
            pen.text(shown, CELL_TEXT, { ...place, y: doc.y });
            doc.y += CELL / 2;
          }
        }),
      );
      end = Math.max(end, doc.y);
    }
    tr.end();
    doc.y = end + CELL;
  };
  if (hasHead) row(head, true);
  for (const cells of rows) row(cells, false);
  rule(doc, doc.y);
  table.end();
  doc.y += GAP;
}

/** A line over the width; to a screen reader it is nothing. */
function rule(doc: Doc, y: number): void {
  doc.markContent('Artifact', { type: 'Layout' });
  doc
    .moveTo(MARGIN, y)
    .lineTo(doc.page.width - MARGIN, y)
    .lineWidth(0.6)
    .stroke(RULE);
  doc.endMarkedContent();
}

function numberPages(pen: Pen): void {
  const { doc } = pen;
  const { start, count } = doc.bufferedPageRange();
  if (count < 2) return;
  for (let index = start; index < start + count; index++) {
    doc.switchToPage(index);
    // Below the margin, where text would begin a page of its own.
    doc.page.margins.bottom = 0;
    doc.markContent('Artifact', { type: 'Pagination' });
    doc.fillColor(QUIET);
    pen.text(plain(`${index + 1} / ${count}`), SMALL, {
      x: MARGIN,
      y: doc.page.height - MARGIN + 14,
      width: pen.width,
    });
    doc.endMarkedContent();
  }
}

import { PDFDocument, PDFHexString, PDFName, PDFString, StandardFonts, type PDFFont } from '@cantoo/pdf-lib';
import type { Block } from '#core/paper/paper.ts';

/** Makes a marked paper: the text set as a plain report, with real annotations and their appearances. */

const PAGE = { width: 595.28, height: 841.89, left: 85, right: 85, top: 92, bottom: 116 };
const BODY = { size: 11.5, leading: 17, after: 8 };
const HEADING = [
  { size: 17, leading: 22, before: 0, after: 14 },
  { size: 14, leading: 19, before: 14, after: 8 },
  { size: 12.5, leading: 17, before: 8, after: 6 },
] as const;

export interface DemoRemark {
  readonly id: string;
  readonly kind: 'highlight' | 'underline' | 'strikeout' | 'note';
  readonly quote?: string;
  readonly beside?: string;
  readonly criterion?: string;
  readonly text: string;
}

interface SetLine {
  readonly page: number;
  readonly x: number;
  readonly y: number;
  readonly text: string;
  /** Where the line begins in its block. */
  readonly offset: number;
  readonly font: PDFFont;
  readonly size: number;
}
interface SetBlock {
  readonly text: string;
  readonly lines: readonly SetLine[];
}

const COLORS = {
  highlight: [0.96, 0.85, 0.45],
  underline: [0.22, 0.42, 0.56],
  strikeout: [0.45, 0.27, 0.2],
  note: [0.22, 0.42, 0.56],
} as const;
const SUBTYPES = {
  highlight: 'Highlight',
  underline: 'Underline',
  strikeout: 'StrikeOut',
  note: 'Text',
} as const;

/** @param markedAt the moment in every date of the file, so that the same day gives the same bytes */
export async function buildMarkedPdf(
  title: string,
  blocks: readonly Block[],
  remarks: readonly DemoRemark[],
  author: string,
  markedAt: Date,
): Promise<Uint8Array> {
  const document = await PDFDocument.create({ updateMetadata: false });
  document.setTitle(title);
  document.setProducer('Juncture demo');
  document.setCreationDate(markedAt);
  document.setModificationDate(markedAt);
  const set = await setBlocks(document, blocks);
  for (const remark of remarks) addAnnotation(document, set, remark, author, markedAt);
  return document.save({ useObjectStreams: false, addDefaultPage: false });
}

async function setBlocks(document: PDFDocument, blocks: readonly Block[]): Promise<SetBlock[]> {
  const roman = await document.embedFont(StandardFonts.TimesRoman);
  const bold = await document.embedFont(StandardFonts.TimesRomanBold);
  let page = document.addPage([PAGE.width, PAGE.height]);
  let y = PAGE.height - PAGE.top;
  const set: SetBlock[] = [];
  const newPage = () => {
    page = document.addPage([PAGE.width, PAGE.height]);
    y = PAGE.height - PAGE.top;
  };
  for (const block of blocks) {
    const style = block.kind === 'heading' ? HEADING[block.level - 1] : { ...BODY, before: 0 };
    const font = block.kind === 'heading' ? bold : roman;
    if (y < PAGE.height - PAGE.top) y -= style.before;
    // A heading never stands alone at the foot of a page.
    if (block.kind === 'heading' && y - style.leading < PAGE.bottom + 3 * BODY.leading) newPage();
    const lines: SetLine[] = [];
    for (const { text, offset } of breakLines(block.text, font, style.size)) {
      if (y - style.leading < PAGE.bottom) newPage();
      y -= style.leading;
      page.drawText(text, { x: PAGE.left, y, size: style.size, font });
      lines.push({
        page: document.getPageCount() - 1,
        x: PAGE.left,
        y,
        text,
        offset,
        font,
        size: style.size,
      });
    }
    y -= style.after;
    set.push({ text: block.text, lines });
  }
  document.getPages().forEach((each, index) => {
    const number = String(index + 1);
    const x = PAGE.width / 2 - roman.widthOfTextAtSize(number, 10) / 2;
    each.drawText(number, { x, y: 46, size: 10, font: roman });
  });
  return set;
}

function breakLines(text: string, font: PDFFont, size: number): { text: string; offset: number }[] {
  const width = PAGE.width - PAGE.left - PAGE.right;
  const lines: { text: string; offset: number }[] = [];
  let from = 0;
  while (from < text.length) {
    let to = text.length;
    while (font.widthOfTextAtSize(text.slice(from, to), size) > width) {
      const space = text.lastIndexOf(' ', to - 1);
      if (space <= from) break;
      to = space;
    }
    lines.push({ text: text.slice(from, to), offset: from });
    from = to + 1;
  }
  return lines;
}

function findOnce(set: readonly SetBlock[], words: string): { block: SetBlock; from: number } {
  const found = set.filter((block) => block.text.includes(words));
  if (found.length !== 1) throw new Error(`“${words}” stands in ${found.length} paragraphs, wanted in one`);
  return { block: found[0], from: found[0].text.indexOf(words) };
}

/** The corners of the words on each line they touch, in the order that PDF readers use. */
function quadsOf(block: SetBlock, from: number, to: number): { page: number; quads: number[] } {
  const quads: number[] = [];
  let page = -1;
  for (const line of block.lines) {
    const start = Math.max(from, line.offset) - line.offset;
    const end = Math.min(to, line.offset + line.text.length) - line.offset;
    if (end <= start) continue;
    // A mark belongs to one page; the rest of a passage that runs over is left unmarked, as markers do.
    if (page >= 0 && line.page !== page) break;
    page = line.page;
    const left = line.x + line.font.widthOfTextAtSize(line.text.slice(0, start), line.size);
    const right = left + line.font.widthOfTextAtSize(line.text.slice(start, end), line.size);
    const top = line.y + line.size * 0.78;
    const bottom = line.y - line.size * 0.24;
    quads.push(left, top, right, top, left, bottom, right, bottom);
  }
  return { page, quads };
}

function addAnnotation(
  document: PDFDocument,
  set: readonly SetBlock[],
  remark: DemoRemark,
  author: string,
  markedAt: Date,
): void {
  const words = remark.quote ?? remark.beside ?? '';
  const { block, from } = findOnce(set, words);
  const marked = quadsOf(block, from, from + words.length);
  const page = document.getPage(marked.page);
  const isNote = remark.kind === 'note';
  const top = Math.max(...marked.quads.filter((_, i) => i % 2 === 1));
  const x = PAGE.width - PAGE.right + 14;
  const rect = isNote ? [x, top - 16, x + 16, top] : boundsOf(marked.quads);
  const color = COLORS[remark.kind];
  const dict = document.context.obj({
    Type: 'Annot',
    Subtype: SUBTYPES[remark.kind],
    Rect: rect,
    C: [...color],
    F: 4,
    NM: PDFString.of(remark.id),
    T: PDFHexString.fromText(author),
    Contents: PDFHexString.fromText(remark.text),
    CreationDate: PDFString.fromDate(markedAt),
    M: PDFString.fromDate(markedAt),
    P: page.ref,
    ...(remark.criterion === undefined ? {} : { Subj: PDFHexString.fromText(remark.criterion) }),
    ...(isNote ? { Name: 'Note' } : { QuadPoints: marked.quads }),
  });
  dict.set(
    PDFName.of('AP'),
    document.context.obj({ N: appearance(document, remark.kind, rect, marked.quads) }),
  );
  page.node.addAnnot(document.context.register(dict));
}

function boundsOf(quads: readonly number[]): number[] {
  const xs = quads.filter((_, i) => i % 2 === 0);
  const ys = quads.filter((_, i) => i % 2 === 1);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}

function appearance(
  document: PDFDocument,
  kind: DemoRemark['kind'],
  rect: readonly number[],
  quads: readonly number[],
) {
  const [r, g, b] = COLORS[kind];
  const draw: string[] = [`/G0 gs ${r} ${g} ${b} ${kind === 'highlight' ? 'rg' : 'RG'} 1.1 w`];
  if (kind === 'note') {
    const [x, y] = rect;
    // A leaf with a turned corner and two lines.
    draw.push(
      `1 0.98 0.92 rg ${x + 1} ${y + 1} m ${x + 1} ${y + 15} l ${x + 10} ${y + 15} l ${x + 15} ${y + 10} l`,
    );
    draw.push(`${x + 15} ${y + 1} l h B ${x + 10} ${y + 15} m ${x + 10} ${y + 10} l ${x + 15} ${y + 10} l S`);
    draw.push(`${x + 4} ${y + 7} m ${x + 12} ${y + 7} l S ${x + 4} ${y + 4} m ${x + 10} ${y + 4} l S`);
  }
  for (let i = 0; kind !== 'note' && i < quads.length; i += 8) {
    const [left, top, right, , , bottom] = quads.slice(i, i + 6);
    if (kind === 'highlight') draw.push(`${left} ${bottom} ${right - left} ${top - bottom} re f`);
    else {
      const y = kind === 'underline' ? bottom + 1 : (top + bottom) / 2;
      draw.push(`${left} ${y} m ${right} ${y} l S`);
    }
  }
  return document.context.register(
    document.context.stream(draw.join('\n'), {
      Type: 'XObject',
      Subtype: 'Form',
      BBox: [...rect],
      Resources: { ExtGState: { G0: { BM: kind === 'highlight' ? 'Multiply' : 'Normal' } } },
    }),
  );
}

import {
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFString,
  StandardFonts,
  type PDFFont,
  type PDFRef,
} from '@cantoo/pdf-lib';
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
  readonly kind: MarkKind;
  /** Words that it marks. */
  readonly quote?: string;
  /** Several places that it marks as one. */
  readonly quotes?: readonly string[];
  /** Words that it stands beside. */
  readonly beside?: string;
  readonly near?: string;
  readonly criterion?: string;
  readonly text: string;
  /** The marker's own habit of colour. */
  readonly hue?: keyof typeof HUES;
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

type MarkKind = 'highlight' | 'underline' | 'squiggly' | 'strikeout' | 'note' | 'box' | 'ink' | 'circle';

const COLORS: Readonly<Record<MarkKind, readonly [number, number, number]>> = {
  highlight: [0.96, 0.85, 0.45],
  underline: [0.22, 0.42, 0.56],
  squiggly: [0.22, 0.42, 0.56],
  strikeout: [0.45, 0.27, 0.2],
  note: [0.22, 0.42, 0.56],
  box: [0.3, 0.3, 0.3],
  ink: [0.1, 0.3, 0.5],
  circle: [0.6, 0.25, 0.15],
};
/** The same hue laid over words, and as a line. */
const HUES = {
  evidence: { over: [0.97, 0.86, 0.52], line: [0.72, 0.47, 0.05] },
  order: { over: [0.7, 0.86, 0.94], line: [0.12, 0.42, 0.62] },
  terms: { over: [0.86, 0.78, 0.93], line: [0.45, 0.25, 0.6] },
} as const;
const SUBTYPES: Readonly<Record<MarkKind, string>> = {
  highlight: 'Highlight',
  underline: 'Underline',
  squiggly: 'Squiggly',
  strikeout: 'StrikeOut',
  note: 'Text',
  box: 'FreeText',
  ink: 'Ink',
  circle: 'Circle',
};
/** Marks that stand beside words and not on them. */
const BESIDE: ReadonlySet<MarkKind> = new Set(['note', 'box', 'ink']);
const BOX = { width: 74, size: 6.5, leading: 8, inset: 3 };

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
  const font = await document.embedFont(StandardFonts.Helvetica);
  for (const remark of remarks) addAnnotation(document, set, remark, { author, at: markedAt, font });
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
    const room = PAGE.width - PAGE.left - PAGE.right;
    for (const { text, offset } of breakLines(block.text, font, style.size, room)) {
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

function breakLines(
  text: string,
  font: PDFFont,
  size: number,
  width: number,
): { text: string; offset: number }[] {
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

/** What every annotation of a file has. */
interface Hand {
  readonly author: string;
  readonly at: Date;
  readonly font: PDFFont;
}

function addAnnotation(
  document: PDFDocument,
  set: readonly SetBlock[],
  remark: DemoRemark,
  hand: Hand,
): void {
  const { quotes } = remark;
  if (quotes === undefined) {
    addOne(document, set, remark, remark.quote ?? remark.beside ?? remark.near ?? '', hand, null);
    return;
  }
  // Several marks that are one: the others belong to the first as a group.
  let first: PDFRef | null = null;
  for (const words of quotes) {
    const added: PDFRef = addOne(document, set, remark, words, hand, first);
    first ??= added;
  }
}

function addOne(
  document: PDFDocument,
  set: readonly SetBlock[],
  remark: DemoRemark,
  words: string,
  { author, at, font }: Hand,
  group: PDFRef | null,
): PDFRef {
  const { kind } = remark;
  const { block, from } = findOnce(set, words);
  const marked = quadsOf(block, from, from + words.length);
  const page = document.getPage(marked.page);
  const top = Math.max(...marked.quads.filter((_, i) => i % 2 === 1));
  const lines = kind === 'box' ? breakLines(remark.text, font, BOX.size, BOX.width - 2 * BOX.inset) : [];
  const rect = rectOf(kind, marked.quads, top, lines.length);
  const color =
    remark.hue === undefined ? COLORS[kind] : HUES[remark.hue][kind === 'highlight' ? 'over' : 'line'];
  const strokes = kind === 'ink' ? [inkStroke(rect)] : [];
  const dict = document.context.obj({
    Type: 'Annot',
    Subtype: SUBTYPES[kind],
    Rect: rect,
    C: [...color],
    F: 4,
    NM: PDFString.of(group === null ? remark.id : `${remark.id}-${words.length}`),
    T: PDFHexString.fromText(author),
    Contents: PDFHexString.fromText(group === null ? remark.text : ''),
    CreationDate: PDFString.fromDate(at),
    M: PDFString.fromDate(at),
    P: page.ref,
    ...(remark.criterion === undefined ? {} : { Subj: PDFHexString.fromText(remark.criterion) }),
    ...(kind === 'note' ? { Name: 'Note' } : {}),
    ...(kind === 'box' ? { DA: PDFString.of(`/Helv ${BOX.size} Tf 0.2 0.2 0.2 rg`) } : {}),
    ...(kind === 'ink' ? { InkList: strokes } : {}),
    ...(group === null ? {} : { IRT: group, RT: 'Group' }),
    ...(BESIDE.has(kind) || kind === 'circle' ? {} : { QuadPoints: marked.quads }),
  });
  const drawn = appearance(document, { kind, color, rect, quads: marked.quads, strokes, lines, font });
  dict.set(PDFName.of('AP'), document.context.obj({ N: drawn }));
  const ref = document.context.register(dict);
  page.node.addAnnot(ref);
  return ref;
}

function rectOf(kind: MarkKind, quads: readonly number[], top: number, lines: number): number[] {
  const x = PAGE.width - PAGE.right + 14;
  switch (kind) {
    case 'note':
      return [x, top - 16, x + 16, top];
    case 'box':
      return [x - 8, top - lines * BOX.leading - 2 * BOX.inset, x - 8 + BOX.width, top];
    case 'ink':
      return [PAGE.left - 30, top - 34, PAGE.left - 6, top + 2];
    case 'circle': {
      const [left, bottom, right, upper] = boundsOf(quads);
      return [left - 5, bottom - 3, right + 5, upper + 3];
    }
    case 'highlight':
    case 'underline':
    case 'squiggly':
    case 'strikeout':
      return boundsOf(quads);
  }
}

/** A tick in the margin, as a hand makes it. */
function inkStroke([left, bottom, right, top]: readonly number[]): number[] {
  const at = (x: number, y: number) => [left + (right - left) * x, bottom + (top - bottom) * y];
  return [at(0.08, 0.5), at(0.2, 0.36), at(0.34, 0.12), at(0.5, 0.4), at(0.72, 0.75), at(0.94, 0.96)].flat();
}

function boundsOf(quads: readonly number[]): number[] {
  const xs = quads.filter((_, i) => i % 2 === 0);
  const ys = quads.filter((_, i) => i % 2 === 1);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}

interface Drawing {
  readonly kind: MarkKind;
  readonly color: readonly [number, number, number];
  readonly rect: readonly number[];
  readonly quads: readonly number[];
  readonly strokes: readonly (readonly number[])[];
  readonly lines: readonly { readonly text: string }[];
  readonly font: PDFFont;
}

/** How far a Bezier curve's handles lie from a quarter of a circle's ends, as a share of its radius. */
const ROUND = 0.5523;

function shapesOf({ kind, rect, quads, strokes, lines, font }: Drawing): string[] {
  const [x, y, right, top] = rect;
  const shapes: string[] = [];
  if (kind === 'note') {
    // A leaf with a turned corner and two lines.
    shapes.push(
      `1 0.98 0.92 rg ${x + 1} ${y + 1} m ${x + 1} ${y + 15} l ${x + 10} ${y + 15} l ${x + 15} ${y + 10} l`,
      `${x + 15} ${y + 1} l h B ${x + 10} ${y + 15} m ${x + 10} ${y + 10} l ${x + 15} ${y + 10} l S`,
      `${x + 4} ${y + 7} m ${x + 12} ${y + 7} l S ${x + 4} ${y + 4} m ${x + 10} ${y + 4} l S`,
    );
  }
  if (kind === 'box') {
    shapes.push(`1 1 0.97 rg 0.6 w ${x} ${y} ${right - x} ${top - y} re B`);
    shapes.push(`BT /F0 ${BOX.size} Tf 0.2 0.2 0.2 rg ${BOX.leading} TL ${x + BOX.inset} ${top - 1} Td`);
    for (const { text } of lines) shapes.push(`T* ${font.encodeText(text).toString()} Tj`);
    shapes.push('ET');
  }
  if (kind === 'circle') {
    const [cx, cy, rx, ry] = [(x + right) / 2, (y + top) / 2, (right - x) / 2 - 1, (top - y) / 2 - 1];
    const [kx, ky] = [rx * ROUND, ry * ROUND];
    shapes.push(
      `${cx - rx} ${cy} m ${cx - rx} ${cy + ky} ${cx - kx} ${cy + ry} ${cx} ${cy + ry} c`,
      `${cx + kx} ${cy + ry} ${cx + rx} ${cy + ky} ${cx + rx} ${cy} c`,
      `${cx + rx} ${cy - ky} ${cx + kx} ${cy - ry} ${cx} ${cy - ry} c`,
      `${cx - kx} ${cy - ry} ${cx - rx} ${cy - ky} ${cx - rx} ${cy} c S`,
    );
  }
  for (const stroke of strokes) {
    const points = stroke.flatMap((value, i) => (i % 2 === 0 ? [`${value} ${stroke[i + 1]}`] : []));
    shapes.push(`1.6 w ${points[0]} m ${points.slice(1).join(' l ')} l S`);
  }
  if (BESIDE.has(kind) || kind === 'circle') return shapes;
  for (let i = 0; i < quads.length; i += 8) {
    const [left, upper, end, , , bottom] = quads.slice(i, i + 6);
    if (kind === 'highlight') shapes.push(`${left} ${bottom} ${end - left} ${upper - bottom} re f`);
    else if (kind === 'squiggly') shapes.push(wave(left, end, bottom + 1));
    else {
      const line = kind === 'underline' ? bottom + 1 : (upper + bottom) / 2;
      shapes.push(`${left} ${line} m ${end} ${line} l S`);
    }
  }
  return shapes;
}

function wave(from: number, to: number, y: number): string {
  const points: string[] = [];
  for (let x = from, up = true; x < to; x += 3, up = !up) points.push(`${x} ${y + (up ? 1.2 : -1.2)}`);
  return `${points[0]} m ${points.slice(1).join(' l ')} l S`;
}

function appearance(document: PDFDocument, drawing: Drawing): PDFRef {
  const [r, g, b] = drawing.color;
  const isHighlight = drawing.kind === 'highlight';
  const draw = [`/G0 gs ${r} ${g} ${b} ${isHighlight ? 'rg' : 'RG'} 1.1 w`, ...shapesOf(drawing)];
  return document.context.register(
    document.context.stream(draw.join('\n'), {
      Type: 'XObject',
      Subtype: 'Form',
      BBox: [...drawing.rect],
      Resources: {
        ExtGState: { G0: { BM: isHighlight ? 'Multiply' : 'Normal' } },
        ...(drawing.kind === 'box' ? { Font: { F0: drawing.font.ref } } : {}),
      },
    }),
  );
}

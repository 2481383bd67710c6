import { createCanvas, loadImage } from '@napi-rs/canvas';
import { imageSize } from 'image-size';
import { readFileSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { basename, dirname, extname, join } from 'node:path';
import { asId, AssignmentId, AttemptId, FileHash, MarkingId } from '#core/model/ids.ts';
import type { Change, Remark } from '#core/model/remark.ts';
import { annotatedCopy, type CopyWords } from '#formats/annotated/annotated-copy.ts';
import { groundOf, type Ground, type UprightPicture } from '#formats/annotated/ground.ts';
import type { RemarkOut } from '#formats/annotated/remark-out.ts';
import { writeRemarksCsv, type RemarkColumns } from '#formats/annotated/remarks-table.ts';
import { writeAnnotatedPdf } from '#formats/annotated/write-annotated-pdf.ts';
import type { Anchor, Mark, MarkedPaper } from '#formats/marked-paper.ts';
import { fontsBy } from '#formats/pdf/font-files.ts';
import { drawingOn } from '#formats/pdf/draw-text.ts';
import { unlockPdf } from '#formats/pdf/unlock.ts';
import { layOutPdf, type PdfFonts, type PdfToWrite } from '#formats/pdf/write-pdf.ts';
import { readRemarksOnto } from '#formats/place-remarks.ts';
import { readPaper } from '#formats/read-paper.ts';
import { remarksOfMarks } from '#formats/remarks.ts';
import { writeRemarksAsAnnotations } from '#formats/web-annotation/write-remarks.ts';
import { writeXfdf } from '#formats/xfdf/write-xfdf.ts';
import { bytesOf } from './inspect.ts';

/** A marked file as another format (docs/command-line.md). */

/** The formats that are written, by the ending of the file. */
const EXPORTS = ['.pdf', '.jsonld', '.xfdf', '.csv'] as const;

/** A call that asks for something there is none of; its message is for whoever called. */
export class UnknownExport extends Error {}

const LANGUAGE = 'en-GB';

const words: CopyWords = {
  list: 'Remarks',
  head: (remark, page) =>
    [...(page === null ? [] : [`page ${page}`]), remark.author, dayOf(remark.at)]
      .filter((part) => part !== '')
      .join(' · '),
  reply: ({ author, text }) => (author === '' ? text : `${author}: ${text}`),
  link: ({ number, text }) => `${number} ${text.slice(0, 80)}`.trim(),
  criterion: 'Criterion',
  state: 'State',
  byPage: 'Remarks by page',
  page: (number) => `Page ${number}`,
  onNoPage: 'On no page',
  byCriterion: 'Remarks by criterion',
  noCriterion: 'No criterion',
};

const columns: RemarkColumns = {
  number: 'Number',
  page: 'Page',
  words: 'Words',
  remark: 'Remark',
  author: 'Author',
  at: 'Written',
  kind: 'Kind',
  color: 'Colour',
  criterion: 'Criterion',
  state: 'State',
  replies: 'Answers',
};

function dayOf(at: string | null): string {
  return at === null ? '' : at.slice(0, 10);
}

/**
 * Writes a marked file as PDF, Web Annotation, XFDF or CSV, by the ending of `out`.
 * @param remarksFile remarks in a file of their own that are put onto the paper too; null for none
 * @throws UnreadableFile, UnknownExport, or the error of the file system
 */
export async function exportMarked(
  path: string,
  { remarksFile, password, now }: { remarksFile: string | null; password: string | null; now: Date },
  out: string,
): Promise<{ readonly remarks: number; readonly out: string }> {
  const ending = extname(out).toLowerCase();
  if (!(EXPORTS as readonly string[]).includes(ending))
    throw new UnknownExport(
      `${ending || 'a file without an ending'} is not written; end it in ${EXPORTS.join(', ')}`,
    );
  const given = await bytesOf(path);
  const bytes = password === null ? new Uint8Array(given) : await unlockPdf(given, password);
  const paper = await readPaper(bytes, null);
  const added =
    remarksFile === null ? [] : await readRemarksOnto(await bytesOf(remarksFile), { bytes, paper }, null);
  const { remarks, anchors } = remarksIn([...paper.marks, ...added]);
  const going = remarks.map((remark, index) =>
    outOf(remark, index, paper.kind === 'pdf' && index < paper.marks.length),
  );
  await writeFile(out, await written(ending, path, { bytes, paper, remarks, anchors, going, now, out }));
  return { remarks: going.length, out };
}

interface Exported {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly paper: MarkedPaper;
  readonly remarks: readonly Remark[];
  readonly anchors: Readonly<Record<string, Anchor>>;
  readonly going: readonly RemarkOut[];
  readonly now: Date;
  readonly out: string;
}

async function written(ending: string, path: string, of: Exported): Promise<Uint8Array | string> {
  const { paper, anchors, going } = of;
  const source = basename(path);
  if (ending === '.csv') return writeRemarksCsv(going, columns);
  if (ending === '.jsonld')
    return writeRemarksAsAnnotations(going, { source, pages: paper.pages, spans: anchors });
  const about = { title: source, language: LANGUAGE, at: of.now.toISOString() };
  const fonts = pdfFonts();
  const ground = await groundOf(
    { bytes: of.bytes, paper, about, uprightPicture },
    of.remarks,
    anchors,
    fonts,
    null,
  );
  const cover = coverOf(source, going, ground);
  if (ending === '.pdf')
    return writeAnnotatedPdf(ground, annotatedCopy(ground, about, cover, going, words), fonts);
  if (paper.kind === 'pdf') return writeXfdf(source, going, ground.places);
  // A paper without pages has those of the PDF that is written of it, which begins with its cover.
  const { pages } = await layOutPdf({ ...about, blocks: cover, numbered: false }, fonts);
  const places = new Map(
    [...ground.places].map(
      ([id, own]) => [id, own.map((place) => ({ ...place, page: place.page + pages }))] as const,
    ),
  );
  return writeXfdf(`${basename(of.out, ending)}.pdf`, going, places);
}

function coverOf(source: string, remarks: readonly RemarkOut[], ground: Ground): PdfToWrite['blocks'] {
  const onPages = remarks.filter(({ id }) => ground.places.has(id)).length;
  const line = (text: string) => [{ text, bold: false, italic: false }];
  return [
    { kind: 'heading', level: 1, runs: line(source) },
    {
      kind: 'facts',
      rows: [
        ['Remarks', String(remarks.length)],
        ['On the pages', String(onPages)],
        ['In the list alone', String(remarks.length - onPages)],
      ],
    },
    {
      kind: 'paragraph',
      level: 0,
      runs: line('A number on a page leads to its remark in the list behind the paper, and from there back.'),
    },
  ];
}

/** Marks as remarks of nobody's assignment, with ids as short as their files have them. */
function remarksIn(marks: readonly Mark[]): { remarks: Remark[]; anchors: Record<string, Anchor> } {
  const nothing = asId(FileHash, '0'.repeat(64));
  const { remarks, anchors } = remarksOfMarks(marks, {
    assignmentId: asId(AssignmentId, 'file'),
    attemptId: asId(AttemptId, 'file'),
    markingId: asId(MarkingId, 'file'),
    fileHash: nothing,
    paperHash: nothing,
    marker: null,
    channel: 'passage',
    people: [],
    rubric: null,
  });
  return { remarks, anchors };
}

function outOf(remark: Remark, index: number, isInPaper: boolean): RemarkOut {
  const { id, kind, author, at, color, text, targets, change, state, replies } = remark;
  const reply = (one: Remark['replies'][number]): RemarkOut['replies'][number] => ({
    author: one.author.name,
    at: one.at,
    text: one.text,
    replies: one.replies.map(reply),
  });
  return {
    id,
    number: index + 1,
    kind,
    author: author.name,
    byMachine: author.role === 'machine',
    at,
    color,
    text,
    criterion: null,
    targets,
    proposes: proposalOf(change),
    state,
    replies: replies.map(reply),
    isInPaper,
    own: [],
  };
}

function proposalOf(change: Change | null): string {
  switch (change?.kind) {
    case undefined:
    case 'format':
      return '';
    case 'insertion':
      return `put in: ${change.after}`;
    case 'deletion':
      return `take out: ${change.before}`;
    case 'move':
      return `move: ${change.before || change.after}`;
  }
}

function pdfFonts(): PdfFonts {
  const folder = dirname(createRequire(import.meta.url).resolve('@fontsource/literata/package.json'));
  const draw = drawingOn((width, height) => {
    const canvas = createCanvas(width, height);
    return {
      pen: canvas.getContext('2d'),
      png: () => new Uint8Array(canvas.toBuffer('image/png')),
    };
  });
  return { ...fontsBy((file) => new Uint8Array(readFileSync(join(folder, file)))), draw };
}

/** A picture as it stands where a PDF can hold it so; others are drawn anew, upright. */
async function uprightPicture(bytes: Uint8Array<ArrayBuffer>): Promise<UprightPicture> {
  const { type, orientation = 1, ...size } = imageSize(bytes);
  if ((type === 'png' || type === 'jpg') && orientation === 1) return { bytes, ...size };
  const image = await loadImage(bytes);
  const canvas = createCanvas(image.width, image.height);
  canvas.getContext('2d').drawImage(image, 0, 0);
  return { bytes: new Uint8Array(canvas.toBuffer('image/png')), width: image.width, height: image.height };
}

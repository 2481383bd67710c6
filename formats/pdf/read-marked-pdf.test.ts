import { PDFDocument, PDFString, StandardFonts, type PDFPage } from '@cantoo/pdf-lib';
import { PDFWorker } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { expect, it } from 'vitest';
import { quotedWords } from '#core/model/remark.ts';
import { boundsOf } from './bounds.ts';
import type { PdfAssets } from './open-pdf.ts';
import { readMarkedPdf } from './read-marked-pdf.ts';

interface Highlight {
  readonly name: string;
  readonly says: string;
  /** left, bottom, right, top of each piece. */
  readonly pieces: readonly (readonly [number, number, number, number])[];
}

function highlightOn(page: PDFPage, { name, says, pieces }: Highlight): void {
  const { context } = page.doc;
  const quads = pieces.flatMap(([left, bottom, right, top]) => [
    ...[left, top, right, top],
    ...[left, bottom, right, bottom],
  ]);
  const annotation = {
    Type: 'Annot',
    Subtype: 'Highlight',
    Rect: boundsOf(quads),
    QuadPoints: quads,
    T: PDFString.of('Dr Aune Keld'),
    NM: PDFString.of(name),
    Contents: PDFString.of(says),
  };
  page.node.addAnnot(context.register(context.obj(annotation)));
}

/** Pages with a line and a highlight each. */
async function longPaper(pages: number): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.TimesRoman);
  for (let number = 1; number <= pages; number++) {
    const page = document.addPage([400, 500]);
    page.drawText(`Well ${number} stood at ${number * 3} centimetres.`, { x: 50, y: 400, size: 12, font });
    highlightOn(page, {
      name: `well-${number}`,
      says: `Which month is well ${number}?`,
      pieces: [[50, 397, 50 + font.widthOfTextAtSize(`Well ${number}`, 12), 411]],
    });
  }
  return document.save();
}

const folder = (name: string) => `${import.meta.dirname}/../../node_modules/pdfjs-dist/${name}/`;

function withThreads(threads: NonNullable<PdfAssets['threads']>): PdfAssets {
  return {
    cMapUrl: folder('cmaps'),
    standardFontDataUrl: folder('standard_fonts'),
    wasmUrl: folder('wasm'),
    iccUrl: folder('iccs'),
    threads,
  };
}

it('reads a long paper in several threads as in one, page after page', async () => {
  const bytes = await longPaper(31);
  const told: number[] = [];
  const threads = [new PDFWorker({ verbosity: 0 }), new PDFWorker({ verbosity: 0 })];
  let used = 0;
  const given = threads.map((thread) => () => {
    used++;
    return thread;
  });
  const inTwo = await readMarkedPdf(bytes, withThreads(given), {
    progress: (done) => told.push(done),
  });
  threads.forEach((thread) => thread.destroy());
  expect(used).toBe(2);
  expect(told).toEqual(Array.from({ length: 31 }, (_, i) => i + 1));
  expect(inTwo.marks.map(({ sourceId }) => sourceId)).toEqual(told.map((number) => `well-${number}`));
  const last = inTwo.marks[30].targets[0];
  expect(last.kind === 'words' && last.quote.exact).toBe('Well 31');
  expect(inTwo).toEqual(await readMarkedPdf(bytes, null));
});

it('leaves further threads alone for a short paper', async () => {
  const thread = new PDFWorker({ verbosity: 0 });
  const second = () => {
    throw new Error('a second thread was started');
  };
  const read = await readMarkedPdf(await longPaper(3), withThreads([() => thread, second]));
  thread.destroy();
  expect(read.marks).toHaveLength(3);
});

it('tells the places of one mark apart that lie on words apart, and joins the lines of a passage', async () => {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.TimesRoman);
  const page = document.addPage([400, 500]);
  const lines = [
    'The first well was dry in May.',
    'The second well held water',
    'and the third well held ice.',
  ];
  lines.forEach((text, i) => page.drawText(text, { x: 50, y: 400 - i * 16, size: 12, font }));
  const piece = (line: number, from: string, words: string): [number, number, number, number] => {
    const left = 50 + font.widthOfTextAtSize(from, 12);
    return [left, 397 - line * 16, left + font.widthOfTextAtSize(words, 12), 411 - line * 16];
  };
  const [may, second, third] = [
    piece(0, 'The first well was dry in ', 'May'),
    piece(1, 'The second ', 'well held water'),
    piece(2, '', 'and the third well'),
  ];
  const says = 'Say which year.';
  highlightOn(page, { name: 'apart', says, pieces: [may, second, third] });
  highlightOn(page, { name: 'one', says, pieces: [second, third] });
  const { marks, paper } = await readMarkedPdf(await document.save(), null);
  const found = marks.map(({ targets, anchor }) => ({
    quote: quotedWords({ targets }),
    places: targets.length,
    anchored: anchor === null ? '' : paper.text.slice(anchor.from, anchor.to),
  }));
  expect(found).toEqual([
    { quote: 'May … well held water and the third well', places: 2, anchored: 'May' },
    {
      quote: 'well held water and the third well',
      places: 1,
      anchored: 'well held water and the third well',
    },
  ]);
  const [first, rest] = marks[0].targets;
  expect(first.kind === 'words' && first.quads).toHaveLength(1);
  expect(first.kind === 'words' && first.rect?.map(Math.round)).toEqual(may.map(Math.round));
  expect(rest.kind === 'words' && rest.quads).toHaveLength(2);
});

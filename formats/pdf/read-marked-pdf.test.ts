import { PDFArray, PDFDocument, PDFName, PDFString, StandardFonts } from '@cantoo/pdf-lib';
import { PDFWorker } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { expect, it } from 'vitest';
import type { PdfAssets } from './open-pdf.ts';
import { readMarkedPdf } from './read-marked-pdf.ts';

/** Pages with a line and a highlight each. */
async function longPaper(pages: number): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.TimesRoman);
  for (let number = 1; number <= pages; number++) {
    const page = document.addPage([400, 500]);
    page.drawText(`Well ${number} stood at ${number * 3} centimetres.`, { x: 50, y: 400, size: 12, font });
    const right = 50 + font.widthOfTextAtSize(`Well ${number}`, 12);
    const highlight = document.context.register(
      document.context.obj({
        Type: 'Annot',
        Subtype: 'Highlight',
        Rect: [50, 397, right, 411],
        QuadPoints: [50, 411, right, 411, 50, 397, right, 397],
        T: PDFString.of('Dr Aune Keld'),
        NM: PDFString.of(`well-${number}`),
        Contents: PDFString.of(`Which month is well ${number}?`),
      }),
    );
    const list = PDFArray.withContext(document.context);
    list.push(highlight);
    page.node.set(PDFName.of('Annots'), list);
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

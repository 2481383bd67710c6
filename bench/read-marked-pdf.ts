import { PDFArray, PDFDocument, PDFName, PDFString, StandardFonts } from '@cantoo/pdf-lib';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import reportMarkdown from '#demo/papers/skarn-moss-report.md?raw';
import { readMarkedPdf } from '#formats/pdf/read-marked-pdf.ts';

/**
 * Reading a marked PDF of 300 pages with 2,000 remarks: our reader beside pdf.js alone reading the text and the
 * annotations of the same file. Runs are interleaved; memory is the peak of a process of its own for each.
 */

const PAGES = 300;
const REMARKS = 2000;
const RUNS = Number(process.env.RUNS ?? 5);

/** A long paper out of the demo report's sentences, with highlights over whole lines, notes and answers. */
async function largePdf(): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.TimesRoman);
  const words = reportMarkdown
    .replace(/^#+ /gm, '')
    .replace(/[^\x20-\x7e]+/g, ' ')
    .split(/\s+/);
  let next = 0;
  for (let number = 0; number < PAGES; number++) {
    const page = document.addPage([595, 842]);
    const lines = Array.from({ length: 44 }, () =>
      Array.from({ length: 12 }, () => words[next++ % words.length]).join(' '),
    );
    lines.forEach((line, i) => page.drawText(line, { x: 70, y: 770 - i * 16, size: 10, font }));
    const list = PDFArray.withContext(document.context);
    const count = Math.floor((REMARKS * (number + 1)) / PAGES) - Math.floor((REMARKS * number) / PAGES);
    for (let i = 0; i < count; i++) {
      const [y, width] = [770 - i * 80, font.widthOfTextAtSize(lines[i * 5], 10)];
      const isNote = i % 4 === 3;
      const annotation = {
        Type: 'Annot',
        Subtype: isNote ? 'Text' : 'Highlight',
        Rect: isNote ? [20, y - 4, 40, y + 16] : [70, y - 3, 70 + width, y + 9],
        ...(!isNote && { QuadPoints: [70, y + 9, 70 + width, y + 9, 70, y - 3, 70 + width, y - 3] }),
        C: [0.96, 0.85, 0.25],
        T: PDFString.of('Dr Aune Keld'),
        NM: PDFString.of(`bench-${number}-${i}`),
        Contents: PDFString.of(`Remark ${number}.${i}: say what the wells show here, and for which season.`),
        CreationDate: PDFString.of('D:20260302091500Z'),
      };
      list.push(document.context.register(document.context.obj(annotation)));
    }
    page.node.set(PDFName.of('Annots'), list);
  }
  return document.save();
}

async function ours(bytes: Uint8Array): Promise<number> {
  return (await readMarkedPdf(bytes, null)).marks.length;
}

async function peer(bytes: Uint8Array): Promise<number> {
  const document = await getDocument({ data: bytes.slice(), verbosity: 0 }).promise;
  let count = 0;
  for (let number = 1; number <= document.numPages; number++) {
    const page = await document.getPage(number);
    await page.getTextContent();
    count += (await page.getAnnotations()).length;
    page.cleanup();
  }
  await document.loadingTask.destroy();
  return count;
}

const READERS = { ours, peer };

function median(values: readonly number[]): number {
  return values.toSorted((x, y) => x - y)[Math.floor(values.length / 2)];
}

const only = process.argv[2] as keyof typeof READERS | undefined;
if (only !== undefined) {
  await READERS[only](await largePdf());
  process.stdout.write(String(process.resourceUsage().maxRSS));
} else {
  const bytes = await largePdf();
  const times: Record<keyof typeof READERS, number[]> = { ours: [], peer: [] };
  for (let run = 0; run <= RUNS; run++)
    for (const name of ['ours', 'peer'] as const) {
      const startedAt = performance.now();
      const count = await READERS[name](bytes);
      if (count !== REMARKS) throw new Error(`${name} found ${count} of ${REMARKS}`);
      // The first round warms up.
      if (run > 0) times[name].push(performance.now() - startedAt);
    }
  const peak = (name: string) =>
    Number(spawnSync(process.execPath, [fileURLToPath(import.meta.url), name], { encoding: 'utf8' }).stdout) /
    1024;
  const [a, b] = [median(times.ours), median(times.peer)];
  console.log(
    `a marked PDF of ${PAGES} pages with ${REMARKS} remarks, ${(bytes.length / 1e6).toFixed(1)} MB; median of ${RUNS}`,
  );
  console.log(`  our reader            ${(a / 1000).toFixed(2)} s, peak ${peak('ours').toFixed(0)} MB`);
  console.log(`  pdf.js, text + marks  ${(b / 1000).toFixed(2)} s, peak ${peak('peer').toFixed(0)} MB`);
  console.log(`  ratio                 ${(a / b).toFixed(2)}`);
}

import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { readMarkedPdf } from '#formats/pdf/read-marked-pdf.ts';
import { largePdf } from './large-pdf.ts';

/**
 * Reading a marked PDF of 300 pages with 2,000 remarks: our reader beside pdf.js alone reading the text and the
 * annotations of the same file. Runs are interleaved; memory is the peak of a process of its own for each.
 */

const PAGES = 300;
const REMARKS = 2000;
const RUNS = Number(process.env.RUNS ?? 5);

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
  await READERS[only](await largePdf(PAGES, REMARKS));
  process.stdout.write(String(process.resourceUsage().maxRSS));
} else {
  const bytes = await largePdf(PAGES, REMARKS);
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

import { PDFDocument } from '@cantoo/pdf-lib';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { asId, AssignmentId, AttemptId, FileHash, MarkingId } from '#core/model/ids.ts';
import { annotatedCopy } from '#formats/annotated/annotated-copy.ts';
import { groundOf } from '#formats/annotated/ground.ts';
import type { RemarkOut } from '#formats/annotated/remark-out.ts';
import { writeAnnotatedPdf } from '#formats/annotated/write-annotated-pdf.ts';
import { fontsBy } from '#formats/pdf/font-files.ts';
import { readMarkedPdf } from '#formats/pdf/read-marked-pdf.ts';
import { remarksOfMarks } from '#formats/remarks.ts';
import { largePdf } from './large-pdf.ts';

/**
 * Writing a paper of 300 pages with 2,000 remarks that came in a file of their own: annotations, numbers, the list, links and
 * bookmarks. The lower bound is opening the bare paper and saving it again by the same library.
 */

const PAGES = 300;
const REMARKS = 2000;
const RUNS = Number(process.env.RUNS ?? 5);

const fonts = fontsBy(
  (file) => new Uint8Array(readFileSync(join('node_modules', '@fontsource', 'literata', file))),
);
const marked = await readMarkedPdf(await largePdf(PAGES, REMARKS), null);
const bare = new Uint8Array(await largePdf(PAGES, 0));
const nothing = asId(FileHash, '0'.repeat(64));
const { remarks, anchors } = remarksOfMarks(marked.marks, {
  assignmentId: asId(AssignmentId, 'a'),
  attemptId: asId(AttemptId, 'a'),
  markingId: asId(MarkingId, 'a'),
  fileHash: nothing,
  paperHash: nothing,
  marker: null,
  channel: 'passage',
  people: [],
  rubric: null,
});
const going = remarks.map((remark, index): RemarkOut => ({
  ...remark,
  number: index + 1,
  author: remark.author.name,
  byMachine: false,
  criterion: null,
  proposes: '',
  replies: [],
  isInPaper: false,
  own: [['Decision', 'Act']],
}));
const about = { title: 'A long paper', language: 'en-GB', at: '2026-11-02T10:00:00.000Z' };
const line = (text: string) => [{ text, bold: false, italic: false }];

async function ours(): Promise<number> {
  const uprightPicture = () => Promise.reject(new Error('no picture'));
  const ground = await groundOf(
    { bytes: bare, paper: marked, about, uprightPicture },
    remarks,
    anchors,
    fonts,
    null,
  );
  const copy = annotatedCopy(
    ground,
    about,
    [{ kind: 'heading', level: 1, runs: line('A long paper') }],
    going,
    {
      list: 'Remarks',
      head: ({ author }, page) => `page ${page ?? ''} · ${author}`,
      reply: ({ text }) => text,
      link: ({ number, text }) => `${number} ${text}`,
      criterion: 'Criterion',
      state: 'State',
      byPage: 'By page',
      page: (number) => `Page ${number}`,
      onNoPage: 'On no page',
      byCriterion: 'By criterion',
      noCriterion: 'None',
    },
  );
  return (await writeAnnotatedPdf(ground, copy, fonts)).length;
}

async function bound(): Promise<number> {
  const document = await PDFDocument.load(bare, { updateMetadata: false });
  return (await document.save({ addDefaultPage: false })).length;
}

function median(values: readonly number[]): number {
  return values.toSorted((x, y) => x - y)[Math.floor(values.length / 2)];
}

const times = { ours: [] as number[], bound: [] as number[] };
let size = 0;
for (let run = 0; run <= RUNS; run++)
  for (const [name, work] of [
    ['ours', ours],
    ['bound', bound],
  ] as const) {
    const startedAt = performance.now();
    const written = await work();
    if (name === 'ours') size = written;
    // The first round warms up.
    if (run > 0) times[name].push(performance.now() - startedAt);
  }
const [a, b] = [median(times.ours), median(times.bound)];
console.log(
  `exporting ${PAGES} pages with ${REMARKS} remarks (${(size / 1e6).toFixed(1)} MB): ${(a / 1000).toFixed(1)} s of at most 20; ` +
    `opening and saving the bare paper ${(b / 1000).toFixed(1)} s (${(a / b).toFixed(1)} ×); median of ${RUNS}`,
);

import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { asId, AssignmentId, AttemptId, FileHash, MarkingId } from '#core/model/ids.ts';
import { pageOf, quotedWords, type Remark } from '#core/model/remark.ts';
import type { Mark, MarkedPaper } from '../marked-paper.ts';
import { fontsBy } from '../pdf/font-files.ts';
import { openPdf } from '../pdf/open-pdf.ts';
import { readMarkedPdf } from '../pdf/read-marked-pdf.ts';
import { writePdf } from '../pdf/write-pdf.ts';
import { readRemarksOnto } from '../place-remarks.ts';
import { readPaper } from '../read-paper.ts';
import { sample } from '../samples/sample.ts';
import { remarksOfMarks } from '../remarks.ts';
import { writeRemarksAsAnnotations } from '../web-annotation/write-remarks.ts';
import { writeXfdf } from '../xfdf/write-xfdf.ts';
import { annotatedCopy, type CopyWords } from './annotated-copy.ts';
import { groundOf, type Ground } from './ground.ts';
import { marksAdded } from './own-copy.ts';
import type { RemarkOut } from './remark-out.ts';
import { writeRemarksCsv } from './remarks-table.ts';
import { writeAnnotatedPdf } from './write-annotated-pdf.ts';

const fonts = fontsBy(
  (file) => new Uint8Array(readFileSync(join('node_modules/@fontsource/literata', file))),
);
const about = { title: 'A paper', language: 'en-GB', at: '2026-11-02T10:00:00.000Z' };
const words: CopyWords = {
  list: 'Remarks',
  head: (remark) => `page ${pageOf(remark) ?? '–'} · ${remark.author}`,
  reply: ({ author, text }) => `${author}: ${text}`,
  link: ({ number }) => `Remark ${number}`,
  criterion: 'Criterion',
  state: 'State',
  byPage: 'By page',
  page: (number) => `Page ${number}`,
  onNoPage: 'On no page',
  byCriterion: 'By criterion',
  noCriterion: 'None',
};
const line = (text: string) => [{ text, bold: false, italic: false }];
const cover = [{ kind: 'heading' as const, level: 1, runs: line('A paper') }];
const noPicture = () => Promise.reject(new Error('no picture'));

function remarksIn(marks: readonly Mark[]) {
  const hash = asId(FileHash, 'a'.repeat(64));
  return remarksOfMarks(marks, {
    assignmentId: asId(AssignmentId, 'a'),
    attemptId: asId(AttemptId, 'a-1'),
    markingId: asId(MarkingId, 'm'),
    fileHash: hash,
    paperHash: hash,
    marker: null,
    channel: 'passage',
    people: [],
    rubric: null,
  });
}

function outOf(remark: Remark, index: number, isInPaper = false): RemarkOut {
  const reply = (one: Remark['replies'][number]): RemarkOut['replies'][number] => ({
    author: one.author.name,
    at: one.at,
    text: one.text,
    replies: one.replies.map(reply),
  });
  return {
    ...remark,
    author: remark.author.name,
    byMachine: false,
    number: index + 1,
    criterion: null,
    proposes: '',
    replies: remark.replies.map(reply),
    isInPaper,
    own: [],
  };
}

/** What a remark says and about what, whatever file it stands in. */
const told = (marks: readonly Mark[]) =>
  marks.map((mark) => {
    const reply = ({ author, at, text, replies }: Mark['replies'][number]): unknown => [
      author,
      at,
      text,
      replies.map(reply),
    ];
    return {
      author: mark.author,
      at: mark.at,
      text: mark.text,
      exact: quotedWords(mark)?.replaceAll(' … ', ' ') ?? null,
      replies: mark.replies.map(reply),
    };
  });

async function exported(
  path: string,
): Promise<{ paper: MarkedPaper; bytes: Uint8Array; ground: Ground; going: RemarkOut[] }> {
  const bytes = new Uint8Array(readFileSync(path));
  const paper = await readPaper(bytes, null);
  const { remarks, anchors } = remarksIn(paper.marks);
  const going = remarks.map((remark, index) => outOf(remark, index, paper.kind === 'pdf'));
  const ground = await groundOf(
    { bytes, paper, about, uprightPicture: noPicture },
    remarks,
    anchors,
    fonts,
    null,
  );
  return {
    paper,
    bytes: await writeAnnotatedPdf(ground, annotatedCopy(ground, about, cover, going, words), fonts),
    ground,
    going,
  };
}

describe('a paper with its remarks, as one PDF', () => {
  it.each(['same.docx', 'same.odt', 'nested.docx', 'nested.odt', 'dams-changed.docx'])(
    'has every remark of %s on its words, for our own reader too',
    async (name) => {
      const { paper, bytes, ground } = await exported(join('formats/samples', name));
      const again = await readMarkedPdf(bytes, null);
      const placed = paper.marks.filter((_, index) => ground.places.has(idsOf(paper.marks)[index]));
      expect(placed.length).toBeGreaterThan(0);
      const said = (marks: readonly Mark[]) =>
        told(marks)
          .map((one) => ({ ...one, exact: bare(one.exact ?? '') }))
          .sort(byText);
      const texts = said(again.marks);
      for (const mark of said(placed.filter(({ targets, change }) => change === null && isOnWords(targets))))
        expect(texts).toContainEqual(mark);
      expect(again.marks).toHaveLength(placed.length);
    },
  );

  it.each(['same.pdf', 'kinds.pdf', 'transects-turned.pdf', 'sideways.pdf', 'dams-notes.pdf'])(
    'holds all that another program finds in %s',
    async (name) => {
      const { bytes, going, ground } = await exported(join('formats/samples', name));
      const before = annotationsByQpdf(sample(name));
      const after = annotationsByQpdf(bytes);
      for (const one of before) expect(after).toContainEqual(one);
      // A number for each place on a page, and from each of these entries a way back.
      const links = after.length - before.length;
      expect(links).toBeGreaterThanOrEqual(2 * going.filter(({ id }) => ground.places.has(id)).length);
    },
  );

  it.each(['same.docx', 'nested.odt'])('is what another program reads of %s', async (name) => {
    const { bytes, going } = await exported(join('formats/samples', name));
    const found = annotationsByQpdf(bytes).filter(({ kind }) => kind !== '/Link');
    const replies = (list: RemarkOut['replies']): RemarkOut['replies'] =>
      list.flatMap((reply) => [reply, ...replies(reply.replies)]);
    const said = [...going, ...going.flatMap((remark) => replies(remark.replies))];
    expect(found.map(({ contents, author }) => [contents, author]).sort()).toEqual(
      said.map(({ text, author }) => [text, author]).sort(),
    );
    for (const { contents, kind } of found)
      if (going.some(({ text }) => text === contents)) expect(kind).toBe('/Highlight');
  });

  it('leaves the marks of a PDF as they were, and numbers and lists them', async () => {
    const { paper, bytes, going } = await exported('formats/samples/kinds.pdf');
    const again = await readMarkedPdf(bytes, null);
    expect(told(again.marks)).toEqual(told(paper.marks));
    const [list] = again.paper.text.split('\n').slice(-1);
    expect(list).toBeDefined();
    for (const { text } of going.filter((one) => one.text !== ''))
      expect(bare(again.paper.text)).toContain(bare(text));
  });

  it('leads from each number to its entry and back, and has bookmarks, title, language and structure', async () => {
    const { bytes, going } = await exported('formats/samples/same.docx');
    const pdf = await openPdf(bytes, null);
    const { info } = await pdf.getMetadata();
    expect(info).toMatchObject({ Title: 'A paper', Language: 'en-GB' });
    expect(await pdf.getPageLabels()).toEqual(['i', '1', 'R1']);
    const outline = (await pdf.getOutline()) as { title: string; items: { items: unknown[] }[] }[];
    expect(outline.map(({ title }) => title)).toEqual(['By page', 'By criterion']);
    expect(outline[0].items.flatMap(({ items }) => items)).toHaveLength(going.length);
    const linksOn = async (page: number) =>
      ((await (await pdf.getPage(page)).getAnnotations()) as { subtype: string; dest: unknown[] }[]).filter(
        ({ subtype }) => subtype === 'Link',
      );
    const index = async ({ dest: [ref] }: { dest: unknown[] }) => pdf.getPageIndex(ref as never);
    for (const link of await linksOn(2)) expect(await index(link)).toBe(2);
    for (const link of await linksOn(3)) expect(await index(link)).toBe(1);
    expect(await linksOn(3)).toHaveLength(going.length);
    for (const page of [1, 2, 3])
      expect(JSON.stringify(await (await pdf.getPage(page)).getStructTree())).toContain(
        '"role":"P"'.slice(0, 7),
      );
    expect(await pdf.getMarkInfo()).toMatchObject({ Marked: true });
    await pdf.destroy();
  });

  it('keeps the words of the page as they were, numbers and all', async () => {
    const { bytes, paper } = await exported('formats/samples/same.docx');
    const again = await readMarkedPdf(bytes, null);
    expect(bare(again.paper.text)).toContain(bare(paper.paper.text.split('\n')[1]));
  });
});

const bare = (text: string) => text.normalize('NFKC').replace(/[\s\u00ad-]/g, '');
const byText = (x: { text: string }, y: { text: string }) => (x.text < y.text ? -1 : 1);
const isOnWords = (targets: Mark['targets']) =>
  targets.every((target) => target.kind === 'words' && target.quote.exact !== '');
const idsOf = (marks: readonly Mark[]) => remarksIn(marks).remarks.map(({ id }) => id);

interface Found {
  readonly kind: string;
  readonly contents: string;
  readonly author: string;
}

/** The annotations of a PDF as qpdf (Debian) tells them; it finds nothing wrong with the file. */
function annotationsByQpdf(bytes: Uint8Array): Found[] {
  const file = join(folder, 'exported.pdf');
  writeFileSync(file, bytes);
  expect(execFileSync('qpdf', ['--check', file], { encoding: 'utf8' })).toContain('No syntax or stream');
  const json = execFileSync('qpdf', ['--json', '--json-key=qpdf', file], {
    encoding: 'utf8',
    maxBuffer: 100_000_000,
  });
  const [, objects] = (JSON.parse(json) as { qpdf: [unknown, Record<string, { value?: unknown }>] }).qpdf;
  const dicts = (value: unknown): Record<string, unknown>[] =>
    typeof value !== 'object' || value === null
      ? []
      : [value as Record<string, unknown>, ...Object.values(value).flatMap(dicts)];
  const text = (value: unknown) =>
    typeof value !== 'string'
      ? ''
      : value.startsWith('b:')
        ? Buffer.from(value.slice(2), 'hex').toString('latin1')
        : value.replace(/^u:/, '');
  return dicts(objects).flatMap((dict): Found[] => {
    if (!('/Rect' in dict) || !('/Subtype' in dict)) return [];
    return [{ kind: text(dict['/Subtype']), contents: text(dict['/Contents']), author: text(dict['/T']) }];
  });
}

let folder = '';
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'juncture-annotated-'));
});
afterAll(() => {
  rmSync(folder, { recursive: true });
});

describe('remarks in a file of their own', () => {
  it.each(['same.pdf', 'transects-turned.pdf', 'dams-notes.pdf'])(
    'come back from XFDF and Web Annotation as they went, onto %s',
    async (name) => {
      const bytes = sample(name);
      const paper = await readPaper(bytes, null);
      const { remarks, anchors } = remarksIn(paper.marks);
      const going = remarks.map((remark, index) => outOf(remark, index));
      const ground = await groundOf(
        { bytes, paper, about, uprightPicture: noPicture },
        remarks,
        anchors,
        fonts,
        null,
      );
      const back = (file: Uint8Array) => readRemarksOnto(file, { bytes, paper }, null);
      const said = (marks: readonly Mark[]) =>
        told(marks).map((one) => ({ ...one, exact: bare(one.exact ?? '') }));
      expect(said(await back(writeXfdf(name, going, ground.places)))).toEqual(said(paper.marks));
      const web = await back(
        writeRemarksAsAnnotations(going, { source: name, pages: paper.pages, spans: anchors }),
      );
      expect(said(web)).toEqual(said(paper.marks));
      for (const [index, { targets }] of web.entries())
        expect(pageOf({ targets })).toBe(pageOf(paper.marks[index]));
    },
  );

  it('hold texts of any script', async () => {
    const bytes = await writePdf(
      { ...about, blocks: [{ kind: 'paragraph', level: 0, runs: line('The dams leak.') }] },
      fonts,
    );
    const paper = await readPaper(bytes, null);
    const text = fc
      .string({ unit: 'binary', minLength: 1, maxLength: 40 })
      .map((given) => given.replace(/[^\P{Cc}]|\p{Cs}|[\ufffe\uffff\r]/gu, '').trim())
      .filter((given) => given !== '');
    await fc.assert(
      fc.asyncProperty(text, text, async (said, author) => {
        const [remark] = remarksIn([
          {
            sourceId: 'n',
            kind: 'highlight',
            author,
            byMachine: false,
            at: null,
            color: '#aabbcc',
            text: said,
            subject: null,
            targets: [
              {
                kind: 'words',
                page: 1,
                quads: [[56, 780, 140, 780, 56, 760, 140, 760]],
                rect: [56, 760, 140, 780],
                quote: { exact: 'The dams leak.', prefix: '', suffix: '' },
              },
            ],
            anchor: { from: 0, to: 14, exactly: true },
            replies: [],
            state: null,
            change: null,
          },
        ]).remarks;
        const going = [outOf(remark, 0)];
        const places = new Map([
          [
            remark.id,
            [
              {
                page: 0,
                rect: [56, 760, 140, 780],
                quads: [[56, 780, 140, 780, 56, 760, 140, 760]],
                shape: [],
              },
            ],
          ],
        ]);
        const ground = { bytes: new Uint8Array(bytes), places };
        for (const file of [
          writeXfdf('a.pdf', going, places),
          writeRemarksAsAnnotations(going, { source: 'a.pdf', pages: paper.pages, spans: {} }),
        ]) {
          const [mark] = await readRemarksOnto(file, { bytes, paper }, null);
          expect([mark.text, mark.author]).toEqual([said, author]);
        }
        const again = await readMarkedPdf(
          await writeAnnotatedPdf(ground, annotatedCopy(ground, about, cover, going, words), fonts),
          null,
        );
        expect(again.marks.map((mark) => [mark.text, mark.author])).toEqual([[said, author]]);
      }),
      { numRuns: 12 },
    );
  });

  it('stand in a table that a spreadsheet does not reckon', async () => {
    const { going } = await exported('formats/samples/same.docx');
    const columns = {
      number: 'No.',
      page: 'Page',
      words: 'Words',
      remark: 'Remark',
      author: 'Author',
      at: 'At',
      kind: 'Kind',
      color: 'Colour',
      criterion: 'Criterion',
      state: 'State',
      replies: 'Answers',
    };
    const [first] = going;
    const csv = writeRemarksCsv([{ ...first, text: '=1+1', own: [['Decision', 'act']] }], columns);
    expect(csv.split('\r\n')[0]).toBe(`${Object.values(columns).join(',')},Decision`);
    expect(csv).toContain("'=1+1");
    expect(csv).toContain(',act');
  });
});

describe('a copy that a tutor wrote on with other programs', () => {
  it('gives what is new, once, and who wrote it is a tutor', async () => {
    const known = remarksIn((await readPaper(sample('same.docx'), null)).marks).remarks;
    const copy = await readPaper(sample('tutored.pdf'), null);
    expect(copy.isOwnCopy).toBe(true);
    const added = marksAdded(copy.marks, known);
    expect(added.map(({ author, text }) => [author, text])).toEqual([
      ['Oriel Fane', 'He wants the numbers of the planks.'],
      ['Oriel Fane', 'Start your answer here: these two are the story.'],
      ['Oriel Fane', 'Come again with the table filled in.'],
    ]);
    expect(quotedWords(added[1])).toBe('two leaking');
    // Given back again, with the first time's remarks known, nothing is new.
    const taken = remarksIn(added).remarks;
    expect(marksAdded(copy.marks, [...known, ...taken])).toEqual([]);
  });

  it('is told from papers that others wrote', async () => {
    for (const name of ['same.pdf', 'kinds.pdf']) {
      const paper = await readPaper(sample(name), null);
      expect(paper.isOwnCopy).toBe(false);
    }
  });
});

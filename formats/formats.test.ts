import { strToU8, zipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readBag, writeBag } from './bag/bag.ts';
import { readDocx } from './docx/read-docx.ts';
import { writeDraftDocx } from './docx/write-draft.ts';
import { readMarkedPdf } from './pdf/read-marked-pdf.ts';
import { UnreadableFile, type UnreadableReason } from './unreadable.ts';

const sample = (name: string) =>
  new Uint8Array(readFileSync(new URL(`./pdf/samples/${name}`, import.meta.url)));

async function reasonOf(work: () => unknown): Promise<UnreadableReason | 'read'> {
  try {
    await work();
    return 'read';
  } catch (error) {
    if (error instanceof UnreadableFile) return error.reason;
    throw error;
  }
}

describe('a PDF from elsewhere', () => {
  it('is read though nobody marked it', async () => {
    const pdf = await readMarkedPdf(sample('unmarked.pdf'), null);
    expect(pdf.marks).toEqual([]);
    expect(pdf.paper.blocks.map((b) => [b.kind, b.text])).toEqual([
      ['heading', 'A locked page'],
      ['paragraph', 'Nobody reads this without the password.'],
    ]);
  });

  it('says in one word why it can’t be read', async () => {
    const whole = sample('unmarked.pdf');
    expect(await reasonOf(() => readMarkedPdf(new Uint8Array(), null))).toBe('empty');
    expect(await reasonOf(() => readMarkedPdf(strToU8('a letter, not a PDF'), null))).toBe('not a PDF');
    expect(await reasonOf(() => readMarkedPdf(sample('locked.pdf'), null))).toBe('locked PDF');
    expect(await reasonOf(() => readMarkedPdf(strToU8('%PDF-1.7\nand then nothing of the kind'), null))).toBe(
      'damaged PDF',
    );
    expect(await reasonOf(() => readMarkedPdf(whole.slice(0, 900), null))).toBe('damaged PDF');
  });

  it('never throws anything else, whatever bytes follow the header', async () => {
    const whole = sample('unmarked.pdf');
    await fc.assert(
      fc.asyncProperty(
        fc.nat({ max: whole.length - 1 }),
        fc.uint8Array({ maxLength: 64 }),
        async (at, noise) => {
          const broken = whole.slice();
          broken.set(noise.subarray(0, broken.length - at), at);
          await reasonOf(() => readMarkedPdf(broken, null));
        },
      ),
      { numRuns: 40 },
    );
  });
});

const plain = (text: string) => ({ text, bold: false, italic: false });

describe('Word files', () => {
  it('come back as they were written: headings, lists, paragraphs', async () => {
    const bytes = await writeDraftDocx(
      [
        { kind: 'heading', level: 1, runs: [plain('Rewetting & after')] },
        { kind: 'heading', level: 2, runs: [plain('Results')] },
        {
          kind: 'paragraph',
          level: 0,
          runs: [plain('The mean rose '), { text: '<fast>', bold: true, italic: false }],
        },
        { kind: 'item', level: 0, runs: [plain('peat')] },
      ],
      'Report',
      new Map(),
    );
    expect(readDocx(bytes)).toEqual({
      blocks: [
        { kind: 'heading', level: 1, text: 'Rewetting & after' },
        { kind: 'heading', level: 2, text: 'Results' },
        { kind: 'paragraph', level: 0, text: 'The mean rose <fast>' },
        { kind: 'item', level: 0, text: 'peat' },
      ],
      pages: null,
    });
  });

  const word = (body: string, more: Record<string, Uint8Array> = {}) =>
    zipSync({ 'word/document.xml': strToU8(`<w:document><w:body>${body}</w:body></w:document>`), ...more });

  it('are read with tracked changes accepted', () => {
    const body =
      '<w:p><w:r><w:t>kept </w:t></w:r><w:del><w:r><w:delText>out</w:delText></w:r></w:del><w:ins><w:r><w:t>in</w:t></w:r></w:ins></w:p>';
    expect(readDocx(word(body)).blocks[0].text).toBe('kept in');
  });

  it('tell their pages where they state them', () => {
    expect(readDocx(word('<w:p/>', { 'docProps/app.xml': strToU8('<P><Pages>7</Pages></P>') })).pages).toBe(
      7,
    );
  });

  it('say why they can’t be read', async () => {
    const entities = '<!DOCTYPE x [<!ENTITY a "aaaa">]><w:document>&a;</w:document>';
    const cases: [Uint8Array, UnreadableReason][] = [
      [new Uint8Array(), 'empty'],
      [strToU8('plain text'), 'not a Word file'],
      [strToU8('PK and no more'), 'damaged Word file'],
      [zipSync({ 'other.xml': strToU8('<x/>') }), 'not a Word file'],
      [zipSync({ 'word/document.xml': strToU8('<w:document><w:p>') }), 'damaged Word file'],
      [zipSync({ 'word/document.xml': strToU8(entities) }), 'damaged Word file'],
      [zipSync({ '../outside.xml': strToU8('<x/>') }), 'archive too large'],
      [zipSync({ 'word/document.xml': [new Uint8Array(40_000_000), { level: 9 }] }), 'archive too large'],
    ];
    for (const [bytes, reason] of cases) expect(await reasonOf(() => readDocx(bytes))).toBe(reason);
  });
});

describe('bags', () => {
  const payload = fc.dictionary(
    fc.stringMatching(/^[a-z]{1,8}\.(json|pdf)$/),
    fc.uint8Array({ maxLength: 200 }).map((bytes) => new Uint8Array(bytes)),
    { minKeys: 1, maxKeys: 5, noNullPrototype: true },
  );

  it('come back byte by byte', async () => {
    await fc.assert(
      fc.asyncProperty(payload, async (given) => {
        expect(await readBag(await writeBag('bag', given, '2026-11-02'))).toEqual(given);
      }),
      { numRuns: 30 },
    );
  });

  it('are refused when a byte of a file changed, naming the file', async () => {
    const files = {
      'files/report.pdf': new Uint8Array([1, 2, 3, 4, 5, 6, 7, 8]),
      'workspace.json': strToU8('{}'),
    };
    const zip = await writeBag('bag', files, '2026-11-02');
    const at = zip.findIndex(
      (_, i) => zip[i] === 1 && zip[i + 1] === 2 && zip[i + 2] === 3 && zip[i + 3] === 4,
    );
    zip[at + 4] ^= 0xff;
    await expect(readBag(zip)).rejects.toMatchObject({
      reason: 'damaged backup',
      detail: 'files/report.pdf',
    });
  });

  it('are refused when a file is missing, and when one is too many', async () => {
    const manifest = strToU8(`${'0'.repeat(64)}  data/gone.pdf\n`);
    const bagit = strToU8('BagIt-Version: 1.0\n');
    const missing = zipSync({ 'b/bagit.txt': bagit, 'b/manifest-sha256.txt': manifest });
    await expect(readBag(missing)).rejects.toMatchObject({ reason: 'damaged backup', detail: 'gone.pdf' });
    const extra = zipSync({
      'b/bagit.txt': bagit,
      'b/manifest-sha256.txt': strToU8(''),
      'b/data/x': strToU8('x'),
    });
    await expect(readBag(extra)).rejects.toMatchObject({ reason: 'damaged backup', detail: 'data/x' });
    await expect(readBag(strToU8('text'))).rejects.toMatchObject({ reason: 'not a backup' });
  });
});

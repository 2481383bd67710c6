import { decodePDFRawStream, PDFDict, PDFDocument, PDFName, PDFRawStream } from '@cantoo/pdf-lib';
import fc from 'fast-check';
import { PNG } from 'pngjs';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { openPdf } from './open-pdf.ts';
import { readMarkedPdf } from './read-marked-pdf.ts';
import { fontsBy } from './font-files.ts';
import { layOutPdf, writePdf, type PdfToWrite } from './write-pdf.ts';

const fonts = fontsBy((file) => new Uint8Array(readFileSync(`node_modules/@fontsource/literata/${file}`)));

const line = (text: string) => [{ text, bold: false, italic: false }];
const paragraph = (text: string) => ({ kind: 'paragraph' as const, level: 0, runs: line(text) });
const about = { title: 'A sheet', language: 'en-GB', at: '2026-11-02T10:00:00.000Z' };
const written = (...blocks: PdfToWrite['blocks']) => writePdf({ ...about, blocks }, fonts);
const textOf = async (bytes: Uint8Array) => (await readMarkedPdf(bytes, null)).paper.text;
const squeezed = (text: string) => text.replace(/[\s-]+/g, '');

describe('a PDF that is laid out', () => {
  it('has its title, its language and a structure, and embeds each font it uses', async () => {
    const bytes = await written(
      { kind: 'heading', level: 1, runs: line('Receipt') },
      paragraph('Łódź, Привет, δ13C'),
      { kind: 'item', level: 0, runs: [{ text: 'bold', bold: true, italic: false }] },
      { kind: 'facts', rows: [['Size', '12 bytes']] },
      { kind: 'table', columns: [{ title: 'Remark', share: 1 }], rows: [[['one']]] },
    );
    const pdf = await openPdf(bytes, null);
    const { info } = await pdf.getMetadata();
    expect(info).toMatchObject({ Title: 'A sheet', Language: 'en-GB' });
    expect(await pdf.getMarkInfo()).toMatchObject({ Marked: true });
    const tree = JSON.stringify(await (await pdf.getPage(1)).getStructTree());
    for (const role of ['H1', 'P', 'L', 'LI', 'LBody', 'Table', 'TR', 'TH', 'TD'])
      expect(tree).toContain(`"role":"${role}"`);
    await pdf.destroy();
    const raw = await PDFDocument.load(bytes);
    const dicts = raw.context.enumerateIndirectObjects().map(([, object]) => object);
    const descriptors = dicts.filter(
      (one): one is PDFDict =>
        one instanceof PDFDict && one.get(PDFName.of('Type')) === PDFName.of('FontDescriptor'),
    );
    expect(descriptors.length).toBeGreaterThanOrEqual(5);
    for (const one of descriptors) {
      const file = one.get(PDFName.of('FontFile2')) ?? one.get(PDFName.of('FontFile3'));
      expect(raw.context.lookup(file)).toBeInstanceOf(PDFRawStream);
    }
    const text = await textOf(bytes);
    for (const word of ['Receipt', 'Łódź', 'Привет', 'δ13C', 'bold', '12 bytes', 'one'])
      expect(text).toContain(word);
  });

  it('has words that no font has drawn, with what they say', async () => {
    const picture = new PNG({ width: 4, height: 4 });
    const asked: string[] = [];
    const draw = (text: string) => {
      asked.push(text);
      return { bytes: new Uint8Array(PNG.sync.write(picture)), height: 12 };
    };
    const { bytes, places } = await layOutPdf(
      {
        ...about,
        blocks: [
          paragraph('The dams leak.'),
          {
            kind: 'paragraph',
            level: 0,
            runs: [{ text: '为什么？', bold: false, italic: false, keys: ['why'] }],
          },
        ],
      },
      { ...fonts, draw },
    );
    expect(new Set(asked)).toEqual(new Set(['为什么？']));
    expect(places.get('why')).toHaveLength(1);
    const raw = await PDFDocument.load(bytes);
    const said = raw.context
      .enumerateIndirectObjects()
      .flatMap(([, object]) =>
        object instanceof PDFRawStream
          ? [new TextDecoder('latin1').decode(decodePDFRawStream(object).decode())]
          : [],
      );
    const utf16 = Array.from('为什么？', (one) => {
      const code = one.charCodeAt(0);
      return String.fromCharCode(code >> 8, code & 255);
    }).join('');
    expect(said.some((content) => content.includes('/ActualText') && content.includes(utf16))).toBe(true);
    // Without a pen they are written as what they are not.
    expect(await textOf(await written(paragraph('为什么？')))).toContain('?');
  });

  it('is the same bytes for the same content', async () => {
    const once = await written(paragraph('The same.'));
    expect(await written(paragraph('The same.'))).toEqual(once);
  });

  it('goes on over pages, with the head of a table on each and the pages numbered', async () => {
    const rows = Array.from({ length: 90 }, (_, n) => [
      [`Remark ${n}`],
      [`It was done, ${'well '.repeat(n % 9)}.`],
    ]);
    const columns = [
      { title: 'Asked', share: 0.5 },
      { title: 'Done', share: 0.5 },
    ];
    const bytes = await written({ kind: 'table', columns, rows });
    const pdf = await openPdf(bytes, null);
    expect(pdf.numPages).toBeGreaterThan(3);
    const { numPages } = pdf;
    for (let page = 1; page <= numPages; page++) {
      const { items } = await (await pdf.getPage(page)).getTextContent();
      const words = items.map((item) => ('str' in item ? item.str : '')).join(' ');
      expect(words).toContain('Asked');
      expect(words).toContain(`${page} / ${numPages}`);
    }
    await pdf.destroy();
    const text = await textOf(bytes);
    for (let n = 0; n < 90; n++) expect(text).toContain(`Remark ${n}`);
  });

  it('loses no text, however long a cell or a paragraph is', async () => {
    const long = Array.from({ length: 1500 }, (_, n) => `word${n}`);
    const bytes = await written(
      { kind: 'facts', rows: [['Note', long.join(' ')]] },
      paragraph(long.join(' ').replaceAll('word', 'term')),
      paragraph('The end.'),
    );
    const text = squeezed(await textOf(bytes));
    for (const word of long) expect(text).toContain(word);
    expect(text).toContain('term1499');
    expect(text).toContain(squeezed('The end.'));
  });

  it('holds any text in the fonts’ alphabets', async () => {
    const letters = fc.stringMatching(/^[A-Za-zÀ-žА-яα-ω0-9.,;:()“”–]{1,12}$/u);
    await fc.assert(
      fc.asyncProperty(fc.array(letters, { minLength: 1, maxLength: 30 }), async (list) => {
        const text = list.join(' ');
        const read = squeezed((await textOf(await written(paragraph(text)))).normalize('NFC'));
        expect(read).toBe(squeezed(text.normalize('NFC')));
      }),
      { numRuns: 15, seed: 7 },
    );
  });

  it('writes a question mark for what no font has, and an empty sheet for nothing', async () => {
    expect(await textOf(await written(paragraph('one 漢 two')))).toContain('one ? two');
    const empty = await openPdf(await written(), null);
    expect(empty.numPages).toBe(1);
    await empty.destroy();
  });

  it('gives each picture a page, upright or across as it is, with what a screen reader says', async () => {
    const picture = (width: number, height: number) => {
      const bytes = new Uint8Array(PNG.sync.write(new PNG({ width, height })));
      return { kind: 'picture page' as const, bytes, width, height, alt: `${width} wide` };
    };
    const bytes = await written(picture(30, 60), picture(60, 30), paragraph('After them.'));
    const pdf = await openPdf(bytes, null);
    expect(pdf.numPages).toBe(3);
    const across = [];
    for (const page of [1, 2, 3]) {
      const { width, height } = (await pdf.getPage(page)).getViewport({ scale: 1 });
      across.push(width > height);
    }
    expect(across).toEqual([false, true, false]);
    const tree = JSON.stringify(await (await pdf.getPage(2)).getStructTree());
    expect(tree).toContain('"role":"Figure"');
    expect(tree).toContain('60 wide');
    await pdf.destroy();
  });
});

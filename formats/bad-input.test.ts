import { strToU8, zipSync } from 'fflate';
import { PDFArray, PDFDocument, PDFName, PDFString, type PDFRef } from '@cantoo/pdf-lib';
import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import type { MarkReply } from './marked-paper.ts';
import { readMarkedDocx } from './docx/read-marked-docx.ts';
import { readMarkedOdt } from './odt/read-marked-odt.ts';
import { readMarkedPdf } from './pdf/read-marked-pdf.ts';
import { readPaper } from './read-paper.ts';
import { recogniseNamed } from './recognise.ts';
import { LayoutWriter } from './text/layout-writer.ts';
import { sample } from './samples/sample.ts';
import { repliesTo } from './threads.ts';
import { MOST_FILE_BYTES, UnreadableFile } from './unreadable.ts';
import { readWebAnnotations } from './web-annotation/read-web-annotation.ts';
import { readXfdf } from './xfdf/read-xfdf.ts';

async function reasonOf(work: () => unknown): Promise<string> {
  try {
    await work();
    return 'read';
  } catch (error) {
    if (error instanceof UnreadableFile) return error.reason;
    throw error;
  }
}

const DEPTH = 20_000;
const nested = (open: string, close: string, inside: string) =>
  open.repeat(DEPTH) + inside + close.repeat(DEPTH);
const word = (body: string, more: Record<string, Uint8Array> = {}) =>
  zipSync({
    'word/document.xml': strToU8(`<w:document xmlns:w="w"><w:body>${body}</w:body></w:document>`),
    ...more,
  });
const odt = (body: string) =>
  zipSync({
    mimetype: [strToU8('application/vnd.oasis.opendocument.text'), { level: 0 }],
    'content.xml': strToU8(
      `<office:document-content><office:body><office:text>${body}</office:text></office:body></office:document-content>`,
    ),
  });
const depthOf = (replies: readonly MarkReply[]): number =>
  replies.length === 0 ? 0 : 1 + Math.max(...replies.map((reply) => depthOf(reply.replies)));
const countOf = (replies: readonly MarkReply[]): number =>
  replies.reduce((sum, reply) => sum + 1 + countOf(reply.replies), 0);

describe('files that are made to break their readers', () => {
  it('are refused where they are larger than 300 MB, before anything is read', async () => {
    const huge = new Uint8Array(MOST_FILE_BYTES + 1);
    huge.set(strToU8('%PDF-1.7'));
    expect(await reasonOf(() => readPaper(huge, null))).toBe('too large');
    huge.set(strToU8('PK\x03\x04'));
    expect(await reasonOf(() => readMarkedDocx(huge))).toBe('too large');
    expect(await reasonOf(() => readMarkedOdt(huge))).toBe('too large');
  });

  it('are refused where they only claim to be what their name says', () => {
    const reason = (text: string, name: string) => reasonOf(() => recogniseNamed(strToU8(text), name));
    return expect(
      Promise.all([
        reason('Dear Ines', 'letter.pdf'),
        reason('<!doctype html>', 'report.docx'),
        reason('\x01\x00\x02', 'report.odt'),
        reason('%PDF-1.7', 'really-a.docx'),
      ]),
    ).resolves.toEqual(['not a PDF', 'not a Word file', 'not an OpenDocument text', 'read']);
  });

  it('are damaged, or not known any more, where they are cut off, at any place', async () => {
    const expected = {
      'dams.docx': ['damaged Word file', 'unknown kind', 'not a Word file'],
      'dams.odt': ['damaged OpenDocument text', 'unknown kind', 'not an OpenDocument text'],
      // Its size stands at the beginning, and a viewer shows as much of it as came.
      'core.png': ['read', 'damaged picture', 'unknown kind'],
      // A PDF says at its end where its parts are; a reader that looks for them itself may still find them.
      'transects.pdf': ['read', 'damaged PDF', 'unknown kind'],
    };
    for (const [name, outcomes] of Object.entries(expected)) {
      const whole = sample(name);
      await fc.assert(
        fc.asyncProperty(fc.integer({ min: 4, max: whole.length - 1 }), async (length) => {
          expect(outcomes).toContain(await reasonOf(() => readPaper(whole.slice(0, length), null)));
        }),
        { numRuns: name.endsWith('.pdf') ? 12 : 40 },
      );
    }
  });

  it('are never blamed for a fault of the reader itself', async () => {
    const broken = vi.spyOn(LayoutWriter.prototype, 'append').mockImplementation(() => {
      throw new TypeError('a fault put in for a try');
    });
    try {
      for (const name of ['dams.docx', 'dams.odt'])
        await expect(readPaper(sample(name), null)).rejects.toThrow(TypeError);
    } finally {
      broken.mockRestore();
    }
  });

  it('may have noise anywhere: they are read or refused, and nothing else happens', async () => {
    const refusals: Readonly<Record<string, readonly string[]>> = {
      'dams-changed.docx': ['damaged Word file', 'not a Word file', 'archive too large'],
      'dams-changed.odt': ['damaged OpenDocument text', 'not an OpenDocument text', 'archive too large'],
      'kinds.pdf': ['damaged PDF', 'locked PDF', 'too many pages'],
      'same.xfdf': ['damaged remarks'],
      'same.jsonld': ['damaged remarks', 'no remarks'],
    };
    for (const name of Object.keys(refusals)) {
      const whole = sample(name);
      await fc.assert(
        fc.asyncProperty(
          fc.nat(whole.length - 1),
          fc.uint8Array({ minLength: 1, maxLength: 40 }),
          async (at, noise) => {
            const broken = whole.slice();
            broken.set(noise.subarray(0, broken.length - at), at);
            const outcome = await reasonOf(() =>
              name.endsWith('xfdf')
                ? readXfdf(broken)
                : name.endsWith('jsonld')
                  ? readWebAnnotations(broken)
                  : readPaper(broken, null),
            );
            expect(['read', 'unknown kind', ...refusals[name]]).toContain(outcome);
          },
        ),
        { numRuns: name.endsWith('.pdf') ? 15 : 80 },
      );
    }
  });

  it('are refused where they nest 20,000 levels deep', async () => {
    expect(
      await reasonOf(() => readMarkedDocx(word(nested('<w:tbl><w:tr><w:tc>', '</w:tc></w:tr></w:tbl>', '')))),
    ).toBe('damaged Word file');
    expect(await reasonOf(() => readMarkedOdt(odt(nested('<text:list>', '</text:list>', ''))))).toBe(
      'damaged OpenDocument text',
    );
    expect(
      await reasonOf(() =>
        readXfdf(strToU8(`<xfdf><annots>${nested('<text>', '</text>', '')}</annots></xfdf>`)),
      ),
    ).toBe('damaged remarks');
    expect(await reasonOf(() => readWebAnnotations(strToU8(nested('[', ']', ''))))).toMatch(
      /no remarks|damaged remarks/,
    );
    const refined = nested('{"type":"FragmentSelector","value":"x","refinedBy":', '}', 'null');
    const annotation = `{"type":"Annotation","target":{"source":"x","selector":${refined}}}`;
    expect(await reasonOf(() => readWebAnnotations(strToU8(annotation)))).toMatch(/read|damaged remarks/);
  });

  it('may not bring entities of their own', async () => {
    const entities = '<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]>';
    const outside = '<!DOCTYPE x [<!ENTITY f SYSTEM "file:///etc/passwd">]>';
    for (const declared of [entities, outside]) {
      const bytes = zipSync({
        'word/document.xml': strToU8(`${declared}<w:document><w:p><w:t>&b;&f;</w:t></w:p></w:document>`),
      });
      expect(await reasonOf(() => readMarkedDocx(bytes))).toBe('damaged Word file');
      expect(await reasonOf(() => readXfdf(strToU8(`${declared}<xfdf><annots/></xfdf>`)))).toBe(
        'damaged remarks',
      );
    }
  });

  it('may not expand without end', async () => {
    const bomb = zipSync({ 'word/document.xml': [new Uint8Array(60_000_000), { level: 9 }] });
    expect(await reasonOf(() => readMarkedDocx(bomb))).toBe('archive too large');
    const inOdt = zipSync({ 'content.xml': [new Uint8Array(60_000_000), { level: 9 }] });
    expect(await reasonOf(() => readMarkedOdt(inOdt))).toBe('archive too large');
    const spaces = odt('<text:p>a<text:s text:c="2000000000"/>b</text:p>');
    expect(readMarkedOdt(spaces).paper.text).toBe('a b');
  });
});

describe('remarks', () => {
  it('with HTML in them are text, to the letter', () => {
    const html = '<img src=x onerror=alert(1)><script>alert(2)</script>';
    const escaped = html.replaceAll('<', '&lt;').replaceAll('>', '&gt;');
    const comments = `<w:comments><w:comment w:id="0" w:author="${escaped}"><w:p><w:r><w:t>${escaped}</w:t></w:r></w:p></w:comment></w:comments>`;
    const body =
      '<w:p><w:commentRangeStart w:id="0"/><w:r><w:t>peat</w:t></w:r><w:commentRangeEnd w:id="0"/></w:p>';
    const [mark] = readMarkedDocx(word(body, { 'word/comments.xml': strToU8(comments) })).marks;
    expect([mark.text, mark.author]).toEqual([html, html]);
  });

  it('that answer one another in a circle are told once each', () => {
    const at = null;
    const circle = [
      { id: 'a', answers: 'c', author: 'A', at, text: 'a' },
      { id: 'b', answers: 'a', author: 'B', at, text: 'b' },
      { id: 'c', answers: 'b', author: 'C', at, text: 'c' },
    ];
    expect(countOf(repliesTo('a', circle))).toBe(2);
    expect(countOf(repliesTo('elsewhere', circle))).toBe(0);
  });

  it('answered 20,000 levels deep keep every answer, and are nested no deeper than can be shown', () => {
    const chain = Array.from({ length: DEPTH }, (_, i) => ({
      id: String(i + 1),
      answers: String(i),
      author: 'A',
      at: null,
      text: String(i),
    }));
    const replies = repliesTo('0', chain);
    expect(countOf(replies)).toBe(DEPTH);
    expect(depthOf(replies)).toBeLessThan(100);
  });

  it('of a PDF that answer in a circle are remarks of their own, and its scripts are never run', async () => {
    const document = await PDFDocument.create();
    const page = document.addPage([200, 200]);
    document.catalog.set(
      PDFName.of('OpenAction'),
      document.context.obj({ S: 'JavaScript', JS: PDFString.of('globalThis.ranScript = true') }),
    );
    const note = (text: string) =>
      document.context.obj({
        Type: 'Annot',
        Subtype: 'Text',
        Rect: [10, 10, 30, 30],
        T: PDFString.of('A'),
        Contents: PDFString.of(text),
      });
    const [one, two] = [note('one'), note('two')];
    const refs: PDFRef[] = [one, two].map((dict) => document.context.register(dict));
    one.set(PDFName.of('IRT'), refs[1]);
    two.set(PDFName.of('IRT'), refs[0]);
    const list = PDFArray.withContext(document.context);
    for (const ref of refs) list.push(ref);
    page.node.set(PDFName.of('Annots'), list);
    const { marks } = await readMarkedPdf(await document.save(), null);
    expect(marks.map(({ text, replies }) => [text, replies])).toEqual([
      ['one', []],
      ['two', []],
    ]);
    expect('ranScript' in globalThis).toBe(false);
  });
});

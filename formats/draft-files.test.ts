import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { DraftContent } from '#core/model/work.ts';
import { paperOfDraft, richBlocksOf, type RichBlock, type Run } from '#core/paper/draft.ts';
import { writeDraftDocx } from './docx/write-draft.ts';
import { readAsDraft } from './read-as-draft.ts';
import { readMarkedDocx } from './docx/read-marked-docx.ts';
import { drawWithCanvas } from './samples/draw.ts';
import { sample } from './samples/sample.ts';
import { writtenDraft } from './samples/written-draft.ts';
import { writeMarkdown } from './text/write-markdown.ts';

/** Drafts as files and files as drafts. */

type Json = Record<string, unknown>;
const text = (said: string, ...marks: string[]): Json => ({
  type: 'text',
  text: said,
  ...(marks.length === 0 ? {} : { marks: marks.map((type) => ({ type })) }),
});
const paragraph = (...content: Json[]): Json => ({ type: 'paragraph', content });
const draft = (...content: Json[]) => ({ schema: 1 as const, doc: { type: 'doc', content } });

const runs = fc
  .array(
    fc.tuple(
      fc.constantFrom('peat', 'a dam & a ditch', 'H<2>O', 'naïve «mot»', '0.5 m'),
      fc.subarray(['bold', 'italic']),
      fc.constantFrom(null, 'superscript', 'subscript'),
    ),
    { minLength: 1, maxLength: 4 },
  )
  .map((list) =>
    list.map(([said, looks, script], index) =>
      // Runs of one look beside one another are one run.
      text(index === 0 ? said : ` ${index} ${said}`, ...looks, ...(script === null ? [] : [script])),
    ),
  );
const block = fc.oneof(
  runs.map((content) => paragraph(...content)),
  fc.tuple(fc.integer({ min: 1, max: 4 }), runs).map(([level, content]) => ({
    type: 'heading',
    attrs: { level },
    content: content.map(({ text: said }) => text(String(said))),
  })),
  fc.tuple(fc.boolean(), fc.array(runs, { minLength: 1, maxLength: 3 })).map(([ordered, items]) => ({
    type: ordered ? 'orderedList' : 'bulletList',
    content: items.map((content) => ({ type: 'listItem', content: [paragraph(...content)] })),
  })),
  fc.array(fc.array(runs, { minLength: 2, maxLength: 2 }), { minLength: 2, maxLength: 3 }).map((rows) => ({
    type: 'table',
    content: rows.map((cells, row) => ({
      type: 'tableRow',
      content: cells.map((content) => ({
        type: row === 0 ? 'tableHeader' : 'tableCell',
        content: [paragraph(...content)],
      })),
    })),
  })),
);

/** Blocks as they are compared: lists by their order, runs of one look joined. */
function told(blocks: readonly RichBlock[]): unknown[] {
  return blocks.map((one) => {
    if (one.kind === 'rows')
      return one.rows.map((row) => row.map(({ isHead, blocks: own }) => [isHead, told(own)]));
    if (one.kind === 'picture') return ['picture', one.alt, one.width, one.height];
    const joined: Run[] = [];
    for (const run of one.runs) {
      const { text: said, ...look } = run;
      const last = joined.at(-1);
      const lastLook = last === undefined ? null : { ...last, text: undefined };
      if (last !== undefined && JSON.stringify(lastLook) === JSON.stringify({ ...look, text: undefined }))
        joined[joined.length - 1] = { ...last, text: last.text + said };
      else joined.push(run);
    }
    return [one.kind, one.level, one.kind === 'item' && one.list?.ordered, joined];
  });
}

describe('a draft as a Word file', () => {
  it('is read back the same: looks, headings, lists, tables', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(block, { minLength: 1, maxLength: 5 }), async (content) => {
        // Lists of one kind beside one another are one.
        const apart = content.flatMap((one) => [one, paragraph(text('between'))]);
        const given = richBlocksOf(draft(...apart));
        const bytes = await writeDraftDocx(given, 'Draft', new Map());
        const { content: back, notHeld } = await readAsDraft(bytes, null, null);
        const kept = told(richBlocksOf(back));
        expect(kept).toEqual(told(given));
        expect(notHeld).toEqual([]);
        expect(paperOfDraft(back).text).toBe(paperOfDraft(draft(...apart)).text);
      }),
      { numRuns: 25 },
    );
  });

  it('keeps lists in lists, footnotes, links, and pictures with their captions', async () => {
    const png = sample('core.png');
    const hash = 'a'.repeat(64);
    const given = draft(
      {
        type: 'bulletList',
        content: [
          {
            type: 'listItem',
            content: [
              paragraph(text('outer')),
              {
                type: 'orderedList',
                content: [
                  { type: 'listItem', content: [paragraph(text('inner one'))] },
                  { type: 'listItem', content: [paragraph(text('inner two'))] },
                ],
              },
            ],
          },
          { type: 'listItem', content: [paragraph(text('outer again'))] },
        ],
      },
      paragraph(
        text('Read at noon'),
        { type: 'footnote', attrs: { text: 'By the author.' } },
        text(' and at '),
        { ...text('dusk'), marks: [{ type: 'link', attrs: { href: 'https://ashwell.example/dusk' } }] },
        text('.'),
      ),
      {
        type: 'figure',
        attrs: { hash, mediaType: 'image/png', alt: 'A core', width: 300, height: 200 },
        content: [text('Figure 1. The core.')],
      },
      { type: 'blockquote', content: [paragraph(text('As the keeper says.'))] },
    );
    const bytes = await writeDraftDocx(richBlocksOf(given), 'Draft', new Map([[hash, png]]));
    const { content, pictures } = await readAsDraft(bytes, null, null);
    expect(pictures.map((picture) => [picture.mediaType, picture.bytes.length])).toEqual([
      ['image/png', png.length],
    ]);
    const back = richBlocksOf(content);
    expect(back.flatMap((one) => (one.kind === 'item' ? [[one.level, one.list?.ordered]] : []))).toEqual([
      [0, false],
      [1, true],
      [1, true],
      [0, false],
    ]);
    const [read] = back.flatMap((one) => (one.kind === 'paragraph' ? [one.runs] : []));
    expect(read.map(({ text: said, note, link }) => note ?? link ?? said)).toEqual([
      'Read at noon',
      'By the author.',
      ' and at ',
      'https://ashwell.example/dusk',
      '.',
    ]);
    expect(paperOfDraft(content).text.split('\n')).toEqual([
      'outer',
      'inner one',
      'inner two',
      'outer again',
      'Read at noon and at dusk.',
      'Figure 1. The core.',
      'As the keeper says.',
      'By the author.',
    ]);
  });
});

describe('a file as a draft', () => {
  it('has the text that is followed, whatever program wrote it', async () => {
    for (const name of [
      'dams.docx',
      'dams.odt',
      'nested.docx',
      'core.docx',
      'core.odt',
      'dams-changed.docx',
    ]) {
      const bytes = sample(name);
      const { content } = await readAsDraft(bytes, null, null);
      const plain = (said: string) =>
        said
          .split('\n')
          .filter((line) => line !== '')
          .toSorted();
      if (name.endsWith('.docx'))
        expect([name, plain(paperOfDraft(content).text)]).toEqual([
          name,
          plain(readMarkedDocx(bytes).paper.text),
        ]);
      expect([name, paperOfDraft(content).text.length > 0]).toEqual([name, true]);
    }
  });

  it('comes back the same after another program opened and saved it', async () => {
    const { content, pictures } = await readAsDraft(sample('written-by-another.docx'), null, null);
    expect(pictures).toHaveLength(1);
    const withCaptions = (of: DraftContent) => {
      const blocks = richBlocksOf(of);
      return told(blocks).map((one, index) => {
        const shown = blocks[index];
        return shown.kind === 'picture'
          ? ['picture', shown.alt, shown.runs.map((run) => run.text).join('')]
          : one;
      });
    };
    expect(withCaptions(content)).toEqual(withCaptions(writtenDraft));
  });

  it('says what of it can’t be held', async () => {
    const { notHeld } = await readAsDraft(sample('dams-changed.docx'), null, null);
    expect(notHeld).toContainEqual({ what: 'tracked changes', count: 5 });
    const pdf = await readAsDraft(sample('dams-plain.pdf'), null, drawWithCanvas);
    expect(pdf.notHeld).toEqual([{ what: 'pages', count: 1 }]);
  });
});

describe('a draft as Markdown', () => {
  it('has its structure, and its characters stay what they are', () => {
    const given = draft(
      { type: 'heading', attrs: { level: 2 }, content: [text('Results *all*')] },
      paragraph(text('1. is no list; '), text('bold', 'bold'), text(' and '), text('both', 'bold', 'italic')),
      { type: 'orderedList', content: [{ type: 'listItem', content: [paragraph(text('one'))] }] },
      { type: 'blockquote', content: [paragraph(text('quoted'))] },
      {
        type: 'table',
        content: [
          { type: 'tableRow', content: [{ type: 'tableHeader', content: [paragraph(text('a|b'))] }] },
          { type: 'tableRow', content: [{ type: 'tableCell', content: [paragraph(text('c'))] }] },
        ],
      },
      paragraph(text('noted'), { type: 'footnote', attrs: { text: 'so' } }),
    );
    expect(writeMarkdown(richBlocksOf(given))).toBe(
      [
        '## Results \\*all\\*',
        '1\\. is no list; **bold** and ***both***',
        '1. one',
        '> quoted',
        '| a\\|b |\n| --- |\n| c |',
        'noted[^1]',
        '[^1]: so\n',
      ].join('\n\n'),
    );
  });
});

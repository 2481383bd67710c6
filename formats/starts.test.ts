import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { describe, expect, it } from 'vitest';
import * as v from 'valibot';
import { normaliseText } from '#core/text/normalise.ts';
import { richBlocksOf, type RichBlock, type Run } from '#core/paper/draft.ts';
import { readAsDraft } from './read-as-draft.ts';
import { drawWithCanvas } from './samples/draw.ts';
import { sample } from './samples/sample.ts';
import starts from './samples/starts.json' with { type: 'json' };

/** Drafts that start from a PDF, against the list that one paper was set from by four programs. */

const Blocks = v.array(
  v.object({
    kind: v.picklist(['heading', 'paragraph', 'item', 'table', 'picture']),
    level: v.optional(v.number(), 0),
    text: v.optional(v.string(), ''),
    ordered: v.optional(v.boolean(), false),
    rows: v.optional(v.array(v.array(v.string())), []),
  }),
);
const truth = v.parse(Blocks, starts.blocks);

/** What a block says, with its footnotes in braces as the list has them; quotation marks straight, as some programs set them. */
function said(runs: readonly Run[]): string {
  const notes = runs.map(({ text, note }) =>
    note === undefined ? text : `{${starts.notes.indexOf(plain(note)) + 1}}`,
  );
  return plain(notes.join(''));
}
const plain = (text: string) => normaliseText(text).replace(/[’‘]/g, "'");

function linesOf(block: RichBlock): string[] {
  if (block.kind === 'rows')
    return [
      JSON.stringify(block.rows.map((row) => row.map(({ blocks }) => blocks.flatMap(linesOf).join(' ')))),
    ];
  return [said(block.runs)];
}
const nameOf = (block: RichBlock) =>
  block.kind === 'item' ? `item ${block.list?.ordered === true ? 'ordered' : ''}`.trim() : block.kind;

describe('a draft that starts from a PDF', () => {
  for (const program of ['writer', 'chromium', 'tex', 'groff'])
    it(`has the paragraphs, headings, pictures and notes of one made by ${program}`, async () => {
      const { content, pictures, notHeld } = await readAsDraft(
        sample(`starts-${program}.pdf`),
        null,
        drawWithCanvas,
      );
      const found = new Set(
        richBlocksOf(content).flatMap((block) => linesOf(block).map((text) => `${nameOf(block)}: ${text}`)),
      );
      const tally = { heading: [0, 0], words: [0, 0], table: [0, 0], picture: [0, 0] };
      const missing: string[] = [];
      for (const one of truth) {
        const key =
          one.kind === 'table'
            ? `rows: ${JSON.stringify(one.rows)}`
            : `${one.kind === 'item' && one.ordered ? 'item ordered' : one.kind}: ${plain(one.text)}`;
        const of = one.kind === 'paragraph' || one.kind === 'item' ? tally.words : tally[one.kind];
        of[1]++;
        if (found.has(key)) of[0]++;
        else missing.push(key);
      }
      console.log(`a draft from ${program}: ${JSON.stringify(tally)}\n${missing.join('\n')}`);
      expect(tally.words[0] / tally.words[1]).toBeGreaterThanOrEqual(0.95);
      expect(tally.heading[0] / tally.heading[1]).toBeGreaterThanOrEqual(0.9);
      expect(tally.picture).toEqual([1, 1]);
      // tbl of groff sets the heads of columns so close that only the rows below are parted.
      expect(tally.table).toEqual([program === 'groff' ? 0 : 1, 1]);
      expect(pictures).toHaveLength(1);
      expect(notHeld).toEqual([{ what: 'pages', count: 1 }]);
    });

  it('tells the power of a unit from what calls a footnote', async () => {
    const document = await PDFDocument.create();
    const font = await document.embedFont(StandardFonts.TimesRoman);
    const page = document.addPage([595, 842]);
    const line = (y: number, ...pieces: (readonly [text: string, size: number, up: number])[]) => {
      let x = 70;
      for (const [text, size, up] of pieces) {
        page.drawText(text, { x, y: y + up, size, font });
        x += font.widthOfTextAtSize(text, size);
      }
    };
    line(760, ['The plot is 4 m', 11, 0], ['2', 7, 4], [' wide, which is no more than a table', 11, 0]);
    line(746, ['has, and the pegs stand', 11, 0], ['1', 7, 4], [' in its corners. They were read', 11, 0]);
    line(732, ['twice.', 11, 0], ['2', 7, 4]);
    line(90, ['1 Of larch.', 8, 0]);
    line(80, ['2 By two people.', 8, 0]);
    const { content } = await readAsDraft(new Uint8Array(await document.save()), null, null);
    const told = richBlocksOf(content).flatMap((block) =>
      block.kind === 'rows'
        ? []
        : block.runs.map(({ text, note }) => (note === undefined ? text : `[${note}]`)),
    );
    expect(told.join('')).toBe(
      'The plot is 4 m2 wide, which is no more than a table has, and the pegs stand[Of larch.] in its corners. ' +
        'They were read twice.[By two people.]',
    );
  });

  it('has less of it where nothing can be drawn, and says so', async () => {
    const { pictures, notHeld } = await readAsDraft(sample('starts-writer.pdf'), null, null);
    expect(pictures).toEqual([]);
    expect(notHeld).toContainEqual({ what: 'other pictures', count: 1 });
  });
});

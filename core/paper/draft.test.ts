import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { draftFrom } from './begin-draft.ts';
import { paperOfDraft, richBlocksOf } from './draft.ts';
import { blockAt, paperOf, type Block } from './paper.ts';

describe('papers and drafts', () => {
  const block = fc.record({
    kind: fc.constantFrom('heading' as const, 'paragraph' as const, 'item' as const),
    text: fc.constantFrom('Dip wells', 'N7 was left out.', 'peat & turf', 'A <b>bold</b> claim'),
  });
  const blocks = fc
    .array(block)
    .map((found) => found.map((b): Block => ({ ...b, level: b.kind === 'heading' ? 2 : 0 })));

  it('a draft begun from a paper reads as that paper', () => {
    fc.assert(
      fc.property(blocks, (given) => {
        expect(paperOfDraft(draftFrom(given))).toEqual(paperOf(given));
      }),
    );
  });

  it('keeps looks and line breaks of what was typed', () => {
    const content = {
      schema: 1 as const,
      doc: {
        type: 'doc',
        content: [
          {
            type: 'paragraph',
            content: [
              { type: 'text', text: 'bold', marks: [{ type: 'bold' }] },
              { type: 'hardBreak' },
              { type: 'text', text: 'plain' },
            ],
          },
        ],
      },
    };
    const [first] = richBlocksOf(content);
    expect(first.kind === 'rows' ? [] : first.runs.map((run) => [run.text, run.bold])).toEqual([
      ['bold', true],
      ['\n', false],
      ['plain', false],
    ]);
    expect(paperOfDraft(content).text).toBe('bold plain');
  });

  it('knows the block of every offset', () => {
    fc.assert(
      fc.property(blocks, fc.nat({ max: 100 }), (given, offset) => {
        const paper = paperOf(given);
        if (offset >= paper.text.length) return;
        const at = blockAt(paper, offset);
        expect(paper.starts[at]).toBeLessThanOrEqual(offset);
        expect(offset).toBeLessThanOrEqual(paper.starts[at] + paper.blocks[at].text.length);
      }),
    );
  });
});

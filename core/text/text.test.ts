import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { draftFrom, paperOfDraft, richBlocksOf } from '../paper/draft.ts';
import { blockAt, paperOf, type Block } from '../paper/paper.ts';
import { normaliseText, rawOffset } from './normalise.ts';
import { countWords, joinWords, newVocabulary, wordRange, wordsOf } from './words.ts';

const list = (text: string) => {
  const words = wordsOf(text, newVocabulary());
  return Array.from(words.from, (from, i) => text.slice(from, words.to[i]));
};

describe('words', () => {
  it('joins apostrophes and hyphens, keeps figures whole', () => {
    expect(list('The low-pressure digger can’t lift 96.5 mm, or 3,000.')).toEqual([
      'The',
      'low-pressure',
      'digger',
      'can’t',
      'lift',
      '96.5',
      'mm',
      'or',
      '3,000',
    ]);
  });

  it('takes capitals and ligatures as the same word', () => {
    const vocabulary = newVocabulary();
    expect(wordsOf('ﬁeld', vocabulary).ids).toEqual(wordsOf('Field', vocabulary).ids);
    expect(countWords('')).toBe(0);
  });

  it('joins the words of blocks to those of the whole', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('Dip wells.', 'N7', 'a low-pressure one', '')), (parts) => {
        const vocabulary = newVocabulary();
        const joined = joinWords(parts.map((part) => wordsOf(part, vocabulary)));
        expect(joined).toEqual(wordsOf(parts.join('\n'), vocabulary));
      }),
    );
  });

  it('finds the words that a stretch of characters touches', () => {
    const words = wordsOf('one two three', newVocabulary());
    expect(wordRange(words, 4, 7)).toEqual({ from: 1, to: 2 });
    expect(wordRange(words, 5, 9)).toEqual({ from: 1, to: 3 });
    expect(wordRange(words, 3, 4)).toEqual({ from: 1, to: 1 });
  });
});

describe('normalised text', () => {
  it('opens ligatures, drops soft hyphens, folds white space', () => {
    expect(normaliseText('  eﬀi\u00ADcient \n\t peat ')).toBe('efficient peat');
  });

  it('leads back to the raw text', () => {
    const raw = '  the  ﬁeld\u00AD book ';
    const text = normaliseText(raw);
    expect(raw.slice(rawOffset(raw, text.indexOf('book')), rawOffset(raw, text.length))).toMatch(/^\s*book$/);
    fc.assert(
      fc.property(fc.array(fc.constantFrom('a', 'bog', ' ', '  ', '\n', '\u00AD')), (parts) => {
        const rough = parts.join('');
        const clean = normaliseText(rough);
        const at = rough === clean ? [] : Array.from(clean, (_, i) => i);
        for (const offset of at)
          if (clean[offset] !== ' ' && offset > 0)
            expect(normaliseText(rough.slice(0, rawOffset(rough, offset)))).toBe(
              clean.slice(0, offset).trim(),
            );
      }),
    );
  });
});

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
    expect(richBlocksOf(content)[0].runs.map((run) => [run.text, run.bold])).toEqual([
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

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { keptSpans, layoutMap, paperOfLayout, type Layout, type LayoutChange } from '#core/paper/layout.ts';
import type { Remark } from '#core/model/remark.ts';
import { markedSpans, segmentsOf, type MarkedSpan, type TextState } from './layout-segments.ts';

const TEXT = 'The old bog still holds a lot of water.';
const span = (words: string) => ({ from: TEXT.indexOf(words), to: TEXT.indexOf(words) + words.length });
const change = (kind: LayoutChange['kind'], words: string): LayoutChange => ({
  kind,
  moved: false,
  ...span(words),
});
const layout: Layout = {
  text: TEXT,
  blocks: [
    {
      kind: 'paragraph',
      level: 0,
      ordered: false,
      from: 0,
      to: TEXT.length,
      styles: [{ ...span('bog still'), bold: true, italic: false, script: null, link: null }],
      cell: null,
      picture: null,
    },
  ],
  changes: [change('deletion', 'old '), change('insertion', 'still '), change('format', 'water')],
  pictures: [],
  notes: [{ at: TEXT.indexOf(' holds'), number: 1 }],
};
const [block] = layout.blocks;
const cut = (spans: readonly MarkedSpan[], state: TextState) => segmentsOf(layout, block, spans, state);

describe('a block in pieces', () => {
  it('shows its changes, or one state of it', () => {
    const shown = (state: TextState) =>
      cut([], state)
        .map(({ text }) => text)
        .join('');
    expect(shown('changes')).toBe(TEXT);
    expect(shown('accepted')).toBe('The bog still holds a lot of water.');
    expect(shown('original')).toBe('The old bog holds a lot of water.');
  });

  it('tells of each piece its look, its change and the note before it', () => {
    const pieces = cut([], 'changes');
    const piece = (text: string) => pieces.find((one) => one.text === text);
    expect(piece('old ')).toMatchObject({ change: 'deletion', bold: false });
    expect(piece('bog ')).toMatchObject({ change: null, bold: true });
    expect(piece('water')?.change).toBe('format');
    expect(pieces.filter(({ note }) => note !== null).map(({ note, from }) => [note, from])).toEqual([
      [1, TEXT.indexOf(' holds')],
    ]);
    expect(cut([], 'accepted').every((one) => one.change === null)).toBe(true);
  });

  it('begins each remark once, at its first words that are shown, whatever overlaps', () => {
    const marked = fc.array(
      fc
        .tuple(fc.nat(TEXT.length), fc.nat(TEXT.length))
        .map(([x, y]) => ({ from: Math.min(x, y), to: Math.max(x, y) })),
      { minLength: 1, maxLength: 5 },
    );
    fc.assert(
      fc.property(marked, fc.constantFrom<TextState>('changes', 'accepted', 'original'), (list, state) => {
        const spans = list.map((one, i) => ({ id: String(i), ...one }));
        const pieces = cut(spans, state);
        expect(pieces.flatMap(({ begins }) => begins).sort()).toEqual(spans.map(({ id }) => id).sort());
        const kept = state === 'changes' ? [{ from: 0, to: TEXT.length }] : keptSpans(layout, state);
        for (const { id, from, to } of spans) {
          const words = pieces.filter(({ marks }) => marks.includes(id)).map(({ text }) => text);
          const expected = kept.map((one) =>
            TEXT.slice(Math.max(from, one.from), Math.max(from, Math.min(to, one.to))),
          );
          expect(words.join('')).toBe(expected.join(''));
        }
      }),
    );
  });
});

describe('where remarks are in a layout', () => {
  const paper = paperOfLayout(layout, 'accepted');
  const map = layoutMap(layout, paper);
  const remark = (id: string, more: Partial<Remark> = {}) => ({ id, change: null, ...more }) as Remark;
  const anchor = (words: string) => {
    const from = paper.text.indexOf(words);
    return { from, to: from + words.length, exactly: true };
  };

  it('is told by their words in the paper, and of words taken out by the words themselves', () => {
    const gap = { from: 3, to: 3, exactly: true };
    const spans = markedSpans(
      layout,
      map,
      [
        remark('lot'),
        remark('gone', { change: { kind: 'deletion', before: 'old', after: '' } }),
        remark('nowhere'),
      ],
      { lot: anchor('a lot'), gone: gap },
    );
    expect(spans).toEqual([
      { id: 'lot', ...span('a lot') },
      { id: 'gone', ...span('old ') },
    ]);
  });
});

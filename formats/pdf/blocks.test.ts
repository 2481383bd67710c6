import { describe, expect, it } from 'vitest';
import { blocksOfLines } from './blocks.ts';
import type { Line } from './page-text.ts';

/** Lines of a page, one below the other; `gap` is the distance to the line before. */
function page(number: number, ...rows: { text: string; size?: number; gap?: number }[]): Line[] {
  let y = 760;
  return rows.map(({ text, size = 11, gap = 15 }) => {
    y -= gap;
    return { page: number, angle: 0, text, x: 80, right: 80 + text.length * size * 0.5, y, size, font: null };
  });
}
const shape = (lines: Line[]) =>
  blocksOfLines(lines).paper.blocks.map((b) => `${b.kind[0]}${b.level} ${b.text}`);

describe('lines become blocks', () => {
  it('joins the lines of a paragraph and parts paragraphs at a wider gap', () => {
    expect(
      shape(
        page(
          1,
          { text: 'The wells were read' },
          { text: 'once a week.' },
          { text: 'Sometimes a week', gap: 24 },
          { text: 'was missed.' },
          { text: 'No well was moved.', gap: 24 },
          { text: 'It rained.' },
        ),
      ),
    ).toEqual([
      'p0 The wells were read once a week.',
      'p0 Sometimes a week was missed.',
      'p0 No well was moved. It rained.',
    ]);
  });

  it('takes larger type for headings, the largest for the first level', () => {
    expect(
      shape(
        page(
          1,
          { text: 'Skarn Moss', size: 18 },
          { text: 'Method', size: 14, gap: 40 },
          { text: 'The wells were read once a week, by hand, and written down.', gap: 25 },
          { text: 'Nobody moved them.' },
        ),
      ),
    ).toEqual([
      'h1 Skarn Moss',
      'h2 Method',
      'p0 The wells were read once a week, by hand, and written down. Nobody moved them.',
    ]);
  });

  it('joins words that were cut at a line’s end, and keeps hyphens before a capital', () => {
    expect(shape(page(1, { text: 'a humi-' }, { text: 'fied layer of N-' }, { text: 'Type peat' }))).toEqual([
      'p0 a humified layer of N- Type peat',
    ]);
  });

  it('goes on over the page where a sentence does', () => {
    expect(shape([...page(1, { text: 'The mean rose to' }), ...page(2, { text: '96 mm in May.' })])).toEqual([
      'p0 The mean rose to 96 mm in May.',
    ]);
    expect(shape([...page(1, { text: 'It rained.' }), ...page(2, { text: 'Then it stopped.' })])).toEqual([
      'p0 It rained.',
      'p0 Then it stopped.',
    ]);
  });

  it('knows list items by their marks', () => {
    expect(shape(page(1, { text: '• peat' }, { text: '• turf' }))).toEqual(['i0 peat', 'i0 turf']);
  });

  it('knows where each line begins in the whole text', () => {
    const { paper, lines } = blocksOfLines(
      page(
        1,
        { text: 'A first line of type' },
        { text: 'goes on here.' },
        { text: 'Another block.', gap: 30 },
      ),
    );
    for (const line of lines) expect(paper.text.slice(line.offset)).toMatch(new RegExp(`^${line.text}`));
    expect(lines.map((line) => line.block)).toEqual([0, 0, 1]);
  });

  it('makes nothing of nothing', () => {
    expect(blocksOfLines([])).toMatchObject({ paper: { blocks: [], text: '' }, lines: [] });
  });
});

import { describe, expect, it } from 'vitest';
import { exampleRemark } from '../model/example.ts';
import { blocksOfLines, paperOf } from '../paper/paper.ts';
import { sinceMarked, struckBy } from './since-marked.ts';

const paper = (text: string) => paperOf(blocksOfLines(text));
const told = (before: string, after: string, struck: Parameters<typeof sinceMarked>[2] = []) =>
  sinceMarked(paper(before), paper(after), struck).map(({ kind, words, beside, also }) => [
    kind,
    words,
    beside,
    also.length,
  ]);

describe('what was mended in one place only', () => {
  it('is a word that a remark struck, in any of its forms', () => {
    const before = 'This proves it. The curve proves that. It was proved before.';
    const after = 'This suggests it. The curve proves that. It was proved before.';
    const struck = [{ words: 'proves', instead: '' }];
    expect(told(before, after, struck)).toEqual([['struck, still elsewhere', 'proves', '', 1]]);
    expect(told(before, before, struck)).toEqual([]);
  });

  it('is a unit or a spelling that was changed', () => {
    const rest = 'The well beside the ditch was read in the morning and gave a depth of 5 cm.';
    expect(
      told(`The water rose by 8 cm in a night. ${rest}`, `The water rose by 80 mm in a night. ${rest}`),
    ).toEqual([['changed here, not there', 'cm', 'mm', 0]]);
    expect(told('The colour. A colour.', 'The color. A colour.')).toEqual([
      ['changed here, not there', 'colour', 'color', 0],
    ]);
    expect(told('The water-table. A water-table rose.', 'The water table. A water-table rose.')).toEqual([
      ['changed here, not there', 'water-table', 'water table', 0],
    ]);
  });

  it('is nothing that was only said otherwise', () => {
    expect(told('A big dam. A big well.', 'A large dam. A big well.')).toEqual([]);
    expect(told('The dam rose. The dam fell.', 'The dams rose. The dam fell.')).toEqual([]);
  });

  it('comes from what remarks quote or would have otherwise', () => {
    const remark = exampleRemark({ text: 'Use “height” instead of “level”.' });
    expect(struckBy([remark])).toContainEqual({ words: 'level', instead: 'height' });
  });
});

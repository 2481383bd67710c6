import { describe, expect, it } from 'vitest';
import { blocksOfLines, paperOf } from '../paper/paper.ts';
import { lookOverCitations } from './findings.ts';

function findings(lines: string) {
  const paper = paperOf(blocksOfLines(lines));
  return lookOverCitations(paper).findings.map(({ fault, place }) => [
    fault,
    paper.text.slice(place.from, place.to),
  ]);
}

describe('what may be wrong with citations', () => {
  it('is nothing where all that is cited is listed, and the other way', () => {
    expect(
      findings(
        'It rose (Hask et al., 2018). Abery and Lunt (2011) write that “the weak place is always the side”.\nReferences\nAbery, J. and Lunt, M. (2011) Dams.\nHask, L. and Venn, R. (2018) Water.',
      ),
    ).toEqual([]);
  });

  it('is told with its place, by author and date', () => {
    expect(
      findings(
        'It rose (Corrow, 2016). She wrote that “the weak place is always the side” once. It fell (Hask).\nReferences\nAbery, J. (2011) Dams.\nHask, L. (2018) Water.',
      ),
    ).toEqual([
      ['cited, not listed', '(Corrow, 2016)'],
      ['quotation without citation', 'the weak place is always the side'],
      ['citation without year', '(Hask)'],
      ['listed, not cited', 'Abery, J. (2011) Dams.'],
    ]);
  });

  it('is a missing year where a listed author is named in the running text', () => {
    expect(
      findings(
        'It rose (Hask, 2018). Ostrander showed this. Ostrander’s rule holds. The parish of Ashwell did.\nReferences\nHask, L. (2018) Water.\nOstrander, V. (2014) Eleven commons.\nLunn, B. (2009) Reeves.\nParish of Ashwell (1999) Survey.',
      ),
    ).toEqual([
      ['citation without year', 'Ostrander'],
      ['citation without year', 'parish of Ashwell'],
      ['listed, not cited', 'Lunn, B. (2009) Reeves.'],
    ]);
  });

  it('comes with how much is cited and listed', () => {
    const over = (lines: string) => {
      const { cited, listed } = lookOverCitations(paperOf(blocksOfLines(lines)));
      return [cited, listed];
    };
    expect(over('It rose (Hask, 2018).\nReferences\nHask, L. (2018) Water.')).toEqual([1, 1]);
    expect(over('Nothing at all.')).toEqual([0, null]);
  });

  it('is told by author and page, and by number', () => {
    expect(
      findings(
        'Thorne calls it “a parliament of stones and water” (Thorne). It burned (Thorne 140), as he says (Thorne 12).\nWorks Cited\nThorne, Edith. Mills. 1988.',
      ),
    ).toEqual([['quotation without page', 'a parliament of stones and water']]);
    expect(
      findings(
        'It sways [1, 3].\nReferences\n[1] R. Halm, "Bridges," 2019.\n[2] L. Pruett, "Damping," 2012.',
      ),
    ).toEqual([['listed, not cited', '[2] L. Pruett, "Damping," 2012.']]);
  });

  it('is only about quotations where nothing is listed', () => {
    expect(findings('It rose (Hask, 2018). “The water came up within weeks.”')).toEqual([
      ['quotation without citation', 'The water came up within weeks.'],
    ]);
    expect(findings('')).toEqual([]);
  });
});

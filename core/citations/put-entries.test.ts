import { describe, expect, it } from 'vitest';
import { paperOfDraft } from '../paper/draft.ts';
import { draftFrom } from '../paper/begin-draft.ts';
import { paperOf, type Block } from '../paper/paper.ts';
import { entryFormOf, entryText } from './entry-text.ts';
import { lookOverCitations } from './findings.ts';
import { proposeEntries, withEntries } from './put-entries.ts';
import type { WorkListed } from './work-listed.ts';

const block = (text: string, kind: Block['kind'] = 'paragraph'): Block => ({ kind, level: 1, text });
const paper = (text: string, ...list: string[]) =>
  paperOf([
    block(text),
    ...(list.length === 0 ? [] : [block('References', 'heading')]),
    ...list.map((one) => block(one)),
  ]);

const dams: WorkListed = {
  authors: [
    { family: 'Abery', given: 'Jane M.' },
    { family: 'Lunt', given: 'Karl-Heinz' },
  ],
  title: 'Dams of peat',
  within: 'Journal of Mire Practice',
  year: '2011',
  volume: '4',
  issue: '2',
  pages: '21-39',
  publisher: '',
  town: '',
  address: '',
};
const parish: WorkListed = {
  ...dams,
  authors: [{ family: 'Parish of Ashwell', given: '' }],
  title: 'The bounds',
  within: '',
  year: '',
  volume: '',
  issue: '',
  pages: '',
  publisher: 'Ashwell Press',
  town: 'Ashwell',
};
const hask = 'Hask, L. (2018) A first season. Mire Letters 2, 1-9.';

describe('an entry in the form of a paper’s list', () => {
  it('has the year in brackets, behind the authors, or a comma, as the others have it', () => {
    expect(entryText(dams, entryFormOf(paper('It rose (Hask, 2018).', hask)), null)).toBe(
      'Abery, J. M. and Lunt, K.-H. (2011) Dams of peat. Journal of Mire Practice 4(2), 21-39.',
    );
    const comma = paper(
      'It rose (Hask & Venn, 2018).',
      'Hask, L. & Venn, R., 2018. A first season. Mire Letters 2.',
    );
    expect(entryText(dams, entryFormOf(comma), null)).toBe(
      'Abery, J. M. & Lunt, K.-H., 2011. Dams of peat. Journal of Mire Practice 4(2), 21-39.',
    );
    expect(entryText(parish, entryFormOf(comma), null)).toBe(
      'Parish of Ashwell, no date. The bounds. Ashwell: Ashwell Press.',
    );
  });

  it('turns the first name round and gives pages their sign where names and pages are cited', () => {
    const paged = paper(
      'It rose (Hask 12). It fell (Hask 14).',
      'Hask, Lena. “A first season.” Mire Letters, vol. 2, 2018, pp. 1-9.',
    );
    expect(entryText(dams, entryFormOf(paged), null)).toBe(
      'Abery, Jane M., and Karl-Heinz Lunt. “Dams of peat.” Journal of Mire Practice, vol. 4, no. 2, 2011, pp. 21-39.',
    );
  });

  it('is numbered as the others are', () => {
    const numbered = paper('It rose [1].', '[1] L. Hask, “A first season,” Mire Letters, vol. 2, 2018.');
    expect(entryText(dams, entryFormOf(numbered), 2)).toBe(
      '[2] J. M. Abery and K.-H. Lunt, “Dams of peat,” Journal of Mire Practice, vol. 4, no. 2, pp. 21-39, 2011.',
    );
  });
});

describe('entries out of a file', () => {
  it('come with what the text waits for first, and what stands in the list last', () => {
    const text = paper('It rose (Hask, 2018; Abery and Lunt, 2011).', hask);
    const listed: WorkListed = {
      ...dams,
      authors: [{ family: 'Hask', given: 'L.' }],
      title: 'A first season',
      year: '2018',
    };
    expect(proposeEntries(text, [listed, parish, dams]).map(({ state }) => state)).toEqual([
      'cited',
      'new',
      'listed',
    ]);
  });

  it('are put where the alphabet has them, and mend what was missing', () => {
    const blocks = [
      block('It rose (Hask, 2018; Abery and Lunt, 2011; Wray, 2020).'),
      block('References', 'heading'),
      block(hask),
      block('Wray, E. (2020) Wells. Mire Letters 3.'),
      block('Appendix', 'heading'),
      block('A table.'),
    ];
    const draft = draftFrom(blocks);
    const [entry] = proposeEntries(paperOfDraft(draft), [dams]);
    expect(entry.state).toBe('cited');
    const after = paperOfDraft(withEntries(draft, [entry.text], 'References'));
    expect(after.blocks.map(({ text }) => text.slice(0, 5))).toEqual([
      'It ro',
      'Refer',
      'Abery',
      'Hask,',
      'Wray,',
      'Appen',
      'A tab',
    ]);
    expect(lookOverCitations(paperOfDraft(draft)).findings.map(({ fault }) => fault)).toEqual([
      'cited, not listed',
    ]);
    expect(lookOverCitations(after).findings).toEqual([]);
  });

  it('are numbered on where the others are numbered', () => {
    const draft = draftFrom([
      block('It rose [1].'),
      block('References', 'heading'),
      block('[1] L. Hask, A first season, 2018.'),
    ]);
    expect(
      paperOfDraft(withEntries(draft, ['J. Abery, Dams, 2011.'], 'References')).blocks.at(-1)?.text,
    ).toBe('[2] J. Abery, Dams, 2011.');
  });

  it('begin a list where there is none', () => {
    const after = paperOfDraft(withEntries(draftFrom([block('It rose.')]), [hask], 'References'));
    expect(after.blocks.map(({ kind, text }) => [kind, text])).toEqual([
      ['paragraph', 'It rose.'],
      ['heading', 'References'],
      ['paragraph', hask],
    ]);
  });

  it('join a list of the editor as items', () => {
    const draft = draftFrom([block('It rose.'), block('References', 'heading'), block(hask, 'item')]);
    const after = paperOfDraft(withEntries(draft, ['Abery, J. (2011) Dams.'], 'References'));
    expect(after.blocks.at(-1)).toMatchObject({ kind: 'item', text: 'Abery, J. (2011) Dams.' });
  });
});

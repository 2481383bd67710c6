import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blocksOfLines, paperOf } from '../paper/paper.ts';
import { citationsIn, leadsTo } from './cited.ts';
import { namesOf } from './names.ts';
import { quotedSpans, setOffBlocks } from './quoted.ts';
import { referenceListOf } from './references.ts';

const quoted = (text: string) => quotedSpans(text).map(({ from, to }) => text.slice(from, to));

describe('quoted words', () => {
  it.each([
    ['straight', 'She says "the weir was ours" and stops.', ['the weir was ours']],
    ['curly', 'She says “the weir was ours”, and “nobody’s”.', ['the weir was ours', 'nobody’s']],
    ['single, beside apostrophes', "It's 'the miller's weir' that didn't hold.", ["the miller's weir"]],
    ['single and curly', 'It’s ‘the miller’s weir’ that didn’t hold.', ['the miller’s weir']],
    ['pointed', 'Elle dit «le barrage» et « tout ».', ['le barrage']],
    ['pointed inwards', 'Sie sagt »das Wehr« dazu.', ['das Wehr']],
    ['low and high', 'Sie sagt „das Wehr“ und ‚die Mühle‘.', ['das Wehr', 'die Mühle']],
    ['low and high of another language', 'Mówi „jaz” i idzie.', ['jaz']],
    ['both ends alike', 'Hon säger ”dammen” och går.', ['dammen']],
    ['cornered', '彼は「水車」と言った。', ['水車']],
    ['one within another', 'He wrote “she said ‘no’ to it” once.', ['she said ‘no’ to it']],
    ['never closed', 'He wrote “she said no, and left.', []],
    ['an inch', 'A 5" pipe and a 7" pipe.', []],
  ])('%s', (_, text, expected) => {
    expect(quoted(text)).toEqual(expected);
  });

  it('go on over paragraphs that begin with the mark anew', () => {
    expect(quoted('He wrote: “The first.\n“The second.”\nThe third.')).toEqual(['The first.\n“The second.']);
    expect(quoted('He wrote: “The first.\nThe second” and more.')).toEqual([]);
  });

  it('lie in the text, in order, none in another, whatever the text', () => {
    fc.assert(
      fc.property(
        fc.string({
          unit: fc.constantFrom('a', 'b', ' ', '“', '”', '„', '«', '»', '‘', '’', '"', "'", '\n'),
          maxLength: 60,
        }),
        (text) => {
          let end = 0;
          for (const { from, to } of quotedSpans(text)) {
            expect(from).toBeGreaterThanOrEqual(end);
            expect(to).toBeGreaterThan(from);
            end = to;
          }
          expect(end).toBeLessThanOrEqual(text.length);
        },
      ),
    );
  });

  it('are set off where a paragraph looks so and most do not', () => {
    const paragraph = (text: string, isSetOff = false) => ({
      kind: 'paragraph' as const,
      level: 0,
      text,
      quoted: isSetOff,
    });
    const paper = paperOf([
      paragraph('One.'),
      paragraph('Two.', true),
      paragraph('> Three.'),
      paragraph('Four.'),
    ]);
    expect(setOffBlocks(paper).map(({ from, to }) => paper.text.slice(from, to))).toEqual([
      'Two.',
      '> Three.',
    ]);
    const all = paperOf([paragraph('One.', true), paragraph('Two.', true), paragraph('Three.')]);
    expect(setOffBlocks(all)).toEqual([]);
  });
});

describe('names', () => {
  it.each([
    ['Hask, L., Oddie, P. and Venn, R.', ['hask', 'oddie', 'venn']],
    ['Brask, Nils, and Moira Lune', ['brask', 'moira lune', 'lune']],
    ['R. Halm and O. Dietz', ['halm', 'dietz']],
    ['Calder, Josiah', ['calder']],
    ['the Fenmark wardens', ['fenmark wardens']],
    ['Parish of Ashwell', ['parish of ashwell']],
    ['Abery & Lunt', ['abery', 'lunt']],
    ['Hask et al.', ['hask']],
    ['', []],
  ])('%s', (authors, names) => {
    expect(namesOf(authors)).toEqual(names);
  });
});

const listed = (lines: string) => referenceListOf(paperOf(blocksOfLines(lines)));

describe('a list of references', () => {
  it('is read in author-date, author-page and numeric styles', () => {
    const entries = (lines: string) =>
      listed(lines)?.entries.map(({ number, names, year }) => [number, names, year]);
    expect(
      entries(
        'Text.\nReferences\nAbery, J. and Lunt, M. (2011) Dams of peat.\nParish of Ashwell (no date) Survey.',
      ),
    ).toEqual([
      [null, ['abery', 'lunt'], '2011'],
      [null, ['parish of ashwell'], 'no date'],
    ]);
    expect(
      entries('Text.\nWorks Cited\nCalder, Josiah. A Walk along the Sarn. Pell and Sons, 1861.'),
    ).toEqual([[null, ['calder'], '1861']]);
    expect(
      entries(
        'Text.\n6. Bibliography\n[1] R. Halm and O. Dietz, "Vibration," Bridge Eng., 2019.\n[2] Norr Bridge Office, Inspection. Norr, 2020.',
      ),
    ).toEqual([
      [1, ['halm', 'dietz'], '2019'],
      [2, ['norr bridge office'], '2020'],
    ]);
  });

  it('is found without a heading where enough entries stand last, and is none otherwise', () => {
    const three = 'Abery, J. (2011) Dams.\nCorrow, T. (2016) Peat.\nHask, L. (2018) Water.';
    expect(listed(`One.\nTwo.\n${three}`)?.entries).toHaveLength(3);
    expect(listed('One.\nAbery, J. (2011) Dams.')).toBeNull();
    expect(listed('')).toBeNull();
  });
});

describe('citations', () => {
  const known = ['thorne', 'calder', 'friends of the sarn', 'hask'];
  const cited = (text: string) =>
    citationsIn(text, known).map(({ from, to, names, year, page, numbers }) => ({
      at: text.slice(from, to),
      ...(numbers.length > 0 ? { numbers } : { names }),
      ...(year === null ? {} : { year }),
      ...(page === null ? {} : { page }),
    }));

  it('name by names and year, with a page or without, several in one bracket', () => {
    expect(cited('So it is (Abery and Lunt, 2011, p. 24; see Hask et al., 2018).')).toEqual([
      {
        at: '(Abery and Lunt, 2011, p. 24; see Hask et al., 2018)',
        names: ['abery', 'lunt'],
        year: '2011',
        page: '24',
      },
      { at: '(Abery and Lunt, 2011, p. 24; see Hask et al., 2018)', names: ['hask'], year: '2018' },
    ]);
    expect(cited('As Corrow (2016a) found, it is not.')).toEqual([
      { at: '(2016a)', names: ['corrow'], year: '2016a' },
    ]);
    expect(cited('It sank (Parish of Ashwell, no date).')).toMatchObject([{ year: 'no date' }]);
  });

  it('name by names and page, in the bracket or in the sentence', () => {
    expect(cited('Thorne writes that it was “ours” (42).')).toEqual([
      { at: '(42)', names: ['thorne'], page: '42' },
    ]);
    expect(cited('It was ours (Thorne 43–44).')).toMatchObject([{ names: ['thorne'], page: '43–44' }]);
    expect(cited('It stands (Friends of the Sarn).')).toMatchObject([{ names: ['friends of the sarn'] }]);
  });

  it('name by number, and by a range of them', () => {
    expect(cited('So it is [3], and so [1, 4–6].')).toMatchObject([
      { numbers: [3] },
      { numbers: [1, 4, 5, 6] },
    ]);
  });

  it('are no other brackets', () => {
    expect(
      cited('The wells (N1 to N6, and N7), 24 m deep (see below), in June (42) [sic] (Figure 2).'),
    ).toEqual([]);
  });

  it('lead to a work by a name and no other year, or by the entry with their number', () => {
    const hask = { authors: 'Hask, L. and Venn, R.', year: '2018', title: 'A first season' };
    const [named] = citationsIn('(Hask et al., 2018)', []);
    const [older] = citationsIn('(Hask, 2012)', []);
    const [numbered] = citationsIn('[1]', []);
    const entries = listed('References\n[1] L. Hask and R. Venn, "A first season," 2018.')?.entries ?? [];
    expect([named, older, numbered].map((one) => leadsTo(one, hask, entries))).toEqual([true, false, true]);
    expect(leadsTo(numbered, { ...hask, authors: 'Corrow, T.' }, entries)).toBe(false);
  });
});

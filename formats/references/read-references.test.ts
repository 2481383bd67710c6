import { describe, expect, it } from 'vitest';
import { UnreadableFile } from '../unreadable.ts';
import { readReferences } from './read-references.ts';

const reasonOf = (text: string) => {
  try {
    readReferences(text);
    return null;
  } catch (error) {
    return error instanceof UnreadableFile ? error.reason : 'another';
  }
};

describe('references out of files', () => {
  it('reads BibTeX with its accents, braces and names of organisations', () => {
    const [dams, bounds] = readReferences(String.raw`
      % exported
      @string{jmp = "Journal of Mire Practice"}
      @article{dams, author = {Abery, Jane and L{\"u}nt, M. and {Parish of Ashwell}}, title = {Dams of {Peat}},
        journal = jmp, year = 2011, volume = 4, number = {2}, pages = {21--39}, doi = {10.1234/x}}
      @book{bounds, editor = {Wray, Elis}, title = "The bounds", publisher = {Ashwell Press}, address = {Ashwell}, year = {n.d.}}`);
    expect(dams).toEqual({
      authors: [
        { family: 'Abery', given: 'Jane' },
        { family: 'Lünt', given: 'M.' },
        { family: 'Parish of Ashwell', given: '' },
      ],
      title: 'Dams of Peat',
      within: 'Journal of Mire Practice',
      year: '2011',
      volume: '4',
      issue: '2',
      pages: '21-39',
      publisher: '',
      town: '',
      address: 'https://doi.org/10.1234/x',
    });
    expect(bounds).toMatchObject({
      authors: [{ family: 'Wray', given: 'Elis' }],
      publisher: 'Ashwell Press',
      town: 'Ashwell',
    });
  });

  it('reads CSL-JSON, one work or many', () => {
    const item = {
      type: 'article-journal',
      title: 'Dams',
      author: [
        { literal: 'Mire Board' },
        { family: 'Berg', given: 'O.', 'non-dropping-particle': 'van den' },
      ],
      issued: { 'date-parts': [['2011', 3]] },
      volume: 4,
    };
    expect(readReferences(JSON.stringify(item))).toEqual(readReferences(JSON.stringify([item])));
    expect(readReferences(JSON.stringify([item]))[0]).toMatchObject({
      authors: [
        { family: 'Mire Board', given: '' },
        { family: 'van den Berg', given: 'O.' },
      ],
      year: '2011',
      volume: '4',
    });
  });

  it('says what can’t be read, and where', () => {
    expect(reasonOf('')).toBe('no references');
    expect(reasonOf('Dear all, write to me@home.')).toBe('no references');
    expect(reasonOf('[]')).toBe('no references');
    expect(reasonOf('{"a": 1}')).toBe('no references');
    expect(reasonOf('[{"title": ')).toBe('damaged references');
    expect(() => readReferences('@article{a, author=')).toThrow(/line 1/);
  });
});

import { expect, it } from 'vitest';
import { blocksOfLines, paperOf } from '../paper/paper.ts';
import { titlePageOf } from './title-page.ts';

const page = (lines: string, name = 'source.txt') => titlePageOf(paperOf(blocksOfLines(lines)), name);

it('title, authors and year are read as far as a source states them', () => {
  expect(
    page('Mills of the Lower Sarn\nEdith Thorne\nCounty Record Society, 1988\nThe river begins as a ditch.'),
  ).toEqual({ title: 'Mills of the Lower Sarn', authors: 'Edith Thorne', year: '1988' });
  expect(page('Dams of peat\nby Abery, J. and Lunt, M. (2011)\nA dam holds water back.')).toEqual({
    title: 'Dams of peat',
    authors: 'Abery, J. and Lunt, M.',
    year: '2011',
  });
});

it('the name of the file tells what the text does not', () => {
  const long = 'A dam holds water back in the ditch. '.repeat(8);
  expect(page(long, 'papers/abery-lunt-2011.pdf')).toEqual({
    title: 'abery-lunt-2011',
    authors: 'Abery and Lunt',
    year: '2011',
  });
  expect(page(long, 'notes.md')).toEqual({ title: 'notes', authors: '', year: null });
  expect(page('', 'empty.txt')).toEqual({ title: 'empty', authors: '', year: null });
});

it('a sentence is nobody’s name', () => {
  expect(page('Peat and water\nThe water stands high in spring.').authors).toBe('');
});

it('a sentence is no title', () => {
  expect(page('Nobody had read the wells before that.', 'Wells.txt').title).toBe('Wells');
});

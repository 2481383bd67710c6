import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newVocabulary, wordsOf } from '../text/words.ts';
import { countChanges, differenceOf } from './difference.ts';
import { compareForReading } from './display.ts';

const compare = (a: string, b: string) => {
  const vocabulary = newVocabulary();
  return differenceOf(wordsOf(a, vocabulary), wordsOf(b, vocabulary));
};
const shown = (a: string, b: string) =>
  compareForReading(compare(a, b))
    .passages.flat()
    .map(
      (p) =>
        `${{ kept: '=', added: '+', removed: '-', 'moved here': '>', 'moved away': '<' }[p.kind]}${p.text}`,
    );

describe('compareForReading', () => {
  it('shows a word that came in', () => {
    expect(shown('the bog is wet', 'the bog is very wet')).toEqual(['=the bog is', '+ very', '= wet']);
  });

  it('shows a changed comma between kept words', () => {
    expect(shown('wet, and cold', 'wet and cold')).toEqual(['=wet', '-,', '= and cold']);
  });

  it.each([
    ['a word before all', 'one two', 'new one two', ['+new ', '=one two']],
    ['a word after all', 'one two.', 'one two new.', ['=one two', '+ new', '=.']],
    ['a word gone from the start', 'old one two', 'one two', ['-old ', '=one two']],
    ['a word gone from the end', 'one two old.', 'one two.', ['=one two', '- old', '=.']],
    ['a word in place of another', 'one old two', 'one new two', ['=one ', '-old', '+new', '= two']],
    ['a mark that came', 'one two', 'one, two', ['=one', '+,', '= two']],
    ['a mark for another', 'one; two', 'one, two', ['=one', '-;', '+,', '= two']],
    ['a capital', 'one Two', 'one two', ['=one ', '-Two', '+two']],
    ['wider space', 'one two', 'one  two', ['=one  two']],
    ['narrower space', 'one  two', 'one two', ['=one two']],
    ['all of it', 'old', 'new', ['-old', '+new']],
    ['nothing before', '', 'one two', ['+one two']],
    ['nothing after', 'one two', '', ['-one two']],
    ['an end put to it', 'one two', 'one two.', ['=one two', '+.']],
    ['a line between', 'one.\ntwo', 'one.\nnew.\ntwo', ['=one.', '+new.', '=two']],
    ['a line gone', 'one.\nold.\ntwo', 'one.\ntwo', ['=one.', '-old.', '=two']],
    ['empty lines, which are none', 'one\n\ntwo', 'one\n\n\ntwo', ['=one', '=two']],
  ])('shows %s', (_, a, b, pieces) => {
    expect(shown(a, b)).toEqual(pieces);
  });

  it('leaves no struck piece by itself where a paragraph was split or its opening rewritten', () => {
    const passages = (a: string, b: string) =>
      compareForReading(compare(a, b)).passages.map((passage) =>
        passage.map(({ kind, text }) =>
          kind === 'removed' ? `-${text}` : kind === 'added' ? `+${text}` : text,
        ),
      );
    expect(passages('The water rose. It fell in June.', 'The water rose.\nIt fell in June.')).toEqual([
      ['The water rose.'],
      ['It fell in June.'],
    ]);
    const rewritten = passages(
      'It rained.\nThe aim of this report is to ask what the dams did. It begins with the site.',
      'It rained.\nThis report asks what the dams did to the water.\nIt begins with the site.',
    );
    expect(rewritten).toHaveLength(3);
    for (const passage of rewritten) expect(passage.some((piece) => !piece.startsWith('-'))).toBe(true);
    expect(rewritten[2]).toEqual(['It begins with the site.']);
  });

  it('does not chop a rewritten sentence at chance words', () => {
    const a =
      'The dams hold. Everybody agrees that the drained bogs should be rewetted as soon as possible. It rained.';
    const b =
      'The dams hold. In the view of some authors one ought to block the old ditches before winter. It rained.';
    expect(shown(a, b).length).toBe(4);
  });

  it('finds a moved sentence', () => {
    const moved = 'The volunteers mended all five of the leaking dams within a fortnight.';
    const a = `First we dug for days. ${moved} Then it rained on the hills and the valley for a week. At last the sun came out.`;
    const b = `First we dug for days. Then it rained on the hills and the valley for a week. At last the sun came out. ${moved}`;
    const kinds = new Set(
      compareForReading(compare(a, b))
        .passages.flat()
        .map((p) => p.kind),
    );
    expect(kinds).toEqual(new Set(['kept', 'moved here', 'moved away']));
  });

  it('keeps every character of the newer and every word of both texts', () => {
    const text = fc
      .array(fc.constantFrom('bog', 'dam', 'the', 'rose', 'wet,', 'slowly.', 'N7', '\n'), { maxLength: 60 })
      .map((words) => words.join(' ').replaceAll(' \n ', '\n'));
    fc.assert(
      fc.property(text, text, (a, b) => {
        const difference = compare(a, b);
        const pieces = compareForReading(difference).passages.flat();
        const joined = (kinds: readonly string[]) =>
          pieces
            .filter((p) => kinds.includes(p.kind))
            .map((p) => p.text)
            .join('')
            .replace(/\s+/g, '');
        expect(joined(['kept', 'added', 'moved here'])).toBe(b.replace(/\s+/g, ''));
        expect(joined(['kept', 'removed', 'moved away'])).toBe(a.replace(/\s+/g, ''));
        const counts = countChanges(difference);
        expect(counts.kept + counts.moved + counts.removed).toBe(difference.a.ids.length);
        expect(counts.kept + counts.moved + counts.added).toBe(difference.b.ids.length);
      }),
    );
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blocksOfLines, paperOf } from '../paper/paper.ts';
import { LastLook } from './look-over.ts';
import { slipsIn } from './mechanics.ts';
import { captionsOf, namedIn, numberedLines } from './numbered.ts';
import type { Speller } from './speller.ts';
import { isOneLetterOff } from './spelling.ts';
import { otherSides, variantOf } from './two-spellings.ts';

const paper = (...lines: string[]) => paperOf(blocksOfLines(lines.join('\n')));
const KNOWN = new Set(
  'the a dam was read water rose here word depth received organise organize organised'.split(' '),
);
const speller: Speller = {
  knows: (word) => KNOWN.has(word),
  suggests: (word) => (word === 'recieved' ? ['received'] : []),
};
const told = (text: string, isContinued = false) =>
  slipsIn(text, isContinued).map(({ kind, from, to }) => [kind, text.slice(from, to)]);

describe('slips of a paragraph', () => {
  it('are words twice, but not those that may stand twice', () => {
    expect(told('It was the the dam.')).toEqual([['repeated word', 'the the']]);
    expect(told('He had had had it.')).toEqual([['repeated word', 'had had had']]);
    for (const fine of [
      'He had had it.',
      'In May may it rain.',
      'Bora Bora is far.',
      'so, so',
      'a self-self test',
    ])
      expect(told(fine)).toEqual([]);
  });

  it('are small letters after a stop that ends a sentence', () => {
    expect(told('It rose (Hask 2018). it fell.')).toEqual([['capital', 'it']]);
    for (const fine of [
      'It rose, e.g. the dam.',
      'Hask et al. showed it.',
      '“Why?” he asked.',
      'It fell. pH was low.',
      'in vol. 3, no. 2 of it',
      'and so on ... and on',
    ])
      expect(told(fine), fine).toEqual([]);
  });

  it('are marks without their pair', () => {
    expect(told('It rose (or so it is said.')).toEqual([['unpaired mark', '(or so it is']]);
    expect(told('It rose ”then').length).toBe(1);
    expect(told('He said "no. It was').length).toBe(1);
    for (const fine of [
      'a) one b) two',
      'It (the [small] dam) rose.',
      '„Ja“, sagte er.',
      'a 5" pipe',
      'It “rose”.',
      ':-)',
    ])
      expect(told(fine), fine).toEqual([]);
    expect(told('“It goes on', true)).toEqual([]);
  });

  it('lie within the paragraph, whatever stands in it', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('(', ')', '“', '”', '"', ' ', '.', 'a', 'A', 'the ', '?') }),
        fc.boolean(),
        (text, next) => {
          for (const { from, to } of slipsIn(text, next)) {
            expect(from).toBeGreaterThanOrEqual(0);
            expect(to).toBeLessThanOrEqual(text.length);
            expect(to).toBeGreaterThan(from);
          }
        },
      ),
    );
  });
});

describe('figures and tables', () => {
  it('are named one by one, by ranges, and in Roman figures; those of another work are not', () => {
    expect(
      namedIn('Figures 2 to 4 and Table IV show it').map(({ kind, number }) => `${kind} ${number}`),
    ).toEqual(['figure 2', 'figure 3', 'figure 4', 'table 4']);
    expect(namedIn('as Figure 2 of Hask shows (Wray, 2011, Table 3)')).toEqual([]);
  });

  it('are told where they are missing, and where nothing names them', () => {
    const text = paper('Figure 1 and Table 2 show it.', 'Figure 1. The dam', 'Table 1: Depths');
    expect(captionsOf(text).map(({ kind, number }) => `${kind} ${number}`)).toEqual(['figure 1', 'table 1']);
    expect(numberedLines(text).map(({ kind, beside }) => [kind, beside])).toEqual([
      ['not there', 'table 2'],
      ['never named', 'table 1'],
    ]);
  });
});

describe('spelling', () => {
  it('tells a word once with all its places, and lets terms and own words be', () => {
    const look = new LastLook(speller);
    const lines = () =>
      look.lookOver(paper('the dam was recieved here', 'recieved recieved', 'humified humified humified'))
        .lines;
    expect(lines().map(({ kind, beside, also }) => [kind, beside, also.length])).toEqual([
      ['spelling', 'recieved', 2],
      ['repeated word', '', 0],
      ['repeated word', '', 0],
    ]);
    look.own(['recieved']);
    expect(lines().filter(({ kind }) => kind === 'spelling')).toEqual([]);
    look.own([]);
    expect(lines().filter(({ kind }) => kind === 'spelling')).toHaveLength(1);
  });

  it('says nothing of a language that it has no dictionary for', () => {
    const words = Array.from(
      { length: 40 },
      (_, i) => `wort${String.fromCharCode(97 + (i % 26))}${'x'.repeat(i % 7)}`,
    );
    const { lines, otherLanguage } = new LastLook(speller).lookOver(paper(words.join(' ')));
    expect(otherLanguage).toBe(true);
    expect(lines.filter(({ kind }) => kind === 'spelling')).toEqual([]);
  });

  it('knows words that are one letter off', () => {
    for (const [x, y] of [
      ['dam', 'dams'],
      ['recieve', 'receive'],
      ['dam', 'dim'],
    ])
      expect(isOneLetterOff(x, y)).toBe(true);
    for (const [x, y] of [
      ['dam', 'damage'],
      ['abcd', 'badc'],
    ])
      expect(isOneLetterOff(x, y)).toBe(false);
  });
});

describe('two spellings', () => {
  it('are told by the words that are the fewer', () => {
    const words = 'colour favour color organise organised organize'
      .split(' ')
      .map((word, i) => ({ word, from: i, to: i + 1 }));
    expect(otherSides(words, (word) => KNOWN.has(word)).map(({ from, other }) => [from, other])).toEqual([
      [2, 'colour'],
      [5, 'organise'],
    ]);
  });

  it('are none where a word has no other side', () => {
    for (const word of ['promise', 'size', 'four', 'water', 'liter-ature', 'later'])
      expect(
        variantOf(word, () => false),
        word,
      ).toBeNull();
    expect(variantOf('centres', () => true)).toEqual({ side: 'British', other: 'centers', group: 'rest' });
    expect(variantOf('pediatric', () => true)).toEqual({
      side: 'American',
      other: 'paediatric',
      group: 'rest',
    });
  });
});

it('a draft looked over again tells the same as one that is looked over anew', () => {
  const line = fc.constantFrom(
    'the dam was read',
    'the the dam',
    'it rose (here',
    'colour',
    'color',
    'Figure 1. The dam',
    'as Figure 1 shows',
    'recieved',
  );
  fc.assert(
    fc.property(fc.array(fc.array(line, { maxLength: 6 }), { maxLength: 4 }), (versions) => {
      const kept = new LastLook(speller);
      for (const version of versions) {
        const text = paper(...version);
        expect(kept.lookOver(text)).toEqual(new LastLook(speller).lookOver(text));
      }
    }),
  );
});

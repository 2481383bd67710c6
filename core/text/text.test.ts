import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { normalised, normaliseText } from './normalise.ts';
import { sentencesOf } from './sentences.ts';
import { countWords, joinWords, newVocabulary, wordRange, wordsOf } from './words.ts';

const list = (text: string) => {
  const words = wordsOf(text, newVocabulary());
  return Array.from(words.from, (from, i) => text.slice(from, words.to[i]));
};

describe('words', () => {
  it('joins apostrophes and hyphens, keeps figures whole', () => {
    expect(list('The low-pressure digger can’t lift 96.5 mm, or 3,000.')).toEqual([
      'The',
      'low-pressure',
      'digger',
      'can’t',
      'lift',
      '96.5',
      'mm',
      'or',
      '3,000',
    ]);
  });

  it('takes capitals and ligatures as the same word', () => {
    const vocabulary = newVocabulary();
    expect(wordsOf('ﬁeld', vocabulary).ids).toEqual(wordsOf('Field', vocabulary).ids);
    expect(countWords('')).toBe(0);
  });

  it('joins the words of blocks to those of the whole', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('Dip wells.', 'N7', 'a low-pressure one', '')), (parts) => {
        const vocabulary = newVocabulary();
        const words = parts.map((part) => wordsOf(part, vocabulary));
        expect(joinWords(words)).toEqual({ ...wordsOf(parts.join('\n'), vocabulary), parts: words });
      }),
    );
  });

  it('finds the words that a stretch of characters touches', () => {
    const words = wordsOf('one two three', newVocabulary());
    expect(wordRange(words, 4, 7)).toEqual({ from: 1, to: 2 });
    expect(wordRange(words, 5, 9)).toEqual({ from: 1, to: 3 });
    expect(wordRange(words, 3, 4)).toEqual({ from: 1, to: 1 });
  });
});

describe('normalised text', () => {
  it('opens ligatures, drops soft hyphens, folds white space', () => {
    expect(normaliseText('  eﬀi\u00ADcient \n\t peat ')).toBe('efficient peat');
  });

  const rough = fc
    .array(
      fc.oneof(
        fc.constantFrom(
          'a',
          'bog',
          ' ',
          '  ',
          '\n',
          '\u00AD',
          'ﬁ',
          'e',
          '\u0301',
          '\u0323',
          '\u1112\u1161',
          '\u11ab',
          '\u00a8',
        ),
        fc.string({ unit: 'binary', maxLength: 3 }),
      ),
    )
    .map((parts) => parts.join(''));

  it('stays as it is when it is normalised again', () => {
    fc.assert(
      fc.property(rough, (raw) => {
        expect(normaliseText(normaliseText(raw))).toBe(normaliseText(raw));
      }),
    );
  });

  it('leads back to the raw text, whose parts make its parts', () => {
    const raw = '  the  ﬁeld\u00AD cafe\u0301 book ';
    const { text, from, to } = normalised(raw);
    const at = text.indexOf('café');
    expect(raw.slice(from[at], to[at + 3])).toBe('cafe\u0301');
    fc.assert(
      fc.property(rough, (any) => {
        const own = normalised(any);
        expect(own.text).toBe(normaliseText(any));
        for (let i = 0; i < own.text.length; i++) {
          expect(own.from[i]).toBeLessThan(own.to[i]);
          expect(own.from[i]).toBeGreaterThanOrEqual(own.from[i - 1] ?? 0);
          if (own.text[i] !== ' ')
            expect(normaliseText(any.slice(own.from[i], own.to[i]))).toContain(own.text[i]);
        }
      }),
      { numRuns: 500 },
    );
  });
});

describe('sentences', () => {
  it('end at a mark before something that begins one, and at the end of a line', () => {
    expect(sentencesOf('It rose 4.2 cm. Then it fell! “Why?” (Nobody knows.)\nA heading\nand more')).toEqual([
      'It rose 4.2 cm.',
      'Then it fell!',
      '“Why?”',
      '(Nobody knows.)',
      'A heading',
      'and more',
    ]);
  });

  it('go on after short forms and initials', () => {
    expect(sentencesOf('See A. Keld et al. 2019, p. 4 and Fig. 2. It is there.')).toEqual([
      'See A. Keld et al. 2019, p. 4 and Fig. 2.',
      'It is there.',
    ]);
  });

  it('hold every character that is no white space, in order', () => {
    const parts = fc.constantFrom('Peat', ' ', '. ', '\n', 'p.', '!”', '…', ' it', '4', '\t');
    fc.assert(
      fc.property(fc.array(parts), (list) => {
        const text = list.join('');
        expect(sentencesOf(text).join('').replaceAll(/\s/g, '')).toBe(text.replaceAll(/\s/g, ''));
      }),
    );
  });
});

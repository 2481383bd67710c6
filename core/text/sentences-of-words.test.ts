import fc from 'fast-check';
import { expect, it } from 'vitest';
import { sentenceSpans } from './sentences.ts';
import { sentencesOfWords } from './sentences-of-words.ts';
import { joinWords, newVocabulary, wordsOf } from './words.ts';

it('finds in texts that are joined the sentences of the whole', () => {
  const piece = fc.constantFrom(
    'Peat',
    'is',
    'wet.',
    'et al.',
    '(p. 4)',
    '“Why?”',
    'it',
    '3.',
    '\n',
    '…',
    '',
  );
  const text = fc.array(piece, { maxLength: 12 }).map((pieces) => pieces.join(' '));
  fc.assert(
    fc.property(fc.array(text, { maxLength: 6 }), (texts) => {
      const vocabulary = newVocabulary();
      const whole = joinWords(texts.map((one) => wordsOf(one, vocabulary)));
      const { from, to } = sentencesOfWords(whole);
      expect([...from].map((start, n) => ({ from: start, to: to[n] }))).toEqual(sentenceSpans(whole.text));
    }),
  );
});

import { describe, expect, it } from 'vitest';
import type { DecimalString } from '../model/ids.ts';
import { toShown } from '../scores/fraction.ts';
import { missedQuestions } from './practice.ts';
import type { QuizQuestion } from './question.ts';

const question = (
  id: string,
  number: number,
  score: string | null,
  given: Partial<QuizQuestion> = {},
): QuizQuestion => ({
  id,
  number,
  item: { title: id, kind: 'short', prompt: 'Why?', choices: [], partners: [], correct: ['a'] },
  response: [],
  score: score as DecimalString | null,
  possible: '2' as DecimalString,
  feedback: '',
  ...given,
});
const quiz = (...questions: QuizQuestion[]) => ({ title: 'Flow', questions });

describe('questions to practise', () => {
  it('are those that lost points when they were answered last, the most first', () => {
    const first = quiz(question('a', 1, '0'), question('b', 2, '0'), question('c', 3, '1'));
    const second = quiz(question('a', 1, '2'), question('b', 2, '1'), question('d', 4, '0'));
    expect(
      missedQuestions([first, second]).map(({ question: { id }, lost }) => [id, toShown(lost, 1)]),
    ).toEqual([
      ['d', '2'],
      ['b', '1'],
      ['c', '1'],
    ]);
  });

  it('leave out what is not marked, and what nobody knows the wording of', () => {
    expect(missedQuestions([quiz(question('a', 1, null), question('b', 2, '0', { item: null }))])).toEqual(
      [],
    );
    // One that waits for its mark is known by the attempt before.
    expect(missedQuestions([quiz(question('a', 1, '0')), quiz(question('a', 1, null))])).toHaveLength(1);
  });
});

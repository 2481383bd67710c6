import { describe, expect, it } from 'vitest';
import { exampleRemark, wordsTarget } from '../model/example.ts';
import type { QuizQuestion, QuizResults } from '../quiz/question.ts';
import type { DecimalString } from '../model/ids.ts';
import { questionsChanged } from './before-after.ts';
import { comesBackTo } from './said-again.ts';

const remark = (id: string, text: string, exact = '') =>
  exampleRemark({ id, text, ...(exact !== '' && { targets: [wordsTarget(exact)] }) });

describe('what is said again', () => {
  const earlier = [
    remark(
      'control',
      'So there is no control. Say so in plain words, say why it was not possible.',
      'left without dams',
    ),
    remark('units', 'Millimetres everywhere else. Keep to one unit.', 'from 31 cm to 27 cm'),
    remark('praise', 'The best paragraph of the report.'),
  ];

  it('is told by words that are used again', () => {
    const later = [remark('again', 'That there is no control is still not said in plain words.')];
    expect(comesBackTo(later, earlier, () => []).map((one) => one.earlier.id)).toEqual(['control']);
  });

  it('is told by its place, in the passage or in what answered it', () => {
    const inPassage = remark('a', 'Centimetres again.', 'changed least, from 31 cm to 27 cm');
    const inAnswer = remark('b', 'Still too loose.', 'every ditch of the bog got its dam in April');
    const answers = (one: { id: string }) =>
      one.id === 'control' ? ['In the end every ditch of the bog got its dam in April.'] : [];
    expect(comesBackTo([inPassage, inAnswer], earlier, answers).map((one) => one.earlier.id)).toEqual([
      'units',
      'control',
    ]);
  });

  it('is nothing where a remark is about something new', () => {
    expect(comesBackTo([remark('new', 'Where is your list of figures?')], earlier, () => [])).toEqual([]);
  });
});

describe('a quiz taken again', () => {
  const question = (id: string, score: string | null): QuizQuestion => ({
    id,
    number: 1,
    item: null,
    response: [],
    score: score as DecimalString | null,
    possible: '2' as DecimalString,
    feedback: '',
  });
  const taking = (...questions: QuizQuestion[]): QuizResults => ({ title: 'Quiz', questions });

  it('tells what became of each question that both have marked', () => {
    const first = taking(
      question('a', '0'),
      question('b', '1'),
      question('c', '2'),
      question('d', '2'),
      question('e', '1'),
    );
    const last = taking(
      question('a', '2'),
      question('b', '1'),
      question('c', '0'),
      question('d', '2'),
      question('e', null),
    );
    expect(questionsChanged(first, last).map(({ kind }) => kind)).toEqual([
      'gained',
      'still lost',
      'newly lost',
      'kept',
    ]);
  });
});

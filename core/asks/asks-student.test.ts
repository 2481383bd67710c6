import { expect, it } from 'vitest';
import { exampleJudgement, exampleRemark } from '../model/example.ts';
import type { Judgement, Stance } from '../model/work.ts';
import { exampleSaying } from '../saying/example.ts';
import { asksTheStudent } from './asks-student.ts';

const remark = exampleRemark({ id: 'r', text: 'Did you weigh it wet?' });
const asks = (stance: Stance, judgement: Partial<Judgement> | null = null, of = remark) =>
  asksTheStudent(
    {
      sayings: new Map([['r', exampleSaying(stance)]]),
      judgements: new Map(judgement === null ? [] : [['r', exampleJudgement('r', judgement)]]),
    },
    of,
  );

it('waits for the student’s answer as long as there is none', () => {
  expect(asks('question')).toBe(true);
  expect(asks('question', { decision: 'act' })).toBe(true);
  expect(asks('question', { reply: 'Yes, all of it.' })).toBe(false);
  expect(asks('question', { decision: 'decline' })).toBe(false);
  expect(asks('fix')).toBe(false);
  // Nobody waits behind a match of a report, or a mark without words.
  expect(asks('question', null, { ...remark, channel: 'overlap' })).toBe(false);
  expect(asks('question', null, { ...remark, text: '' })).toBe(false);
});

import { expect, it } from 'vitest';
import { exampleSaying } from './example.ts';
import { taskWording } from './task-wording.ts';

it.each([
  ['Yes! Say in plain words that there is no control.', 'Say in plain words that there is no control'],
  ['So there is no control.', 'Add the control'],
  ['−2: no sketch of the apparatus', 'Add the sketch of the apparatus'],
  ['You lost three points here because the analysis isn’t linked to the theory.', 'Link the analysis'],
  ['Fold the plan.', 'Fold the plan'],
  ['sp.', 'Mend the spelling'],
  ['Source?', 'Give the source'],
  ['You need to explain why this is a problem.', 'Explain why this is a problem'],
  ['Could you perhaps add a sentence on method?', 'Add a sentence on method'],
  ['I’d like to see more on the costs.', 'Add more on the costs'],
  ['Why 20 minutes and not 10?', 'Answer in the text: why 20 minutes and not 10?'],
  ['The hypothesis is missing from your report.', 'Add the hypothesis'],
  ['I’m not sure what you mean by “sustainable”.', 'Say what you mean by “sustainable”'],
  ['The table says 14.', 'Improve the table: it says 14'],
])('%j becomes %j', (text, wording) => {
  expect(taskWording(text, [])).toBe(wording);
});

it('comes from the part that asks, and is null without words', () => {
  const text = 'Lovely opening. Add the source of the second claim.';
  const part = exampleSaying('fix').parts[0];
  const parts = [
    { ...part, from: 0, to: 15, stance: 'praise' as const },
    { ...part, from: 16, to: text.length },
  ];
  expect(taskWording(text, parts)).toBe('Add the source of the second claim');
  expect(taskWording('  ', [])).toBeNull();
  expect((taskWording(`Explain ${'very '.repeat(40)}well.`, []) ?? '').length).toBeLessThanOrEqual(92);
});

import { describe, expect, it } from 'vitest';
import { exampleRemark, wordsTarget } from '../model/example.ts';
import { stanceOfMatch } from './match.ts';

const match = (exact: string, text: string, around: { prefix?: string; suffix?: string } = {}) =>
  stanceOfMatch(
    exampleRemark({
      channel: 'overlap',
      text,
      targets: [{ ...wordsTarget(exact), quote: { exact, prefix: '', suffix: '', ...around } }],
    }),
  );

describe('what a match says', () => {
  it('is that words taken over without mark and source must be fixed', () => {
    expect(match('the level rose and fell with the rain', '8 words stand in Ferrow, Slow water.')).toBe(
      'must-fix',
    );
  });

  it('is milder with a source or with quotation marks, and nothing with both', () => {
    const said = '8 words stand in Ferrow, Slow water.';
    const source = ' (Ferrow, 2014, p. 3). After that';
    expect(match('the level rose and fell with the rain', said, { suffix: source })).toBe('fix');
    expect(match('the level rose', said, { prefix: 'she writes “', suffix: '”, and adds' })).toBe('fix');
    expect(match('the level rose', said, { prefix: 'writes “', suffix: `”${source}` })).toBe('note');
    expect(match('the level rose', said, { suffix: ' [12] and so on' })).toBe('fix');
  });

  it('is a plain note for a line of the reference list and what was given to everybody', () => {
    expect(match('Ferrow, L. (2014) Slow water. Mire Notes 3, 1-9.', '9 words stand elsewhere.')).toBe(
      'note',
    );
    expect(match('on a bog', '3 words of a reference stand in four papers.')).toBe('note');
    expect(match('Write about one bog.', '4 words stand in the brief of this assignment.')).toBe('note');
  });

  it('is a question where the words are one’s own or a fellow student’s', () => {
    expect(match('I dug', '2 words stand in your own Post 2.')).toBe('question');
    expect(match('We dug', '2 words stand in a report by another student of this course.')).toBe('question');
  });
});

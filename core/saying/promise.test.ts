import { describe, expect, it } from 'vitest';
import { promiseIn } from './promise.ts';

describe('promises', () => {
  it('tell where more is said to be', () => {
    expect(promiseIn('Good start. See my notes in the file.')).toEqual({
      place: 'paper',
      sentence: 'See my notes in the file.',
    });
    expect(promiseIn('The rest is in the recording: listen to the second half.')?.place).toBe('recording');
    expect(promiseIn('We talked about this in class.')?.place).toBe('class');
  });

  it('are not made by pointing to a book, or by the student’s own notes', () => {
    expect(promiseIn('See Halvard, chapter 3, for notes on method.')).toBeNull();
    expect(promiseIn('Beautifully kept field notes.')).toBeNull();
    expect(promiseIn('Explain why the well is dry.')).toBeNull();
  });
});

import { describe, expect, it } from 'vitest';
import { fromDecimal, toShown, ZERO } from '../scores/fraction.ts';
import type { DecimalString } from '../model/ids.ts';
import { exampleAssignment, exampleAttempt, exampleFile, exampleMarking } from '../model/example.ts';
import {
  scoreOfAttempt,
  latenessOf,
  markedAttempts,
  returnedFiles,
  scoreChangeIn,
  standing,
} from './attempts.ts';

const attempt = (number: number, more: object = {}) =>
  exampleAttempt({ id: `a-${number}`, number, at: `2026-11-0${number}T10:00:00.000Z`, ...more });
const marking = (id: string, attemptId: string, day: number, more: object = {}) =>
  exampleMarking({ id, attemptId, at: `2026-11-${String(day).padStart(2, '0')}T10:00:00.000Z`, ...more });
const withdrawal = (attemptId: string) =>
  ({ attemptId, assignmentId: 'a', at: '2026-11-05T10:00:00.000Z' }) as never;
const points = (value: string) => fromDecimal(value as DecimalString);
const shownScore = (...given: Parameters<typeof scoreOfAttempt>) => {
  const score = scoreOfAttempt(...given);
  return score === null ? null : toShown(score, 2);
};
const second = { name: 'Orla Finch', role: 'second marker' };

describe('attempts with their markings', () => {
  it('stand by number, each with its markings by time and the latest on top', () => {
    const all = markedAttempts(
      [attempt(2), attempt(1)],
      [marking('late', 'a-1', 9), marking('early', 'a-1', 3), marking('other', 'a-2', 8)],
      [],
    );
    expect(all.map((each) => [each.attempt.number, each.markings.map(({ id }) => id as string)])).toEqual([
      [1, ['early', 'late']],
      [2, ['other']],
    ]);
    expect(all[0].marking?.id).toBe('late');
  });

  it('count no more once they were taken back, and stay on record', () => {
    const all = markedAttempts([attempt(1), attempt(2)], [], [withdrawal('a-1')]);
    expect(all).toHaveLength(2);
    expect(standing(all).map(({ attempt: { number } }) => number)).toEqual([2]);
  });

  it('are told by a marking alone where the desk has no attempt', () => {
    const [lost] = markedAttempts([], [marking('m', 'gone', 3, { score: '5' })], []);
    expect(lost).toMatchObject({ missing: true, attempt: { id: 'gone', number: 1, files: [] } });
    expect(shownScore(lost, exampleAssignment(), null)).toBe('5');
    expect(latenessOf(lost, exampleAssignment(), null)).toBeNull();
  });
});

describe('the score of an attempt', () => {
  const late = { graceHours: 1, pointsPerDay: '2', maxPoints: '5' };
  const due = '2026-11-01T09:30:00.000Z';
  const one = (assignment: object, more: object = {}, score = '10') => {
    const [each] = markedAttempts([attempt(1, more)], [marking('m', 'a-1', 9, { score })], []);
    const subject = exampleAssignment({ dueAt: due, late, ...assignment });
    return [shownScore(each, subject, null), latenessOf(each, subject, null)] as const;
  };

  it('is as it was given within the grace, and less after it', () => {
    expect(one({})).toEqual(['10', { hours: 0, days: 0, deduction: ZERO }]);
    expect(one({ dueAt: '2026-11-01T08:00:00.000Z' })).toEqual([
      '8',
      { hours: 2, days: 1, deduction: points('2') },
    ]);
    expect(one({ dueAt: '2026-10-20T08:00:00.000Z' })[0]).toBe('5');
  });

  it('goes by the own extension, and by the attempt’s own due time before that', () => {
    const early = { dueAt: '2026-10-25T08:00:00.000Z' };
    expect(one({ ...early, extendedTo: '2026-11-02T08:00:00.000Z' })).toEqual(['10', null]);
    expect(one(early, { dueAt: '2026-11-02T08:00:00.000Z' })).toEqual(['10', null]);
    expect(one({ ...early, late: null })).toMatchObject(['10', { deduction: ZERO }]);
  });

  it('is no less for a later attempt, which has no due time', () => {
    const [, again] = markedAttempts([attempt(1), attempt(2)], [marking('m', 'a-2', 9, { score: '10' })], []);
    expect(shownScore(again, exampleAssignment({ dueAt: due, late }), null)).toBe('10');
  });

  it('is kept when another marker gives words alone', () => {
    const [each] = markedAttempts(
      [attempt(1)],
      [marking('m', 'a-1', 3, { score: '7' }), marking('n', 'a-1', 4, { marker: second })],
      [],
    );
    expect(shownScore(each, exampleAssignment(), null)).toBe('7');
  });
});

describe('a score that was changed', () => {
  const change = (...markings: ReturnType<typeof marking>[]) => {
    const found = scoreChangeIn(markedAttempts([attempt(1), attempt(2)], markings, []));
    return found === null ? null : [found.before.score, found.after.score];
  };

  it('is one that the same hand gave otherwise before', () => {
    expect(change(marking('m', 'a-1', 3, { score: '5' }), marking('n', 'a-1', 4, { score: '6' }))).toEqual([
      '5',
      '6',
    ]);
    expect(change(marking('m', 'a-1', 3, { score: '5' }), marking('n', 'a-1', 4, { score: '5' }))).toBeNull();
    expect(change(marking('m', 'a-1', 3), marking('n', 'a-1', 4, { score: '5' }))).toBeNull();
  });

  it('is not that of another attempt, nor another marker’s', () => {
    expect(change(marking('m', 'a-1', 3, { score: '5' }), marking('n', 'a-2', 4, { score: '6' }))).toBeNull();
    expect(
      change(marking('m', 'a-1', 3, { score: '5' }), marking('n', 'a-1', 4, { score: '6', marker: second })),
    ).toBeNull();
  });
});

describe('files that came back', () => {
  const file = (name: string, letter: string) => exampleFile({ name, hash: letter.repeat(64) });
  const names = (...markings: ReturnType<typeof marking>[]) =>
    returnedFiles(markedAttempts([attempt(1)], markings, [])).map(({ fact }) => fact.hash[0]);

  it('take the place of an older form by name, from the same hand', () => {
    const old = marking('m', 'a-1', 3, { files: [file('report.pdf', 'a'), file('log.pdf', 'b')] });
    const anew = marking('n', 'a-1', 4, { files: [file('report.pdf', 'c')] });
    expect(names(old, anew)).toEqual(['b', 'c']);
    expect(names(old, { ...anew, marker: second as never })).toEqual(['a', 'b', 'c']);
  });
});

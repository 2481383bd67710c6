import { describe, expect, it } from 'vitest';
import { courseGrade } from '#core/scores/course-grade.ts';
import { courseOut, odditiesOf, readCourse } from './read-course.ts';

const out = (course: unknown) => courseOut(courseGrade(readCourse(JSON.stringify(course))));
const one = (id: string, category: string, possible: number, score: number | null, more: object = {}) => ({
  id,
  category,
  possible,
  attempts: [{ at: '2026-10-01T10:00:00+01:00', score }],
  ...more,
});

describe('a course as JSON', () => {
  it('comes to its grade, categories and scores', () => {
    const scores = [
      ['a', 10, 8],
      ['b', 50, 38],
      ['c', 10, 3],
      ['d', 60, 20],
      ['e', 10, 9],
    ] as const;
    expect(
      out({
        scheme: 'weighted',
        categories: [
          { id: 'k', weight: 100, drop: 1 },
          { id: 'none', weight: 20 },
        ],
        assignments: [
          ...scores.map(([id, possible, score]) => one(id, 'k', possible, score)),
          one('x', 'k', 5, null),
        ],
      }),
    ).toEqual({
      grade: 0.725,
      categories: [
        { id: 'k', ratio: 0.725, earned: 58, possible: 80, dropped: ['d'] },
        { id: 'none', ratio: null, earned: 0, possible: 0, dropped: [] },
      ],
      assignments: [
        { id: 'a', score: 8 },
        { id: 'b', score: 38 },
        { id: 'c', score: 3 },
        { id: 'd', score: 20 },
        { id: 'e', score: 9 },
        { id: 'x', score: null },
      ],
    });
  });

  it('takes lateness off by the attempt’s own due time or the assignment’s, then the policy', () => {
    const late = { graceHours: 2, pointsPerDay: 4, maxPoints: 10 };
    const { assignments } = out({
      scheme: 'points',
      assignments: [
        {
          id: 'a',
          possible: 40,
          due: '2026-11-02T12:00:00+00:00',
          late,
          policy: { kind: 'mean' },
          attempts: [
            { at: '2026-11-03T13:01:00+01:00', score: 26 },
            { at: '2026-11-09T12:00:00Z', score: 37, due: '2026-11-10T12:00:00Z' },
          ],
        },
        {
          id: 'b',
          possible: 40,
          policy: { kind: 'recover', value: 0.5 },
          attempts: [{ score: 26 }, { score: 37 }],
        },
        {
          id: 'c',
          possible: 40,
          policy: { kind: 'capped', value: '0.85' },
          attempts: [
            { at: '2026-11-09T12:00:00Z', score: 37 },
            { at: '2026-11-01T12:00:00Z', score: 26 },
          ],
        },
      ],
    });
    expect(assignments.map(({ score }) => score)).toEqual([27.5, 31.5, 34]);
  });

  it('is null where nothing counts, and leaves out what is left out', () => {
    expect(out({ scheme: 'points' })).toEqual({ grade: null, categories: [], assignments: [] });
    expect(
      out({
        scheme: 'weighted',
        assignments: [{ id: 'a', possible: 10, excused: true, attempts: [{ score: 5 }] }],
      }),
    ).toEqual({
      grade: null,
      categories: [],
      assignments: [{ id: 'a', score: null }],
    });
  });

  it('computes numbers as they are written, also with an exponent, and above 100 %', () => {
    expect(
      out({
        scheme: 'points',
        assignments: [{ id: 'a', possible: 0.3, attempts: [{ score: 0.1 }, { score: 3e-1 }] }],
      }).grade,
    ).toBe(1);
    expect(
      out({ scheme: 'points', assignments: [{ id: 'a', possible: 1e1, attempts: [{ score: 15e-1 }] }] })
        .grade,
    ).toBe(0.15);
    expect(
      out({ scheme: 'points', assignments: [{ id: 'a', possible: 10, attempts: [{ score: 12 }] }] }).grade,
    ).toBe(1.2);
  });

  it.each([
    ['{', 'it is not JSON'],
    ['{}', 'scheme: it is missing'],
    [
      '{"scheme":"points","assignments":[{"id":"a","possible":"x"}]}',
      'assignments[0].possible: a number is wanted',
    ],
    [
      '{"scheme":"points","assignments":[{"id":"a","due":"2026-11-02"}]}',
      'assignments[0].due: a time in ISO 8601 with its offset',
    ],
    [
      '{"scheme":"points","assignments":[{"id":"a","category":"k"}]}',
      'assignments[0].category: there is no category “k”',
    ],
    ['{"scheme":"points","assignments":[{"id":"a"},{"id":"a"}]}', 'two of its assignment ids are “a”'],
    [
      '{"scheme":"points","assignments":[{"id":"a","policy":{"kind":"capped"}}]}',
      '“capped” and “recover” want a value',
    ],
    [
      '{"scheme":"points","assignments":[{"id":"a","policy":{"kind":"worst"}}]}',
      'assignments[0].policy.kind: one of latest, best',
    ],
  ])('says what is wrong in %s', (json, said) => {
    expect(() => readCourse(json)).toThrow(said);
  });

  it('says what is odd and used as it is', () => {
    const course = readCourse(
      JSON.stringify({
        scheme: 'weighted',
        categories: [{ id: 'k', weight: 60, drop: 3 }],
        assignments: [one('a', 'k', 10, 12), one('b', 'k', 10, -1)],
      }),
    );
    expect(odditiesOf(course)).toEqual([
      'the weights add up to 60, not 100; they are used as they are',
      '“k” drops 3 of 2 marked; the best one stays',
      'attempt 1 of “a” has a score above the points possible; it is used as it is',
      'attempt 1 of “b” has a score below 0; it is used as it is',
    ]);
  });
});

import { describe, expect, it } from 'vitest';
import type { Assignment, Attempt, Course, Marking, Rubric } from '../model/facts.ts';
import {
  exampleAssignment,
  exampleAttempt,
  exampleCourse,
  exampleFile,
  exampleMarking,
  exampleRubric,
} from '../model/example.ts';
import { fromDecimal, multiply, toShown, type Fraction } from '../scores/fraction.ts';
import { recordsIn, type AssignmentRecordMaps } from './records.ts';
import { missingByCriterion, standingOf } from './standing.ts';
import { viewOf } from './view.ts';
import { gradedCourseOf, weightsIn, worthOf } from './worth.ts';

interface Given {
  readonly course: Course;
  readonly assignments: readonly Assignment[];
  readonly attempts?: readonly Attempt[];
  readonly markings?: readonly Marking[];
  readonly rubrics?: readonly Rubric[];
}

const NONE = new Map<string, never>();
const byId = <One extends { readonly id: string }>(all: readonly One[]) =>
  new Map(all.map((one) => [one.id, one]));

function recordsOf({ course, assignments, attempts = [], markings = [], rubrics = [] }: Given) {
  const maps: AssignmentRecordMaps = {
    courses: byId([course]),
    assignments: byId(assignments),
    attempts: byId(attempts),
    markings: byId(markings),
    rubrics: byId(rubrics),
    withdrawals: NONE,
    arrivals: NONE,
    remarks: NONE,
    markKeys: NONE,
    readings: NONE,
    judgements: NONE,
    tasks: NONE,
    queries: NONE,
    promises: NONE,
    drafts: NONE,
    submissions: NONE,
    files: NONE,
    people: NONE,
    aims: NONE,
    answers: NONE,
    sayings: NONE,
  };
  return recordsIn(maps);
}

const NOW = Date.parse('2026-11-02T10:00:00.000Z');
const percent = (share: Fraction | null | undefined) =>
  share === null || share === undefined ? share : toShown(multiply(share, fromDecimal('100' as never)), 2);

const rubric = exampleRubric([
  { id: 'aim', title: 'Aim', possible: '12' },
  { id: 'way', title: 'Way', possible: '8' },
]);
const course = exampleCourse({
  scheme: 'weighted',
  categories: [
    { id: 'reports', title: 'Reports', weight: '50', drop: 0, extraCredit: false },
    { id: 'quizzes', title: 'Quizzes', weight: '50', drop: 0, extraCredit: false },
  ],
});
const report = exampleAssignment({
  id: 'report',
  categoryId: 'reports',
  possible: '20',
  rubricId: 'r',
  attemptsAllowed: 2,
});
const later = exampleAssignment({ id: 'later', categoryId: 'reports', possible: '60' });
const quiz = exampleAssignment({ id: 'quiz', categoryId: 'quizzes', possible: '10' });
const attempt = (assignmentId: string, number: number) =>
  exampleAttempt({ id: `${assignmentId}-${number}`, assignmentId, number });
const marked = (assignmentId: string, number: number, score: string, criteria: Record<string, string> = {}) =>
  exampleMarking({
    id: `${assignmentId}-${number}-m`,
    assignmentId,
    attemptId: `${assignmentId}-${number}`,
    score,
    criteria: Object.entries(criteria).map(([criterionId, points]) => ({
      criterionId,
      points,
      level: null,
      comment: '',
    })),
  });

describe('where the missing points lie', () => {
  const missing = (markings: readonly Marking[]) => {
    const records = recordsOf({
      course,
      assignments: [report],
      rubrics: [rubric],
      attempts: markings.map((_, n) => attempt('report', n + 1)),
      markings,
    });
    const standing = standingOf(records, course.id, (id) => viewOf(records, id, NOW));
    if (standing === null) throw new Error('no standing');
    return missingByCriterion(standing).map((one) => [one.title, percent(one.missing)]);
  };

  it('is told of the attempt that counts, and nothing has to be balanced', () => {
    // What one works on is still the paper that was marked first.
    const first = { ...marked('report', 1, '10', { aim: '6', way: '4' }), files: [exampleFile()] };
    expect(missing([first])).toEqual([
      ['Aim', '30'],
      ['Way', '20'],
    ]);
    expect(missing([first, marked('report', 2, '17', { aim: '11', way: '6' })])).toEqual([
      ['Way', '10'],
      ['Aim', '5'],
    ]);
    expect(missing([first, marked('report', 2, '20', { aim: '12', way: '8' })])).toEqual([]);
  });
});

describe('the weight of an assignment', () => {
  it('is what it is of what is marked so far, and of the whole', () => {
    const weights = (markings: readonly Marking[]) => {
      const records = recordsOf({
        course,
        assignments: [report, later, quiz],
        attempts: markings.map(({ assignmentId }) => attempt(assignmentId, 1)),
        markings,
      });
      const graded = gradedCourseOf(records, course);
      if (graded === null) throw new Error('no grade');
      return Object.fromEntries(
        [...weightsIn(graded)].map(([id, { soFar, whole }]) => [id, [percent(soFar), percent(whole)]]),
      );
    };
    // The half of reports: 20 of 80 points, once the later one is marked.
    const one = marked('report', 1, '15');
    expect(weights([one])).toEqual({ report: ['100', '12.5'], later: [null, '37.5'], quiz: [null, '50'] });
    const two = marked('quiz', 1, '9');
    expect(weights([one, two])).toEqual({
      report: ['50', '12.5'],
      later: [null, '37.5'],
      quiz: ['50', '50'],
    });
    const three = marked('later', 1, '30');
    const all = { report: ['12.5', '12.5'], later: ['37.5', '37.5'], quiz: ['50', '50'] };
    expect(weights([one, two, three])).toEqual(all);
  });
});

describe('what another attempt can still move', () => {
  it('is the grade with and without it, and none where it would raise nothing', () => {
    const given = (score: string) =>
      recordsOf({
        course,
        assignments: [report, quiz],
        attempts: [attempt('report', 1), attempt('quiz', 1)],
        markings: [marked('report', 1, score), marked('quiz', 1, '8')],
      });
    const worth = worthOf(given('10'), 'report');
    expect([worth?.now, worth?.most, worth?.gain].map(percent)).toEqual(['65', '90', '25']);
    expect(worthOf(given('20'), 'report')).toBeNull();
    expect(worthOf(given('10'), 'elsewhere')).toBeNull();
    const free = recordsOf({ course: { ...course, scheme: null }, assignments: [report] });
    expect(worthOf(free, 'report')).toBeNull();
  });
});

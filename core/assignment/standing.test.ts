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
import type { Spell } from '../model/work.ts';
import type { PlannedTask } from '../plan/tasks.ts';
import { gradeGain, tasksAcross } from './grade-gain.ts';
import { minutesSpent, takenUntil, weekJobs } from './jobs.ts';
import { recordsIn, type AssignmentRecordMaps } from './records.ts';
import { missingByCriterion, standingOf } from './standing.ts';
import { viewOf, type AssignmentView } from './view.ts';
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

describe('what points won do to the course grade', () => {
  const gained = (hundredths: number, of: Partial<Assignment> = {}, quizScore = '8') => {
    const open = {
      ...report,
      closesAt: exampleAssignment({ closesAt: '2026-11-20T18:00:00.000Z' }).closesAt,
      ...of,
    };
    const records = recordsOf({
      course,
      assignments: [open, quiz],
      attempts: [attempt('report', 1), attempt('quiz', 1)],
      markings: [marked('report', 1, '10'), marked('quiz', 1, quizScore)],
    });
    const view = viewOf(records, 'report', NOW);
    if (view === null) throw new Error('no view');
    const grade = gradeGain(records, view, hundredths);
    return grade === null ? null : [percent(grade.now), percent(grade.then)];
  };

  it('is computed as a whole, with the rules and their caps', () => {
    // Half of the grade hangs on 20 points: a point is 2.5 %.
    expect(gained(400)).toEqual(['65', '75']);
    expect(gained(0)).toEqual(['65', '65']);
    // No more than all of its points; under a cap no more than that.
    expect(gained(5000)).toEqual(['65', '90']);
    expect(gained(5000, { policy: { kind: 'capped', cap: '0.85' as never } })).toEqual(['65', '82.5']);
  });

  it('is nothing where no other attempt is taken', () => {
    expect(gained(400, { closesAt: null })).toBeNull();
    expect(gained(400, { attemptsAllowed: 1 })).toBeNull();
  });

  it('lets tasks of several assignments be compared, and what nobody can tell of come last', () => {
    const task = (id: string, gain: number | null, importance = 0) => ({
      task: { id, minutes: 10, done: false, needs: [], pin: null } as never,
      behind: gain,
      gain,
      importance,
    });
    const view = (id: string, possible: string | null, tasks: readonly PlannedTask[]) =>
      ({ assignment: { id, possible }, tasks }) as unknown as AssignmentView;
    const half = { n: 1n, d: 2n };
    const across = tasksAcross(
      [
        view('small', '10', [task('a', 100)]),
        view('large', '100', [task('b', 100)]),
        view('unknown', null, [task('c', null, 3), task('d', null)]),
      ],
      ({ assignment: { id } }) => (id === ('unknown' as never) ? null : { soFar: half, whole: half }),
    );
    const gain = Object.fromEntries(across.map((one) => [one.id, Math.floor(one.gain)]));
    // A point of ten is 5 % of the grade, one of a hundred 0.5 %: in ten thousandths.
    expect(gain).toEqual({ a: 500, b: 50, c: 0, d: 0 });
    expect(across.toSorted((x, y) => y.gain - x.gain).map(({ id }) => id)).toEqual(['a', 'b', 'c', 'd']);
  });
});

describe('by when work is taken', () => {
  const at = (text: string) => exampleAssignment({ dueAt: text }).dueAt;
  const view = (assignment: Partial<Assignment>, sent: number, kind: string, byDesk = true) =>
    ({
      assignment: { extendedTo: null, dueAt: null, closesAt: null, ...assignment },
      attempts: Array.from({ length: sent }),
      state: { kind },
      byDesk,
      tasks: [
        {
          task: { id: 't', minutes: 10, done: false, needs: [], pin: null },
          gain: 10,
          behind: 10,
          importance: 1,
        },
      ],
    }) as unknown as AssignmentView;
  const due = at('2026-11-10T18:00:00.000Z');
  const closes = at('2026-11-12T18:00:00.000Z');

  it('is when a first one is due, extended or not, and until when another closes', () => {
    expect(takenUntil(view({ dueAt: due, closesAt: closes }, 0, 'draft begun'))).toBe(Date.parse(due ?? ''));
    expect(takenUntil(view({ dueAt: due, extendedTo: closes }, 0, 'draft begun'))).toBe(
      Date.parse(closes ?? ''),
    );
    expect(takenUntil(view({ dueAt: due, closesAt: closes }, 1, 'waiting again'))).toBe(
      Date.parse(closes ?? ''),
    );
    expect(takenUntil(view({}, 0, 'draft begun'))).toBeNull();
  });

  it('leaves out what is over, but not work that no desk takes', () => {
    const jobs = (...views: AssignmentView[]) =>
      weekJobs(views, () => null, new Map(), 3_600_000, NOW).map(({ by }) => by);
    expect(jobs(view({ closesAt: closes }, 1, 'open for another attempt'))).toEqual([
      Date.parse(closes ?? '') - 3_600_000,
    ]);
    expect(jobs(view({}, 1, 'finished'))).toEqual([]);
    expect(jobs(view({}, 1, 'finished', false))).toEqual([Infinity]);
    expect(jobs(view({ closesAt: at('2026-11-01T18:00:00.000Z') }, 1, 'finished', false))).toEqual([]);
  });

  it('counts whole minutes of what was spent', () => {
    const spell = (taskId: string, from: string, to: string | null) =>
      ({ id: from, taskId, from, to, lastSeen: from }) as unknown as Spell;
    const spent = minutesSpent(
      [
        spell('t', '2026-11-02T08:00:00.000Z', '2026-11-02T08:10:30.000Z'),
        spell('t', '2026-11-02T09:00:00.000Z', '2026-11-02T09:00:45.000Z'),
        spell('u', '2026-11-02T09:55:00.000Z', null),
      ],
      NOW,
    );
    expect([...spent]).toEqual([
      ['t', 11],
      ['u', 5],
    ]);
  });
});

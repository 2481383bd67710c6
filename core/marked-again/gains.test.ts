import { describe, expect, it } from 'vitest';
import {
  exampleAssignment,
  exampleAttempt,
  exampleCourse,
  exampleJudgement,
  exampleMarking,
  exampleRemark,
  exampleRubric,
  exampleTask,
} from '../model/example.ts';
import { instantOf } from '../model/ids.ts';
import { estimatesFrom } from '../plan/estimates.ts';
import { standardOf } from '../plan/tasks.ts';
import { courseMoved } from '../assignment/grade-gain.ts';
import { recordsIn, type AssignmentRecordMaps } from '../assignment/records.ts';
import { viewOf } from '../assignment/view.ts';
import { beforeAndAfter } from './before-after.ts';
import { didItWork } from './did-it-work.ts';
import { gainsOf, pastLosses, timedChanges } from './gains.ts';

const NOW = Date.parse('2026-11-02T10:00:00.000Z');
const NONE = new Map<string, never>();
const byId = <One extends { readonly id: string }>(all: readonly One[]) =>
  new Map(all.map((one) => [one.id, one]));

/** A report with two criteria of ten points, sent twice: 4 and 6 first, then 7 and 5. */
function recordsWith(change: Partial<AssignmentRecordMaps> = {}): AssignmentRecordMaps {
  const remark = (id: string, criterionId: string) => exampleRemark({ id, criterionId });
  const judged = (remarkId: string, stance: string) =>
    exampleJudgement(remarkId, { decision: 'act', stance });
  const results = (first: string, second: string) => [
    { criterionId: 'c-1', points: first, level: null, comment: '' },
    { criterionId: 'c-2', points: second, level: null, comment: '' },
  ];
  const task = (id: string, remarkId: string, done: boolean) =>
    exampleTask(id, { done, about: [{ remarkId, partId: null }] });
  return {
    courses: byId([exampleCourse({ id: 'x', scheme: 'points' })]),
    assignments: byId([
      exampleAssignment({
        id: 'a',
        courseId: 'x',
        possible: '20',
        rubricId: 'r',
        attemptsAllowed: 2,
        policy: { kind: 'latest' },
      }),
    ]),
    rubrics: byId([exampleRubric([{ possible: '10' }, { possible: '10' }])]),
    attempts: byId([exampleAttempt(), exampleAttempt({ id: 'a-2', number: 2 })]),
    markings: byId([
      exampleMarking({ score: '10', criteria: results('4', '6') }),
      exampleMarking({ id: 'm-2', attemptId: 'a-2', score: '12', criteria: results('7', '5') }),
    ]),
    remarks: byId([remark('one', 'c-1'), remark('two', 'c-1'), remark('three', 'c-2')]),
    judgements: new Map(
      [judged('one', 'must-fix'), judged('two', 'must-fix'), judged('three', 'fix')].map((one) => [
        one.remarkId as string,
        one,
      ]),
    ),
    tasks: byId([task('t-1', 'one', true), task('t-2', 'two', false), task('t-3', 'three', true)]),
    withdrawals: NONE,
    arrivals: NONE,
    markKeys: NONE,
    readings: NONE,
    queries: NONE,
    promises: NONE,
    drafts: NONE,
    submissions: NONE,
    files: NONE,
    people: NONE,
    aims: NONE,
    answers: NONE,
    sayings: NONE,
    ...change,
  };
}

function viewIn(maps: AssignmentRecordMaps) {
  const view = viewOf(recordsIn(maps), 'a', NOW);
  if (view === null) throw new Error('no view');
  return view;
}

describe('what came of another attempt', () => {
  it('is what came back in each place, beside the changes that were made for it', () => {
    const gains = gainsOf(viewIn(recordsWith()));
    expect(
      gains?.places.map(({ loss, real, made }) => [loss.lost, real, made.map(({ points }) => points)]),
    ).toEqual([
      [600, 300, [300]],
      [400, -100, [400]],
    ]);
    const { sentence } = estimatesFrom(pastLosses(gains === null ? [] : [gains]), []);
    // One won all of its points and one nothing: 8 of 12 cases.
    expect(sentence).toMatchObject({ cases: 2, chance: 8 / 12 });
  });

  it('is not known while only one attempt is marked, or the later one was taken back', () => {
    const [first] = recordsWith().markings.values();
    expect(gainsOf(viewIn(recordsWith({ markings: byId([first]) })))).toBeNull();
    const withdrawn = { id: 'w', assignmentId: 'a', attemptId: 'a-2', at: instantOf(NOW) };
    const maps = recordsWith({ withdrawals: new Map([['w', withdrawn as never]]) });
    expect(gainsOf(viewIn(maps))).toBeNull();
    expect(beforeAndAfter(viewIn(maps), standardOf)).toBeNull();
    expect(courseMoved(recordsIn(maps), viewIn(maps))).toBeNull();
  });

  it('is told by criterion, with what was planned by what was known then', () => {
    const compared = beforeAndAfter(viewIn(recordsWith()), standardOf);
    expect(compared?.criteria.map(({ planned, change }) => [planned, Number(change?.n)])).toEqual([
      [210, 3],
      [280, -1],
    ]);
    expect(compared?.planned).toBe(490);
    const doubtful = beforeAndAfter(viewIn(recordsWith()), () => ({ chance: 0.5, minutes: 10 }));
    expect(doubtful?.planned).toBe(350);
  });

  it('moves the course grade as the rules have it', () => {
    const maps = recordsWith();
    const moved = courseMoved(recordsIn(maps), viewIn(maps));
    expect([
      Number(moved?.now.n) / Number(moved?.now.d),
      Number(moved?.then.n) / Number(moved?.then.d),
    ]).toEqual([0.5, 0.6]);
  });

  it('adds up over assignments and kinds, with minutes', () => {
    const { rows, kinds } = didItWork([viewIn(recordsWith())], new Map([['t-1', 25]]), () => standardOf);
    const sums = { made: 2, planned: 490, real: 300, minutesPlanned: 20, minutesSpent: 25 };
    expect(rows).toMatchObject([sums]);
    expect(kinds).toMatchObject([{ kind: 'sentence', ...sums }]);
  });

  it('takes the minutes of changes that were done and timed', () => {
    const spell = (taskId: string) => ({
      id: taskId,
      taskId,
      from: instantOf(NOW - 20 * 60_000),
      to: instantOf(NOW),
      lastSeen: instantOf(NOW),
    });
    const tasks = [...recordsWith().tasks.values()];
    const spells = [spell('t-1'), spell('t-2')] as never[];
    expect(timedChanges(tasks, spells, NOW)).toEqual([{ kind: 'sentence', minutes: 20 }]);
  });
});

import { courseGrade, withAnotherAttempt } from '../scores/course-grade.ts';
import { add, compare, shareOf, toNumber, type Fraction } from '../scores/fraction.ts';
import { openTasks } from '../plan/time.ts';
import type { Choosable } from '../plan/problem.ts';
import { gradedAssignment, standing } from './attempts.ts';
import { givenFor, workedOn } from './points.ts';
import type { AssignmentRecords } from './records.ts';
import type { AssignmentView } from './view.ts';
import { gradedCourseOf, type Weight } from './worth.ts';

/** What points won on an assignment do to the course grade. */

/** The course grade as it is and as it would be; shares of 1. */
export interface GradeGain {
  readonly now: Fraction;
  readonly then: Fraction;
}

/**
 * What another attempt that wins so many hundredths of a point makes of the course grade, computed as a whole: policy, caps,
 * weights and drops are in it. null where no other attempt is open or the course has no grade.
 */
export function gradeGain(
  records: AssignmentRecords,
  { assignment, course, attempts, state }: AssignmentView,
  hundredths: number,
): GradeGain | null {
  const worked = workedOn(attempts);
  const graded = course === null ? null : gradedCourseOf(records, course);
  if (worked === null || graded === null || state.kind !== 'open for another attempt') return null;
  const own = graded.assignments.find(({ id }) => id === assignment.id);
  const given = givenFor(worked, assignment, course);
  if (own === undefined || given === null) return null;
  const won = add(given, shareOf(Math.round(hundredths), 100));
  const score = compare(won, own.possible) > 0 ? own.possible : won;
  const now = courseGrade(graded).grade;
  const then = courseGrade(withAnotherAttempt(graded, assignment.id, score)).grade;
  return now === null || then === null ? null : { now, then };
}

/**
 * What the attempts after the first marked one did to the course grade: computed with the first alone and with all of them, as
 * the rules have them, withdrawn and replaced ones too. null where only one is marked or the course has no grade.
 */
export function courseMoved(
  records: AssignmentRecords,
  { assignment, course, attempts }: AssignmentView,
): GradeGain | null {
  const graded = course === null ? null : gradedCourseOf(records, course);
  const own = graded?.assignments.find(({ id }) => id === assignment.id);
  if (graded === null || own === undefined) return null;
  const first = standing(attempts).find(({ marking }) => marking !== null);
  const alone = first === undefined ? null : gradedAssignment(assignment, [first], course);
  if (alone === null || standing(attempts).filter(({ marking }) => marking !== null).length < 2) return null;
  const assignments = graded.assignments.map((one) =>
    one.id === own.id ? { ...own, attempts: alone.attempts } : one,
  );
  const now = courseGrade({ ...graded, assignments }).grade;
  const then = courseGrade(graded).grade;
  return now === null || then === null ? null : { now, then };
}

/** Gains over several courses are compared in so much of a course grade. */
const PARTS_OF_GRADE = 10_000;

/**
 * The open tasks of several assignments, to be chosen among by what they do to course grades, in ten thousandths; what nobody
 * can tell of is chosen for what it weighs.
 * @param weightOf how much of its course grade an assignment is
 */
export function tasksAcross(
  views: readonly AssignmentView[],
  weightOf: (view: AssignmentView) => Weight | null,
): Choosable[] {
  return views.flatMap((view) => {
    const share = weightOf(view)?.whole ?? null;
    const possible = Number(view.assignment.possible ?? 0);
    const perHundredth =
      share === null || possible <= 0 ? 0 : (toNumber(share) * PARTS_OF_GRADE) / (possible * 100);
    return openTasks(view.tasks).map((task) => {
      const points = Math.floor(task.gain);
      const grade = Math.round(points * perHundredth * 1e3) / 1e3;
      return { ...task, gain: Math.round((grade + (task.gain - points)) * 1e6) / 1e6 };
    });
  });
}

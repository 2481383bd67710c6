import { courseGrade, withAnotherAttempt, type GradedCourse } from '../scores/course-grade.ts';
import { compare, fromDecimal, subtract, ZERO, type Fraction } from '../scores/fraction.ts';
import type { Course } from '../model/facts.ts';
import { explainGrade } from '../scores/explain.ts';
import { restOf, withRest } from '../scores/what-if.ts';
import { attemptsOf } from './points.ts';
import { gradedAssignment } from './attempts.ts';
import type { AssignmentRecords } from './records.ts';

/** What an assignment that is open again can still move in its course; the grade is a share, 1 = 100 %. */
export interface Worth {
  readonly now: Fraction;
  readonly most: Fraction;
  readonly gain: Fraction;
}

/** A course as its grade is computed; null where the school doesn't say how. */
export function gradedCourseOf(records: AssignmentRecords, course: Course): GradedCourse | null {
  if (course.scheme === null) return null;
  const known = new Set<string>(course.categories.map(({ id }) => id));
  const assignments = records
    .inCourse(course.id)
    .filter(({ possible }) => possible !== null)
    .map((assignment) => {
      const graded = gradedAssignment(assignment, attemptsOf(records, assignment.id), course);
      return known.has(graded.categoryId) ? graded : { ...graded, categoryId: '' };
    });
  return {
    scheme: course.scheme,
    categories: [
      ...course.categories.map(({ id, weight, drop, extraCredit }) => ({
        id,
        weight: weight === null ? ZERO : fromDecimal(weight),
        drop,
        extraCredit,
      })),
      // What stands in no group counts in a course of points, and has no weight in a weighted one.
      { id: '', weight: ZERO, drop: 0, extraCredit: false },
    ],
    assignments,
  };
}

/**
 * What one more attempt, given full points, would make of the course grade: computed as the grade with and without it, so
 * that policy, weights and drops are in it. null where it would raise nothing.
 */
export function worthIn(graded: GradedCourse, assignmentId: string): Worth | null {
  const own = graded.assignments.find(({ id }) => id === assignmentId);
  if (own === undefined) return null;
  const now = courseGrade(graded).grade;
  const most = courseGrade(withAnotherAttempt(graded, assignmentId, own.possible)).grade;
  if (now === null || most === null || compare(most, now) <= 0) return null;
  return { now, most, gain: subtract(most, now) };
}

/** The same for an assignment of the workspace; null too where the course has no grade. */
export function worthOf(records: AssignmentRecords, assignmentId: string): Worth | null {
  const course = records.find('courses', records.find('assignments', assignmentId)?.courseId ?? '');
  const graded = course === null ? null : gradedCourseOf(records, course);
  return graded === null ? null : worthIn(graded, assignmentId);
}

/** How much of the course grade an assignment is; shares of 1. */
export interface Weight {
  /** Of what counts so far; null while it does not count. */
  readonly soFar: Fraction | null;
  /** Of the whole, once everything that is known of has been marked; null where it will not count. */
  readonly whole: Fraction | null;
}

/**
 * What each assignment of a course is of its grade: so far, and once all the rest has full points, so that weights and
 * drops are in it (computation.md 1).
 */
export function weightsIn(graded: GradedCourse): ReadonlyMap<string, Weight> {
  const rest = new Set(restOf(graded).map(({ id }) => id));
  const sharesOf = (course: GradedCourse) =>
    new Map(
      explainGrade(course).categories.flatMap(({ assignments }) =>
        assignments.flatMap(({ id, counting, share }) =>
          counting === 'counts' ? [[id, share] as const] : [],
        ),
      ),
    );
  const soFar = sharesOf(graded);
  const whole = sharesOf(withRest(graded, rest, { n: 1n, d: 1n }));
  return new Map(
    graded.assignments.map(({ id }) => [id, { soFar: soFar.get(id) ?? null, whole: whole.get(id) ?? null }]),
  );
}

import type { Assignment, Attempt, Author, Course, Marking } from './facts.ts';
import type { AssignmentId, AttemptId, CourseId, Instant, MarkingId } from './ids.ts';

/** Records that nothing is known of yet but what they are: what the student puts in begins with one. */

export function blankCourse(id: CourseId, title: string, zone: string): Course {
  return {
    id,
    code: '',
    title,
    term: '',
    termEndsAt: null,
    scheme: 'points',
    categories: [],
    instructor: { name: '', role: 'instructor' },
    people: [],
    zone,
    policy: null,
    late: null,
    scales: [],
    gradeScaleId: null,
    byHand: true,
  };
}

/** An assignment of which no more is known than its title; of the student's own. */
export function blankAssignment(id: AssignmentId, courseId: CourseId | null, title: string): Assignment {
  return {
    id,
    courseId,
    title,
    possible: null,
    counts: null,
    opensAt: null,
    dueAt: null,
    closesAt: null,
    attemptsAllowed: 1,
    policy: null,
    rubricId: null,
    categoryId: null,
    extraCredit: false,
    excused: false,
    extendedTo: null,
    late: null,
    scaleId: null,
    group: null,
    kind: null,
    draftOf: null,
    withdrawableUntil: null,
    materials: [],
    requirements: { wordsMin: null, wordsMax: null, fileTypes: [] },
    brief: '',
    byHand: true,
  };
}

/** An attempt without files, handed in outside of Juncture. */
export function blankAttempt(
  id: AttemptId,
  assignmentId: AssignmentId,
  number: number,
  at: Instant,
): Attempt {
  return {
    id,
    assignmentId,
    number,
    at,
    files: [],
    note: '',
    receipt: null,
    dueAt: null,
    outside: true,
    atKnown: true,
    post: null,
    items: {},
  };
}

/** A marking that says nothing yet, typed by the student. */
export function blankMarking(
  id: MarkingId,
  assignmentId: AssignmentId,
  attemptId: AttemptId,
  at: Instant,
  marker: Author,
): Marking {
  return {
    id,
    attemptId,
    assignmentId,
    at,
    marker,
    score: null,
    groupScore: null,
    result: null,
    overall: '',
    criteria: [],
    files: [],
    complete: true,
    byHand: true,
  };
}

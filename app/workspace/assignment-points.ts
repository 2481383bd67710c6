import type { Assignment, Course, Rubric } from '#core/model/facts.ts';
import type { Remark } from '#core/model/remark.ts';
import { criterionLosses, lossesAtStake, wholeLoss, type Loss } from '#core/scores/behind.ts';
import { assignmentScore, withAnotherAttempt } from '#core/scores/course-grade.ts';
import { fromDecimal, toShown, type Fraction } from '#core/scores/fraction.ts';
import { pointsGiven } from '#core/scores/rules.ts';
import { ownRecords } from './by-assignment.ts';
import {
  criteriaGiven,
  gradedAssignment,
  markedAttempts,
  scoredMarking,
  standing,
  type MarkedAttempt,
} from './marked-attempts.ts';
import type { RecordMaps } from './records.ts';

/** The points of an assignment: its rubric, what its attempts were given, where points went. */

/** The school's rubric, else the one that the student put to the assignment. */
export function rubricOf(records: RecordMaps, { id, rubricId }: Assignment): Rubric | null {
  return records.rubrics.get(rubricId ?? '') ?? records.rubrics.get(ownRubricId(id)) ?? null;
}

/** Under which id the rubric is kept that the student put to an assignment. */
export function ownRubricId(assignmentId: string): string {
  return `own/${assignmentId}`.slice(0, 200);
}

/** The attempt that a new one starts from: the first with a marked paper, else the latest that was marked. */
export function workedOn(attempts: readonly MarkedAttempt[]): MarkedAttempt | null {
  return (
    attempts.find(({ marking }) => marking?.files.some(({ role }) => role === 'marked') === true) ??
    standing(attempts).findLast(({ marking }) => marking !== null) ??
    null
  );
}

/** The points given for an attempt, before any lateness comes off. */
export function givenFor(
  each: MarkedAttempt,
  assignment: Assignment,
  course: Course | null,
): Fraction | null {
  const marking = scoredMarking(each, assignment, course);
  return marking === null ? null : pointsGiven(marking, assignment, course);
}

/**
 * Where points went: by criterion; on a draft stage what is at stake on the final's criteria; without criteria of the
 * whole assignment.
 */
export function lossesIn(
  records: RecordMaps,
  {
    assignment,
    rubric,
    worked,
    given,
    remarks,
  }: {
    assignment: Assignment;
    rubric: Rubric | null;
    worked: MarkedAttempt | null;
    given: Fraction | null;
    remarks: readonly Remark[];
  },
): Loss[] {
  if (worked === null) return [];
  const { judgements } = records;
  const own = remarks.filter((remark) => remark.attemptId === worked.attempt.id);
  if (rubric !== null) {
    const losses = criterionLosses(rubric, criteriaGiven(worked), assignment.possible, own, judgements);
    if (losses.length > 0) return losses;
  }
  const final = records.assignments.get(assignment.draftOf ?? '');
  const finalRubric = final === undefined ? null : rubricOf(records, final);
  if (final !== undefined && finalRubric !== null) {
    const last = workedOn(attemptsOf(records, final.id));
    const results = last === null ? [] : criteriaGiven(last);
    return lossesAtStake(finalRubric, results, final.possible, own, judgements);
  }
  return assignment.possible === null || given === null
    ? []
    : [wholeLoss(fromDecimal(assignment.possible), given, own, judgements)];
}

/** The attempts of an assignment, each with its markings. */
export function attemptsOf(records: RecordMaps, assignmentId: string): MarkedAttempt[] {
  return markedAttempts(
    ownRecords(records, 'attempts', assignmentId),
    ownRecords(records, 'markings', assignmentId),
    ownRecords(records, 'withdrawals', assignmentId),
  );
}

export function scoreShown(
  assignment: Assignment,
  attempts: readonly MarkedAttempt[],
  course: Course | null,
): string | null {
  if (assignment.possible === null) return null;
  const score = assignmentScore(gradedAssignment(assignment, attempts, course));
  return score === null ? null : toShown(score, 2);
}

/** The most that one more attempt can make of an assignment; null where nothing was marked yet. */
export function reachableShown(
  assignment: Assignment,
  attempts: readonly MarkedAttempt[],
  course: Course | null,
): string | null {
  if (assignment.possible === null || scoreShown(assignment, attempts, course) === null) return null;
  const graded = gradedAssignment(assignment, attempts, course);
  const alone = { scheme: 'points' as const, categories: [], assignments: [graded] };
  const [more] = withAnotherAttempt(alone, assignment.id, fromDecimal(assignment.possible)).assignments;
  const best = assignmentScore(more);
  return best === null ? null : toShown(best, 2);
}

import type { Assignment, Course, Rubric } from '../model/facts.ts';
import type { Remark } from '../model/remark.ts';
import type { Understood } from '../saying/saying-of.ts';
import { criterionLosses, lossesAtStake, wholeLoss, type Loss } from '../rubric/behind.ts';
import { assignmentScore, withAnotherAttempt } from '../scores/course-grade.ts';
import { compare, fromDecimal, type Fraction } from '../scores/fraction.ts';
import { pointsGiven, policyOf } from '../scores/rules.ts';
import {
  criteriaGiven,
  gradedAssignment,
  markedAttempts,
  scoredMarking,
  scoreOfAttempt,
  standing,
  type MarkedAttempt,
} from './attempts.ts';
import type { AssignmentRecords } from './records.ts';
import { rubricOf } from './rubric-of.ts';
import { workedInOf } from './stages.ts';
import { proposedLinks, suggestedCriteria } from './suggested.ts';

/** The points of an assignment: its rubric, what its attempts were given, where points went. */

/** The attempt that a new one starts from: the first with a marked paper, else the latest that was marked. */
export function workedOn(attempts: readonly MarkedAttempt[]): MarkedAttempt | null {
  return (
    attempts.find(({ marking }) => marking?.files.some(({ role }) => role === 'marked') === true) ??
    standing(attempts).findLast(({ marking }) => marking !== null) ??
    null
  );
}

/**
 * The attempt whose criteria tell best where the points went that the score lacks: the latest where that counts, else the
 * best of those that were marked, which a policy can only take from.
 */
export function countedAttempt(
  attempts: readonly MarkedAttempt[],
  assignment: Assignment,
  course: Course | null,
): MarkedAttempt | null {
  const scored = standing(attempts).flatMap((each) => {
    const score = scoreOfAttempt(each, assignment, course);
    return score === null ? [] : [{ each, score }];
  });
  if (policyOf(assignment, course).kind === 'latest') return scored.at(-1)?.each ?? null;
  return (
    scored.reduce<(typeof scored)[number] | null>(
      (best, one) => (best === null || compare(one.score, best.score) >= 0 ? one : best),
      null,
    )?.each ?? null
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
  records: AssignmentRecords,
  {
    assignment,
    rubric,
    worked,
    given,
    remarks,
    understood,
  }: {
    assignment: Assignment;
    rubric: Rubric | null;
    worked: MarkedAttempt | null;
    given: Fraction | null;
    remarks: readonly Remark[];
    understood: Understood;
  },
): Loss[] {
  if (worked === null) return [];
  const own = remarks.filter((remark) => remark.attemptId === worked.attempt.id);
  // What a draft stage lost is lost; its remarks are worked on for the final, by the final's criteria.
  const final = workedInOf((id) => records.find('assignments', id), assignment);
  const finalRubric = final.id === assignment.id ? null : rubricOf(records, final);
  if (finalRubric !== null) {
    const last = workedOn(attemptsOf(records, final.id));
    const results = last === null ? [] : criteriaGiven(last);
    const links = proposedLinks(suggestedCriteria(records, finalRubric, own, understood));
    return lossesAtStake(finalRubric, results, final.possible, own, understood, links);
  }
  if (rubric !== null) {
    const links = proposedLinks(suggestedCriteria(records, rubric, own, understood));
    const losses = criterionLosses(
      rubric,
      criteriaGiven(worked),
      assignment.possible,
      own,
      understood,
      links,
    );
    if (losses.length > 0) return losses;
  }
  return assignment.possible === null || given === null
    ? []
    : [wholeLoss(fromDecimal(assignment.possible), given, own, understood)];
}

/** The attempts of an assignment, each with its markings. */
export function attemptsOf(records: AssignmentRecords, assignmentId: string): MarkedAttempt[] {
  return markedAttempts(
    records.of('attempts', assignmentId),
    records.of('markings', assignmentId),
    records.of('withdrawals', assignmentId),
  );
}

/** What the attempts make by the policy, in points; null while nothing is marked with a score. */
export function scoreOf(
  assignment: Assignment,
  attempts: readonly MarkedAttempt[],
  course: Course | null,
): Fraction | null {
  return assignment.possible === null
    ? null
    : assignmentScore(gradedAssignment(assignment, attempts, course));
}

/** The most that one more attempt can make of an assignment; null where nothing was marked yet. */
export function reachableScore(
  assignment: Assignment,
  attempts: readonly MarkedAttempt[],
  course: Course | null,
): Fraction | null {
  if (assignment.possible === null || scoreOf(assignment, attempts, course) === null) return null;
  const graded = gradedAssignment(assignment, attempts, course);
  const alone = { scheme: 'points' as const, categories: [], assignments: [graded] };
  const [more] = withAnotherAttempt(alone, assignment.id, fromDecimal(assignment.possible)).assignments;
  return assignmentScore(more);
}

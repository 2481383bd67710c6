import { asId, AttemptId } from '../model/ids.ts';
import type {
  Assignment,
  Attempt,
  Course,
  CriterionResult,
  FileFact,
  Marking,
  Withdrawal,
} from '../model/facts.ts';
import { attemptScore, type GradedAssignment, type GradedAttempt } from '../scores/course-grade.ts';
import { fromDecimal, ZERO, type Fraction } from '../scores/fraction.ts';
import { lateRuleOf, pointsGiven, policyOf } from '../scores/rules.ts';
import { lateDays, lateDeduction } from '../scores/late.ts';

/** An attempt with all that was said of it. */
export interface MarkedAttempt {
  readonly attempt: Attempt;
  /** All, oldest first; a correction is one more. */
  readonly markings: readonly Marking[];
  /** The school's latest, else the student's own note of it; null: not marked. */
  readonly marking: Marking | null;
  readonly withdrawn: Withdrawal | null;
  /** The desk has a marking of it, but not the attempt itself. */
  readonly missing: boolean;
}

/** A score that the school changed after it had given it. */
export interface ScoreChange {
  readonly attempt: Attempt;
  readonly before: Marking;
  readonly after: Marking;
}

/** How late an attempt was, and what came off. */
export interface Lateness {
  readonly hours: number;
  readonly days: number;
  /** Points that come off. */
  readonly deduction: Fraction;
}

function byTime(markings: readonly Marking[]): Marking[] {
  return markings.toSorted((x, y) => (x.at < y.at ? -1 : x.at > y.at ? 1 : 0));
}

/** An attempt that only its marking tells of. */
function attemptBehind(marking: Marking, number: number): Attempt {
  return {
    id: marking.attemptId,
    assignmentId: marking.assignmentId,
    number,
    at: marking.at,
    files: [],
    note: '',
    receipt: null,
    dueAt: null,
    outside: false,
    atKnown: false,
    post: null,
    items: {},
  };
}

/** Attempts by number, each with its markings; those that only a marking tells of come last. */
export function markedAttempts(
  attempts: readonly Attempt[],
  markings: readonly Marking[],
  withdrawals: readonly Withdrawal[],
): MarkedAttempt[] {
  const withAll = (attempt: Attempt, missing: boolean): MarkedAttempt => {
    const own = byTime(markings.filter((marking) => marking.attemptId === attempt.id));
    return {
      attempt,
      markings: own,
      marking: own.findLast(({ byHand }) => !byHand) ?? own.at(-1) ?? null,
      withdrawn: withdrawals.find(({ attemptId }) => attemptId === attempt.id) ?? null,
      missing,
    };
  };
  const known = new Set<string>(attempts.map(({ id }) => id));
  const unsent = [...new Set(markings.map(({ attemptId }) => attemptId as string))].filter(
    (id) => !known.has(id),
  );
  return [
    ...attempts.toSorted((x, y) => x.number - y.number).map((attempt) => withAll(attempt, false)),
    ...unsent.flatMap((id, i) => {
      const marking = markings.find(({ attemptId }) => attemptId === asId(AttemptId, id));
      return marking === undefined ? [] : [withAll(attemptBehind(marking, attempts.length + i + 1), true)];
    }),
  ];
}

/** Those that count: not taken back. */
export function standing(attempts: readonly MarkedAttempt[]): MarkedAttempt[] {
  return attempts.filter(({ withdrawn }) => withdrawn === null);
}

/** When an attempt was due: its own time, else for the first the extension or the due time; later ones can't be late. */
function dueOf(attempt: Attempt, assignment: Assignment): string | null {
  if (attempt.dueAt !== null) return attempt.dueAt;
  return attempt.number === 1 ? (assignment.extendedTo ?? assignment.dueAt) : null;
}

/** The latest marking that gives a score: a second marker's words alone take no score away, nor does an own note. */
export function scoredMarking(
  { markings }: MarkedAttempt,
  assignment: Assignment,
  course: Course | null,
): Marking | null {
  const scored = markings.filter((marking) => pointsGiven(marking, assignment, course) !== null);
  return scored.findLast(({ byHand }) => !byHand) ?? scored.at(-1) ?? null;
}

function gradedAttempt(each: MarkedAttempt, assignment: Assignment, course: Course | null): GradedAttempt {
  const due = each.missing ? null : dueOf(each.attempt, assignment);
  const scored = scoredMarking(each, assignment, course);
  return {
    atMs: Date.parse(each.attempt.at),
    score: scored === null ? null : pointsGiven(scored, assignment, course),
    dueMs: due === null ? null : Date.parse(due),
  };
}

/** An assignment as its grade is computed; null where its points aren't known. */
export function gradedAssignment(
  assignment: Assignment,
  attempts: readonly MarkedAttempt[],
  course: Course | null,
): GradedAssignment {
  const { id, categoryId, possible, dueAt, extraCredit, excused } = assignment;
  return {
    id,
    categoryId: categoryId ?? '',
    possible: possible === null ? ZERO : fromDecimal(possible),
    dueMs: dueAt === null ? null : Date.parse(dueAt),
    extraCredit,
    excused,
    policy: policyOf(assignment, course),
    late: lateRuleOf(assignment, course),
    attempts: standing(attempts).map((each) => gradedAttempt(each, assignment, course)),
  };
}

/** What an attempt counts after its lateness, in points; null while it has no score. */
export function scoreOfAttempt(
  each: MarkedAttempt,
  assignment: Assignment,
  course: Course | null,
): Fraction | null {
  return attemptScore(gradedAttempt(each, assignment, course), lateRuleOf(assignment, course));
}

/**
 * How late an attempt came, whole hours and started days, and the points that costs; null where it was in time or no due
 * time holds for it.
 */
export function latenessOf(
  { attempt, missing }: MarkedAttempt,
  assignment: Assignment,
  course: Course | null,
): Lateness | null {
  const due = dueOf(attempt, assignment);
  if (missing || due === null || attempt.at <= due) return null;
  const [atMs, dueMs] = [Date.parse(attempt.at), Date.parse(due)];
  const late = lateRuleOf(assignment, course);
  return {
    hours: Math.floor((atMs - dueMs) / 3_600_000),
    days: late === null ? 0 : lateDays(atMs, dueMs, late.graceHours),
    deduction: late === null ? ZERO : lateDeduction(late, atMs, dueMs),
  };
}

/** The last change of a score by the hand that had given it; null where there was none. */
export function scoreChangeIn(attempts: readonly MarkedAttempt[]): ScoreChange | null {
  const changes = standing(attempts).flatMap(({ attempt, markings }) =>
    markings.flatMap((after, i): ScoreChange[] => {
      const before = markings.slice(0, i).findLast(({ marker }) => marker.name === after.marker.name);
      const changed = before !== undefined && before.score !== null && after.score !== before.score;
      return changed ? [{ attempt, before, after }] : [];
    }),
  );
  return changes.at(-1) ?? null;
}

/** What was given for each criterion: by the school, and where it gives nothing as the student noted it. */
export function criteriaGiven({ marking, markings }: MarkedAttempt): CriterionResult[] {
  const school = marking?.criteria ?? [];
  const own = markings.findLast(({ byHand }) => byHand)?.criteria ?? [];
  const known = new Set(school.map(({ criterionId }) => criterionId));
  return [...school, ...own.filter(({ criterionId }) => !known.has(criterionId))];
}

/** The files that came back and still stand: a corrected form takes the place of the one before. */
export function returnedFiles(attempts: readonly MarkedAttempt[]): { marking: Marking; fact: FileFact }[] {
  return attempts.flatMap(({ markings }) =>
    markings.flatMap((marking, i) =>
      marking.files
        .filter(
          (fact) =>
            !markings
              .slice(i + 1)
              .some(
                ({ marker, files }) =>
                  marker.name === marking.marker.name &&
                  files.some(({ role, name }) => role === fact.role && name === fact.name),
              ),
        )
        .map((fact) => ({ marking, fact })),
    ),
  );
}

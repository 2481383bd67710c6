import {
  assignmentScore,
  attemptScore,
  courseGrade,
  type CourseGrade,
  type GradedAssignment,
  type GradedCourse,
} from './course-grade.ts';
import { add, divide, fromDecimal, multiply, smaller, ZERO, type Fraction } from './fraction.ts';
import { lateDays, lateDeduction } from './late.ts';

/** The parts that figures are made of: whatever is shown can be opened, and its parts add up to it exactly. */

/** Why an assignment is in the grade, or is not. */
type Counting =
  'counts' | 'extra' | 'dropped' | 'excused' | 'not marked' | 'no category' | 'nothing possible';

/** What an assignment brings to the course grade. `share` and `brings` are parts of the grade: 1 = 100 %. */
export interface AssignmentPart {
  readonly id: string;
  readonly counting: Counting;
  readonly score: Fraction | null;
  readonly possible: Fraction;
  /** How much of the grade it is: what full points bring. 0 for what doesn't count; of extra credit what it can add. */
  readonly share: Fraction;
  readonly brings: Fraction;
}

/** What a category brings of the grade: `brings` = `share` × `ratio`, shares of 1. */
export interface CategoryPart {
  readonly id: string;
  readonly weight: Fraction;
  /** Its weight of all that count; in a course of points its possible points of all. */
  readonly share: Fraction;
  readonly ratio: Fraction | null;
  readonly earned: Fraction;
  readonly possible: Fraction;
  readonly brings: Fraction;
  readonly assignments: readonly AssignmentPart[];
}

/** A grade with all that makes it up. */
export interface GradeExplained {
  readonly grade: Fraction | null;
  readonly categories: readonly CategoryPart[];
  /** Sum of the weights as they are given; null in a course of points. */
  readonly weights: Fraction | null;
  /** Sum of the weights of the categories that have something counted. */
  readonly weightsCounted: Fraction;
  /** Sum of the points possible in what counts. */
  readonly possibleCounted: Fraction;
}

function sumOf(parts: readonly Fraction[]): Fraction {
  return parts.reduce(add, ZERO);
}

/** How the course grade is made: what each category and each assignment brings of it (computation.md 1). */
export function explainGrade(
  course: GradedCourse,
  result: CourseGrade = courseGrade(course),
): GradeExplained {
  const weighted = course.scheme === 'weighted';
  const inGrade = course.categories.map((category, i) => ({ category, made: result.categories[i] }));
  const weightsCounted = sumOf(
    inGrade.flatMap(({ category, made }) =>
      !category.extraCredit && made.ratio !== null ? [category.weight] : [],
    ),
  );
  const possibleCounted = sumOf(inGrade.map(({ made }) => made.possible));
  const whole = weighted ? weightsCounted : possibleCounted;
  const byCategory = new Map<string, GradedAssignment[]>();
  for (const one of course.assignments) {
    const list = byCategory.get(one.categoryId);
    if (list === undefined) byCategory.set(one.categoryId, [one]);
    else list.push(one);
  }
  const categories = inGrade.map(({ category, made }): CategoryPart => {
    // What a point in it is of the grade: its weight over its own points, or one of all points.
    const perPoint =
      whole.n === 0n || result.grade === null || (weighted && made.ratio === null)
        ? ZERO
        : weighted
          ? divide(divide(category.weight, made.possible), whole)
          : divide({ n: 1n, d: 1n }, whole);
    const extra = !weighted && category.extraCredit;
    const assignments = (byCategory.get(category.id) ?? []).map((one): AssignmentPart => {
      const score = result.scoreByAssignment.get(one.id) ?? null;
      const counting = countingOf(one, score, extra, made.dropped, perPoint);
      const counts = counting === 'counts' || counting === 'extra';
      return {
        id: one.id,
        counting,
        score,
        possible: one.possible,
        share: counts ? multiply(perPoint, one.possible) : ZERO,
        brings: counts && score !== null ? multiply(perPoint, score) : ZERO,
      };
    });
    return {
      id: category.id,
      weight: category.weight,
      share: multiply(perPoint, made.possible),
      ratio: made.ratio,
      earned: made.earned,
      possible: made.possible,
      brings: multiply(perPoint, made.earned),
      assignments,
    };
  });
  const weights = weighted
    ? sumOf(course.categories.flatMap(({ weight, extraCredit }) => (extraCredit ? [] : [weight])))
    : null;
  return { grade: result.grade, categories, weights, weightsCounted, possibleCounted };
}

function countingOf(
  { id, excused, extraCredit }: GradedAssignment,
  score: Fraction | null,
  extraCategory: boolean,
  dropped: readonly string[],
  perPoint: Fraction,
): Counting {
  if (excused) return 'excused';
  if (score === null) return 'not marked';
  if (dropped.includes(id)) return 'dropped';
  if (perPoint.n === 0n) return 'nothing possible';
  return extraCredit || extraCategory ? 'extra' : 'counts';
}

/** One attempt on its way to the score: given, less its lateness. */
interface AttemptPart {
  readonly atMs: number;
  readonly given: Fraction | null;
  readonly days: number;
  /** What the rule takes; `counted` is never below 0, so that less may be taken. */
  readonly deduction: Fraction;
  readonly counted: Fraction | null;
}

/** An assignment's score with the attempts that make it, oldest first, in points. */
export interface ScoreExplained {
  readonly attempts: readonly AttemptPart[];
  readonly score: Fraction | null;
  /** With `capped`: the most that a later attempt can make of it. */
  readonly cap: Fraction | null;
}

/** How an assignment's score is made of its attempts (computation.md 1). */
export function explainScore(assignment: GradedAssignment): ScoreExplained {
  const { late, policy, possible } = assignment;
  const attempts = assignment.attempts
    .toSorted((x, y) => x.atMs - y.atMs)
    .map((attempt): AttemptPart => {
      const counted = attemptScore(attempt, late);
      const { atMs, dueMs, score } = attempt;
      const none = late === null || dueMs === null;
      return {
        atMs,
        given: score,
        days: none ? 0 : lateDays(atMs, dueMs, late.graceHours),
        deduction: none || score === null ? ZERO : smaller(score, lateDeduction(late, atMs, dueMs)),
        counted,
      };
    });
  return {
    attempts,
    score: assignmentScore(assignment),
    cap: policy.kind === 'capped' ? multiply(fromDecimal(policy.cap), possible) : null,
  };
}

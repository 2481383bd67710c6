import type { AttemptPolicy, LateRule } from '../model/facts.ts';
import { keptAfterDrops, type Droppable } from './drops.ts';
import { add, divide, multiply, ZERO, type Fraction } from './fraction.ts';
import { afterDeduction, lateDeduction } from './late.ts';
import { scoreOf } from './policy.ts';

/** One handing-in with its score; null: not marked. Times in milliseconds since 1970. */
export interface GradedAttempt {
  readonly atMs: number;
  readonly score: Fraction | null;
  /** Its own due time, extension included; null: it can't be late. */
  readonly dueMs: number | null;
}

/** An assignment as the grade sees it. `possible` is in points, times in milliseconds since 1970. */
export interface GradedAssignment {
  readonly id: string;
  readonly categoryId: string;
  readonly possible: Fraction;
  readonly dueMs: number | null;
  readonly extraCredit: boolean;
  readonly excused: boolean;
  readonly policy: AttemptPolicy;
  readonly late: LateRule | null;
  readonly attempts: readonly GradedAttempt[];
}

/** A category as the grade sees it: how many of its assignments are dropped, and whether it only adds. */
export interface GradedCategory {
  readonly id: string;
  /** Its share of the grade; only the proportion between categories matters. */
  readonly weight: Fraction;
  readonly drop: number;
  readonly extraCredit: boolean;
}

/** A course as the grade sees it. In a course of points its categories only group. */
export interface GradedCourse {
  readonly scheme: 'weighted' | 'points';
  readonly categories: readonly GradedCategory[];
  readonly assignments: readonly GradedAssignment[];
}

/** What a category came to. `earned` and `possible` are after drops; `ratio` is null where nothing is possible. */
interface CategoryGrade {
  readonly id: string;
  readonly ratio: Fraction | null;
  readonly earned: Fraction;
  readonly possible: Fraction;
  readonly dropped: readonly string[];
}

/** What a course comes to. Scores are in points after late deductions; null for what doesn't count. */
export interface CourseGrade {
  /** 1 = 100 % and may be exceeded; null where nothing counts. */
  readonly grade: Fraction | null;
  readonly categories: readonly CategoryGrade[];
  readonly scoreByAssignment: ReadonlyMap<string, Fraction | null>;
}

/** An attempt's score after its late deduction; null where it isn't marked. */
export function attemptScore(attempt: GradedAttempt, late: LateRule | null): Fraction | null {
  if (attempt.score === null || late === null || attempt.dueMs === null) return attempt.score;
  return afterDeduction(attempt.score, lateDeduction(late, attempt.atMs, attempt.dueMs));
}

/** What an assignment counts: its marked attempts, oldest first, by its policy; null for none, and when excused. */
export function assignmentScore(assignment: GradedAssignment): Fraction | null {
  if (assignment.excused) return null;
  const scores = assignment.attempts
    .toSorted((x, y) => x.atMs - y.atMs)
    .flatMap((attempt) => attemptScore(attempt, assignment.late) ?? []);
  return scoreOf(assignment.policy, scores, assignment.possible);
}

/**
 * The grade of a course (computation.md 1). Weighted: (Σ w·r + Σ over extra-credit categories w·r) / Σ w over the other
 * categories with something possible. Points: Σ earned / Σ possible over what counts.
 */
export function courseGrade(course: GradedCourse): CourseGrade {
  const scoreByAssignment = new Map(course.assignments.map((one) => [one.id, assignmentScore(one)]));
  const categories = course.categories.map((category) => categoryGrade(category, course, scoreByAssignment));
  return {
    grade: course.scheme === 'points' ? byPoints(categories) : byWeight(course.categories, categories),
    categories,
    scoreByAssignment,
  };
}

function categoryGrade(
  category: GradedCategory,
  { scheme, assignments }: GradedCourse,
  scores: ReadonlyMap<string, Fraction | null>,
): CategoryGrade {
  const counted: Droppable[] = [];
  let extra = ZERO;
  for (const { id, categoryId, possible, dueMs, extraCredit } of assignments) {
    const earned = scores.get(id) ?? null;
    if (categoryId !== category.id || earned === null) continue;
    // In a course of points there is no weight to add on top: what is extra there is earned and not possible.
    if (extraCredit || (scheme === 'points' && category.extraCredit)) extra = add(extra, earned);
    else counted.push({ id, earned, possible, dueMs });
  }
  const kept = keptAfterDrops(counted, category.drop, extra);
  const isKept = new Set(kept);
  const earned = kept.reduce((sum, one) => add(sum, one.earned), extra);
  const possible = kept.reduce((sum, one) => add(sum, one.possible), ZERO);
  return {
    id: category.id,
    ratio: possible.n === 0n ? null : divide(earned, possible),
    earned,
    possible,
    dropped: counted.filter((one) => !isKept.has(one)).map(({ id }) => id),
  };
}

function byPoints(categories: readonly CategoryGrade[]): Fraction | null {
  const possible = categories.reduce((sum, c) => add(sum, c.possible), ZERO);
  if (possible.n === 0n) return null;
  return divide(
    categories.reduce((sum, c) => add(sum, c.earned), ZERO),
    possible,
  );
}

function byWeight(given: readonly GradedCategory[], grades: readonly CategoryGrade[]): Fraction | null {
  let sum = ZERO;
  let weights = ZERO;
  for (const [index, { weight, extraCredit }] of given.entries()) {
    const { ratio } = grades[index];
    if (ratio === null) continue;
    sum = add(sum, multiply(weight, ratio));
    if (!extraCredit) weights = add(weights, weight);
  }
  return weights.n === 0n ? null : divide(sum, weights);
}

/** The same course with another attempt at one assignment after those there are, marked with `score` and in time. */
export function withAnotherAttempt(
  course: GradedCourse,
  assignmentId: string,
  score: Fraction,
): GradedCourse {
  return {
    ...course,
    assignments: course.assignments.map((one) => {
      if (one.id !== assignmentId) return one;
      const atMs = Math.max(0, ...one.attempts.map((attempt) => attempt.atMs)) + 1;
      return { ...one, attempts: [...one.attempts, { atMs, score, dueMs: null }] };
    }),
  };
}

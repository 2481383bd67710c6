import { courseGrade, type CourseGrade, type GradedAssignment, type GradedCourse } from './course-grade.ts';
import { add, compare, divide, multiply, subtract, ZERO, type Fraction } from './fraction.ts';

/**
 * What a change is worth. Never a formula of its own: the course grade is computed with and without, so that weights,
 * drops, caps and policies are all in it.
 */

/** An assignment as if it had been given `score` and nothing else. */
function given(assignment: GradedAssignment, score: Fraction): GradedAssignment {
  const atMs = Math.max(0, ...assignment.attempts.map((attempt) => attempt.atMs)) + 1;
  return { ...assignment, policy: { kind: 'latest' }, attempts: [{ atMs, score, dueMs: null }] };
}

/** The same course as if one assignment had been given `score`, whatever its attempts are. */
export function withScore(course: GradedCourse, assignmentId: string, score: Fraction): GradedCourse {
  return {
    ...course,
    assignments: course.assignments.map((one) => (one.id === assignmentId ? given(one, score) : one)),
  };
}

/** The same course as if each of `ids` had been given `ratio` of its points. */
export function withRest(course: GradedCourse, ids: ReadonlySet<string>, ratio: Fraction): GradedCourse {
  return {
    ...course,
    assignments: course.assignments.map((one) =>
      ids.has(one.id) ? given(one, multiply(ratio, one.possible)) : one,
    ),
  };
}

/** The assignments that are still to come: not marked, not excused, with points, and not extra credit. */
export function restOf(course: GradedCourse): GradedAssignment[] {
  const { scoreByAssignment } = courseGrade(course);
  const extra = new Set(course.categories.flatMap((c) => (c.extraCredit ? [c.id] : [])));
  return course.assignments.filter(
    ({ id, excused, extraCredit, categoryId, possible }) =>
      (scoreByAssignment.get(id) ?? null) === null &&
      !excused &&
      !extraCredit &&
      !extra.has(categoryId) &&
      possible.n > 0n,
  );
}

/** What the rest would have to average. */
export type Needed =
  /** All of the rest at `ratio` (1 = full points) reach the goal, and no lower ratio does. `just` is false where only more than `ratio` does, by however little. */
  | { readonly kind: 'ratio'; readonly ratio: Fraction; readonly just: boolean }
  | { readonly kind: 'nothing to come' }
  /** Even `most` times full points don't reach it. */
  | { readonly kind: 'out of reach' };

/** Beyond so many times full points nobody looks. */
const MOST_RATIO: Fraction = { n: 10n, d: 1n };

/**
 * What the rest would have to average, each at the same share of its points, for the course grade to reach `goal`
 * (1 = 100 %). Exact: between two ratios at which every category keeps the same assignments the grade is a line, and the
 * ratio of a category, being the best of finitely many lines, keeps the same ones in between when it keeps them at both
 * ends; so the line is solved, or the stretch parted where two of a category's lines meet.
 */
export function neededAverage(course: GradedCourse, goal: Fraction): Needed {
  const rest = new Set(restOf(course).map(({ id }) => id));
  if (rest.size === 0) return { kind: 'nothing to come' };
  const at = (ratio: Fraction): Sample => ({ ratio, grade: courseGrade(withRest(course, rest, ratio)) });
  const reaches = ({ grade }: Sample) => grade.grade !== null && compare(grade.grade, goal) >= 0;
  const first = at(ZERO);
  if (reaches(first)) return { kind: 'ratio', ratio: ZERO, just: true };
  const search = (from: Sample, to: Sample): Needed | null => {
    const crossing = crossingBetween(course, rest, from, to);
    if (crossing !== null) {
      const middle = at(crossing);
      return search(from, middle) ?? search(middle, to);
    }
    // The grade is a line from just after `from` to just before `to`: read off at two points within.
    const third = divide(subtract(to.ratio, from.ratio), { n: 3n, d: 1n });
    const one = at(add(from.ratio, third));
    const two = at(subtract(to.ratio, third));
    if (one.grade.grade !== null && two.grade.grade !== null) {
      const slope = divide(subtract(two.grade.grade, one.grade.grade), third);
      const start = subtract(one.grade.grade, multiply(slope, third));
      if (compare(start, goal) >= 0) return { kind: 'ratio', ratio: from.ratio, just: false };
      if (slope.n > 0n) {
        const ratio = add(from.ratio, divide(subtract(goal, start), slope));
        if (compare(ratio, to.ratio) < 0) return { kind: 'ratio', ratio, just: true };
      }
    }
    return reaches(to) ? { kind: 'ratio', ratio: to.ratio, just: true } : null;
  };
  return search(first, at(MOST_RATIO)) ?? { kind: 'out of reach' };
}

interface Sample {
  readonly ratio: Fraction;
  readonly grade: CourseGrade;
}

/** A ratio strictly between two at which the best line of a category changes; null where all keep the same. */
function crossingBetween(
  course: GradedCourse,
  rest: ReadonlySet<string>,
  from: Sample,
  to: Sample,
): Fraction | null {
  for (const [i, { id, dropped }] of from.grade.categories.entries()) {
    const droppedLater = to.grade.categories[i].dropped;
    if (dropped.join('\n') === droppedLater.join('\n')) continue;
    const own = course.assignments.filter(({ categoryId }) => categoryId === id);
    const line = (without: readonly string[]) => {
      const kept = own.filter((one) => !without.includes(one.id));
      const counted = kept.filter(
        (one) => !one.extraCredit && (from.grade.scoreByAssignment.get(one.id) ?? null) !== null,
      );
      const total = (list: readonly Fraction[]) => list.reduce(add, ZERO);
      return {
        fixed: total(
          kept.flatMap((one) => (rest.has(one.id) ? [] : (from.grade.scoreByAssignment.get(one.id) ?? []))),
        ),
        rising: total(kept.flatMap((one) => (rest.has(one.id) ? [one.possible] : []))),
        possible: total(counted.map((one) => one.possible)),
      };
    };
    const x = line(dropped);
    const y = line(droppedLater);
    const steeper = subtract(multiply(x.rising, y.possible), multiply(y.rising, x.possible));
    if (steeper.n === 0n) continue;
    const meet = divide(subtract(multiply(y.fixed, x.possible), multiply(x.fixed, y.possible)), steeper);
    if (compare(meet, from.ratio) > 0 && compare(meet, to.ratio) < 0) return meet;
  }
  return null;
}

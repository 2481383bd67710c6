import type { Assignment, AttemptPolicy, Course, LateRule, Marking, Scale, Step } from '../model/facts.ts';
import { compare, fromDecimal, multiply, type Fraction } from './fraction.ts';

/** What holds for an assignment: its own rule, else its course's, else the plain one. */

type Ruled = Pick<Assignment, 'policy' | 'late' | 'scaleId' | 'possible'>;
type Ruling = Pick<Course, 'policy' | 'late' | 'scales'> | null;

/** How its attempts make one score; the latest counts where nothing is said. */
export function policyOf(assignment: Ruled, course: Ruling): AttemptPolicy {
  return assignment.policy ?? course?.policy ?? { kind: 'latest' };
}

/** null: lateness costs nothing. */
export function lateRuleOf(assignment: Ruled, course: Ruling): LateRule | null {
  const rule = assignment.late ?? course?.late ?? null;
  return rule === null || fromDecimal(rule.pointsPerDay).n === 0n ? null : rule;
}

/** The steps that its results are given on; null: it is given points. */
export function scaleOf(assignment: Ruled, course: Ruling): Scale | null {
  return course?.scales.find(({ id }) => id === assignment.scaleId) ?? null;
}

/**
 * What a marking gives: own points, else those of the group, else what its step is worth of the points possible. null where
 * it gives none of them, names a step that is not on the scale, or one that counts nothing.
 */
export function pointsGiven(
  { score, groupScore, result }: Pick<Marking, 'score' | 'groupScore' | 'result'>,
  assignment: Ruled,
  course: Ruling,
): Fraction | null {
  const points = score ?? groupScore;
  if (points !== null) return fromDecimal(points);
  const worth = scaleOf(assignment, course)?.steps.find(({ name }) => name === result)?.worth ?? null;
  if (worth === null || assignment.possible === null) return null;
  return multiply(fromDecimal(worth), fromDecimal(assignment.possible));
}

/** The best step that a share of the points reaches (1 = all); null below the last. */
export function stepReached(scale: Scale, share: Fraction): Step | null {
  const reached = scale.steps.filter(({ from }) => from !== null && compare(fromDecimal(from), share) <= 0);
  return reached.reduce<Step | null>(
    (best, step) =>
      best?.from == null ||
      (step.from !== null && compare(fromDecimal(step.from), fromDecimal(best.from)) > 0)
        ? step
        : best,
    null,
  );
}

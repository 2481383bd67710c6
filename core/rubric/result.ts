import type { Criterion, CriterionResult, Level, Rubric } from '../model/facts.ts';
import type { DecimalString } from '../model/ids.ts';
import {
  add,
  ONE,
  compare,
  divide,
  fromDecimal,
  multiply,
  subtract,
  ZERO,
  type Fraction,
} from '../scores/fraction.ts';

/** What an attempt reached on a rubric, and what the next level is beyond it. */

/** A criterion with its points in those of the assignment. */
export interface ScaledResult {
  readonly criterion: Criterion;
  readonly result: CriterionResult | null;
  /** What a point of the rubric is worth here: points of the criterion times this are points of the assignment. */
  readonly factor: Fraction;
  /** null: it is not scored. */
  readonly possible: Fraction | null;
  /** null: no points were given for it. */
  readonly got: Fraction | null;
}

/**
 * What the points of each criterion are of the assignment's. With weights a criterion is its weight's part of the total,
 * else its points' part; the total is scaled to the points of the assignment unless the rubric stands as it is.
 */
function factorsOf(rubric: Rubric, possible: DecimalString | null): Fraction[] {
  const scored = rubric.criteria.flatMap((criterion) =>
    criterion.possible === null
      ? []
      : [{ points: fromDecimal(criterion.possible), weight: criterion.weight }],
  );
  const total = scored.reduce((sum, { points }) => add(sum, points), ZERO);
  const weighted = scored.length > 0 && scored.every(({ weight }) => weight !== null);
  const weights = scored.reduce(
    (sum, { weight }) => (weight === null ? sum : add(sum, fromDecimal(weight))),
    ZERO,
  );
  const target = possible === null || rubric.unscaled ? total : fromDecimal(possible);
  return rubric.criteria.map((criterion) => {
    const points = criterion.possible === null ? ZERO : fromDecimal(criterion.possible);
    if (points.n === 0n || total.n === 0n) return ONE;
    if (!weighted || criterion.weight === null || weights.n === 0n) return divide(target, total);
    return divide(multiply(target, divide(fromDecimal(criterion.weight), weights)), points);
  });
}

/** Each criterion with what it got, in the points of the assignment; null for `possible`: the rubric's own. */
export function scaledResults(
  rubric: Rubric,
  results: readonly CriterionResult[],
  possible: DecimalString | null,
): ScaledResult[] {
  const factors = factorsOf(rubric, possible);
  return rubric.criteria.map((criterion, i) => {
    const result = results.find(({ criterionId }) => criterionId === criterion.id) ?? null;
    const points = result?.points ?? pointsOfLevel(criterion, result);
    return {
      criterion,
      result,
      factor: factors[i],
      possible: criterion.possible === null ? null : multiply(fromDecimal(criterion.possible), factors[i]),
      got: criterion.possible !== null && points !== null ? multiply(fromDecimal(points), factors[i]) : null,
    };
  });
}

/** Where only a level is named, its points are got, if it has one number for them. */
function pointsOfLevel(criterion: Criterion, result: CriterionResult | null): DecimalString | null {
  const level = criterion.levels.find(({ title }) => title === result?.level);
  return level === undefined || level.pointsFrom !== null ? null : level.points;
}

/** The points at which a level begins. */
function levelStart(level: Level): DecimalString | null {
  return level.pointsFrom ?? level.points;
}

/** The place of the level reached, from 0: the one that is named, else the highest that the points reach; -1 for none. */
export function levelReached(criterion: Criterion, result: CriterionResult | null): number {
  if (result === null) return -1;
  const named = criterion.levels.findIndex(({ title }) => title === result.level);
  if (named >= 0 || result.points === null) return named;
  const points = fromDecimal(result.points);
  return criterion.levels.findLastIndex((level) => {
    const start = levelStart(level);
    return start !== null && compare(fromDecimal(start), points) <= 0;
  });
}

/** The points from what was got to where the next level begins, in the assignment's; null where there is no next one. */
export function gapToNext({ criterion, result, got, factor }: ScaledResult): Fraction | null {
  const start = criterion.levels.at(levelReached(criterion, result) + 1);
  const points = start === undefined ? null : levelStart(start);
  if (got === null || points === null || result === null) return null;
  const gap = subtract(multiply(fromDecimal(points), factor), got);
  return gap.n > 0n ? gap : null;
}

/** How far the score that was given is from the sum of the criteria. */
export interface AddsUp {
  readonly sum: Fraction;
  readonly score: Fraction;
  /** score − sum: an adjustment, or a mistake in adding. */
  readonly difference: Fraction;
}

/** The points of a rubric as it stands: the sum of its scored criteria. */
export function rubricTotal({ criteria }: Rubric): Fraction {
  return criteria.reduce(
    (sum, { possible }) => (possible === null ? sum : add(sum, fromDecimal(possible))),
    ZERO,
  );
}

/** Whether the criteria make the score; null while a scored criterion has no points, or there is no score. */
export function addsUp(results: readonly ScaledResult[], score: Fraction | null): AddsUp | null {
  const scored = results.filter(({ possible }) => possible !== null);
  if (score === null || scored.length === 0) return null;
  let sum = ZERO;
  for (const { got } of scored) {
    if (got === null) return null;
    sum = add(sum, got);
  }
  return { sum, score, difference: subtract(score, sum) };
}

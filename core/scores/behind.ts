import type { CriterionResult, Rubric } from '../model/facts.ts';
import type { CriterionId } from '../model/ids.ts';
import type { Remark } from '../model/remark.ts';
import type { Judgement, Stance } from '../model/work.ts';
import { stanceOf } from '../saying/saying-of.ts';
import { fromDecimal, subtract, toHundredths } from './fraction.ts';

/** Weights of remarks that call for change; the others have no share. */
const WEIGHT_BY_STANCE: Readonly<Record<Stance, number>> = {
  'must-fix': 3,
  fix: 2,
  polish: 1,
  praise: 0,
  advice: 0,
  question: 0,
  pointer: 0,
  note: 0,
};

/** Points lost on one criterion and how they are shared over its remarks, all in hundredths of a point. */
export interface CriterionLoss {
  readonly criterionId: CriterionId;
  readonly title: string;
  readonly possible: number;
  readonly got: number;
  readonly lost: number;
  readonly shareByRemark: ReadonlyMap<string, number>;
  /** Lost, and there is no remark but praise: nobody said where they went. */
  readonly unexplained: number;
}

/**
 * Splits `total` hundredths in proportion to weights so that the parts add up exactly (largest remainder; equal
 * remainders go to the earlier part). Zeros where no weight is positive.
 */
export function shareExactly(total: number, weights: readonly number[]): number[] {
  const sum = weights.reduce((x, y) => x + y, 0);
  if (sum === 0) return weights.map(() => 0);
  const parts = weights.map((weight) => Math.floor((total * weight) / sum));
  const remainders = weights.map((weight, index) => ({ index, remainder: (total * weight) % sum }));
  remainders.sort((x, y) => y.remainder - x.remainder || x.index - y.index);
  const left = total - parts.reduce((x, y) => x + y, 0);
  for (const { index } of remainders.slice(0, left)) parts[index]++;
  return parts;
}

/**
 * What remarks carry of a loss: those that call for a change by their stance; where none does, all alike
 * but what the student calls praise.
 */
function weightsOf(remarks: readonly Remark[], judgements: ReadonlyMap<string, Judgement>): number[] {
  const weights = remarks.map((remark) => WEIGHT_BY_STANCE[stanceOf(remark, judgements.get(remark.id))]);
  if (weights.some((weight) => weight > 0)) return weights;
  // Only the student's word makes a remark praise that explains nothing: a proposal may be wrong.
  return remarks.map(({ id }) => {
    const judgement = judgements.get(id);
    return Number(judgement?.stance !== 'praise' && judgement?.decision !== 'keep');
  });
}

/** For each criterion with points: what was lost, and behind which remarks it lies (computation.md 2). */
export function criterionLosses(
  rubric: Rubric,
  results: readonly CriterionResult[],
  remarks: readonly Remark[],
  judgements: ReadonlyMap<string, Judgement>,
): CriterionLoss[] {
  return rubric.criteria.flatMap((criterion) => {
    const result = results.find((r) => r.criterionId === criterion.id);
    if (criterion.possible === null || result === undefined || result.points === null) return [];
    const possible = fromDecimal(criterion.possible);
    const got = fromDecimal(result.points);
    const lost = Math.max(0, toHundredths(subtract(possible, got)));
    const own = remarks.filter((remark) => remark.criterionId === criterion.id);
    const weights = weightsOf(own, judgements);
    const shares = shareExactly(lost, weights);
    return [
      {
        criterionId: criterion.id,
        title: criterion.title,
        possible: toHundredths(possible),
        got: toHundredths(got),
        lost,
        shareByRemark: new Map(own.map((remark, i) => [remark.id, shares[i]])),
        unexplained: weights.some((weight) => weight > 0) ? 0 : lost,
      },
    ];
  });
}

/** The points behind one remark in hundredths; null where no criterion with points is linked. */
export function pointsBehind(losses: readonly CriterionLoss[], remarkId: string): number | null {
  for (const loss of losses) {
    const share = loss.shareByRemark.get(remarkId);
    if (share !== undefined) return share;
  }
  return null;
}

import type { CriterionResult, Rubric } from '../model/facts.ts';
import type { CriterionId, DecimalString } from '../model/ids.ts';
import type { Remark } from '../model/remark.ts';
import type { Judgement, Stance } from '../model/work.ts';
import { stanceOf } from '../saying/saying-of.ts';
import { criterionOf } from './link.ts';
import { scaledResults } from './result.ts';
import { larger, roundedParts, subtract, toHundredths, ZERO, type Fraction } from '../scores/fraction.ts';

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

/** What a remark weighs where no points are behind it: 3 for must-fix, 2 for fix, 1 for polish, else 0. No unit. */
export function importanceOf(remark: Remark, judgement: Judgement | undefined): number {
  return WEIGHT_BY_STANCE[stanceOf(remark, judgement)];
}

/** Points lost in one place and how they are shared over its remarks; all in hundredths of the assignment's points. */
export interface Loss {
  /** null: of the assignment as a whole, where there are no criteria. */
  readonly criterionId: CriterionId | null;
  /** The criterion's title; '' for the whole. */
  readonly title: string;
  /** On a draft stage: not lost, but to be won or lost on the final's criterion. */
  readonly atStake: boolean;
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

type Judgements = ReadonlyMap<string, Judgement>;

function shared(
  lost: number,
  own: readonly Remark[],
  weights: readonly number[],
): Pick<Loss, 'lost' | 'shareByRemark' | 'unexplained'> {
  const shares = shareExactly(lost, weights);
  return {
    lost,
    shareByRemark: new Map(
      own.flatMap((remark, i) => (weights[i] > 0 ? [[remark.id, shares[i]] as const] : [])),
    ),
    unexplained: weights.some((weight) => weight > 0) ? 0 : lost,
  };
}

function onCriterion(remarks: readonly Remark[], id: CriterionId, judgements: Judgements): Remark[] {
  return remarks.filter((remark) => criterionOf(remark, judgements.get(remark.id)) === id);
}

/**
 * For each criterion with points: what was lost, and behind which remarks it lies (computation.md 2). The rubric's points
 * are scaled to the assignment's; rounded so that the criteria add up to what they lost together.
 * @param possible points of the assignment; null: those of the rubric as they stand
 */
export function criterionLosses(
  rubric: Rubric,
  results: readonly CriterionResult[],
  possible: DecimalString | null,
  remarks: readonly Remark[],
  judgements: Judgements,
): Loss[] {
  const scored = scaledResults(rubric, results, possible).flatMap(({ criterion, possible: most, got }) =>
    most === null || got === null ? [] : [{ criterion, possible: most, got }],
  );
  const lost = roundedParts(
    scored.map(({ possible: most, got }) => larger(ZERO, subtract(most, got))),
    2,
  );
  return scored.map(({ criterion, possible: most, got }, i) => {
    const own = onCriterion(remarks, criterion.id, judgements);
    return {
      criterionId: criterion.id,
      title: criterion.title,
      atStake: false,
      possible: toHundredths(most),
      got: toHundredths(got),
      ...shared(Number(lost[i]), own, weightsOf(own, judgements)),
    };
  });
}

/** What an assignment without criteria lost, shared over its remarks. */
export function wholeLoss(
  possible: Fraction,
  got: Fraction,
  remarks: readonly Remark[],
  judgements: Judgements,
): Loss {
  const lost = Math.max(0, toHundredths(subtract(possible, got)));
  return {
    criterionId: null,
    title: '',
    atStake: false,
    possible: toHundredths(possible),
    got: toHundredths(got),
    ...shared(lost, remarks, weightsOf(remarks, judgements)),
  };
}

/**
 * What is at stake on a draft stage: of each criterion of its final all points, or what the final lost of them once it is
 * marked, shared over the draft's remarks that call for change.
 */
export function lossesAtStake(
  rubric: Rubric,
  finalResults: readonly CriterionResult[],
  finalPossible: DecimalString | null,
  remarks: readonly Remark[],
  judgements: Judgements,
): Loss[] {
  return scaledResults(rubric, finalResults, finalPossible).flatMap(({ criterion, possible, got }) => {
    if (possible === null) return [];
    const own = onCriterion(remarks, criterion.id, judgements);
    const stake = larger(ZERO, subtract(possible, got ?? ZERO));
    return [
      {
        criterionId: criterion.id,
        title: criterion.title,
        atStake: true,
        possible: toHundredths(possible),
        got: toHundredths(got ?? ZERO),
        ...shared(
          toHundredths(stake),
          own,
          own.map((remark) => importanceOf(remark, judgements.get(remark.id))),
        ),
        unexplained: 0,
      },
    ];
  });
}

/** The points behind one remark in hundredths; null where it carries none. */
export function pointsBehind(losses: readonly Loss[], remarkId: string): number | null {
  for (const loss of losses) {
    const share = loss.shareByRemark.get(remarkId);
    if (share !== undefined) return share;
  }
  return null;
}

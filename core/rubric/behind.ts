import type { CriterionResult, Rubric } from '../model/facts.ts';
import type { CriterionId, DecimalString } from '../model/ids.ts';
import type { Remark } from '../model/remark.ts';
import { stances, type Stance } from '../model/work.ts';
import type { RemarkPart } from '../saying/remark-parts.ts';
import { stanceOf, weightiestOf, type Understood } from '../saying/saying-of.ts';
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

/**
 * What a remark weighs among others that points were lost by: 3 for must-fix, 2 for fix, 1 for polish, else 0; where it
 * isn't sure what it says, what is to be expected. No unit; null while nothing is known of it.
 */
export function importanceOf(remarkId: string, understood: Understood): number | null {
  const stance = stanceOf(remarkId, understood);
  const saying = understood.sayings.get(remarkId);
  const judgement = understood.judgements.get(remarkId);
  if (stance === null) return null;
  const said = judgement?.stance ?? weightiestOf(judgement);
  // Deciding settles nothing: what it was taken to say weighs on as it did then.
  if (said === null && judgement?.taken?.importance != null) return judgement.taken.importance;
  const older = judgement?.taken != null && judgement.taken.model !== saying?.model;
  if (said !== null || older || saying === undefined || saying.sure) return WEIGHT_BY_STANCE[stance];
  const expected = saying.parts.map(({ likely }) =>
    stances.reduce((sum, one) => sum + likely[one] * WEIGHT_BY_STANCE[one], 0),
  );
  return Math.round(100 * Math.max(0, ...expected)) / 100;
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
  /** Empty while it isn't known of each remark what it says. */
  readonly shareByRemark: ReadonlyMap<string, number>;
  /** Remarks whose points the marker names. */
  readonly named: ReadonlySet<string>;
  /** Remarks whose link to the criterion is only proposed. */
  readonly proposed: ReadonlySet<string>;
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

/** Stances that may explain a loss where no remark calls for a change. */
const MAY_EXPLAIN: ReadonlySet<Stance | null> = new Set(['question', 'advice', 'pointer']);

/**
 * What remarks carry of a loss in hundredths of a weight: those that call for a change; where none does, alike what is
 * neither praise nor a plain note. null while it isn't known of each of them.
 */
function weightsOf(remarks: readonly Remark[], understood: Understood): number[] | null {
  const weights = remarks.map(({ id }) => importanceOf(id, understood));
  if (weights.includes(null)) return null;
  if (weights.some((weight) => weight !== null && weight > 0))
    return weights.map((weight) => Math.round(100 * (weight ?? 0)));
  return remarks.map(({ id }) => 100 * Number(MAY_EXPLAIN.has(stanceOf(id, understood))));
}

/**
 * Shares a loss over remarks: points that the marker names are taken as said (scaled where they come to more than was
 * lost), the rest is shared by weight over the others (computation.md 2).
 */
function shared(
  lost: number,
  own: readonly Remark[],
  understood: Understood,
): Pick<Loss, 'lost' | 'shareByRemark' | 'unexplained' | 'named'> {
  const weights = weightsOf(own, understood);
  if (weights === null) return { lost, shareByRemark: new Map(), unexplained: 0, named: new Set() };
  const named = own.map(({ id }) => Math.round(100 * (understood.sayings.get(id)?.points ?? 0)));
  const sum = named.reduce((x, y) => x + y, 0);
  const told = sum > lost ? shareExactly(lost, named) : named;
  const left = lost - told.reduce((x, y) => x + y, 0);
  const others = weights.map((weight, i) => (named[i] > 0 ? 0 : weight));
  const shares = shareExactly(left, others);
  return {
    lost,
    shareByRemark: new Map(
      own.flatMap((remark, i) =>
        named[i] > 0 || others[i] > 0 ? [[remark.id, told[i] + shares[i]] as const] : [],
      ),
    ),
    named: new Set(own.flatMap(({ id }, i) => (named[i] > 0 ? [id as string] : []))),
    unexplained: others.some((weight) => weight > 0) ? 0 : left,
  };
}

/** Criteria that remarks which hang on none may be about, by the remark; until the student says otherwise they count. */
type ProposedLinks = ReadonlyMap<string, CriterionId>;

function onCriterion(
  remarks: readonly Remark[],
  id: CriterionId,
  { judgements }: Understood,
  proposed: ProposedLinks,
): Remark[] {
  return remarks.filter(
    (remark) => criterionOf(remark, judgements.get(remark.id)) === id || proposed.get(remark.id) === id,
  );
}

const NO_LINKS: ProposedLinks = new Map();

function proposedAmong(
  remarks: readonly Remark[],
  id: CriterionId,
  proposed: ProposedLinks,
): ReadonlySet<string> {
  return new Set(remarks.flatMap((remark) => (proposed.get(remark.id) === id ? [remark.id as string] : [])));
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
  understood: Understood,
  proposed: ProposedLinks = NO_LINKS,
): Loss[] {
  const scored = scaledResults(rubric, results, possible).flatMap(({ criterion, possible: most, got }) =>
    most === null || got === null ? [] : [{ criterion, possible: most, got }],
  );
  const lost = roundedParts(
    scored.map(({ possible: most, got }) => larger(ZERO, subtract(most, got))),
    2,
  );
  return scored.map(({ criterion, possible: most, got }, i) => {
    // Where nothing was lost nothing is proposed.
    const links = Number(lost[i]) > 0 ? proposed : NO_LINKS;
    const own = onCriterion(remarks, criterion.id, understood, links);
    return {
      criterionId: criterion.id,
      title: criterion.title,
      atStake: false,
      proposed: proposedAmong(own, criterion.id, links),
      possible: toHundredths(most),
      got: toHundredths(got),
      ...shared(Number(lost[i]), own, understood),
    };
  });
}

/** What an assignment without criteria lost, shared over its remarks. */
export function wholeLoss(
  possible: Fraction,
  got: Fraction,
  remarks: readonly Remark[],
  understood: Understood,
): Loss {
  const lost = Math.max(0, toHundredths(subtract(possible, got)));
  return {
    criterionId: null,
    title: '',
    atStake: false,
    proposed: new Set(),
    possible: toHundredths(possible),
    got: toHundredths(got),
    ...shared(lost, remarks, understood),
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
  understood: Understood,
  proposed: ProposedLinks = NO_LINKS,
): Loss[] {
  return scaledResults(rubric, finalResults, finalPossible).flatMap(({ criterion, possible, got }) => {
    if (possible === null) return [];
    const own = onCriterion(remarks, criterion.id, understood, proposed);
    const stake = larger(ZERO, subtract(possible, got ?? ZERO));
    return [
      {
        criterionId: criterion.id,
        title: criterion.title,
        atStake: true,
        proposed: proposedAmong(own, criterion.id, proposed),
        possible: toHundredths(possible),
        got: toHundredths(got ?? ZERO),
        ...shared(toHundredths(stake), own, understood),
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

/**
 * What of a remark's points, or of another measure of it, is each part's: by what the parts weigh; alike where none calls
 * for a change.
 * @param share in whole numbers, such as hundredths of a point
 */
export function sharesOfParts(share: number, parts: readonly Pick<RemarkPart, 'stance'>[]): number[] {
  const weights = parts.map(({ stance }) => WEIGHT_BY_STANCE[stance]);
  return shareExactly(share, weights.some((weight) => weight > 0) ? weights : parts.map(() => 1));
}

/** What a part weighs, without a unit. */
export function importanceOfPart({ stance }: Pick<RemarkPart, 'stance'>): number {
  return WEIGHT_BY_STANCE[stance];
}

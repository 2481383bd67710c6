import type { Criterion, CriterionResult, Marking } from '../model/facts.ts';
import type { DecimalString } from '../model/ids.ts';
import { fromDecimal, subtract, type Fraction } from '../scores/fraction.ts';
import type { AssignmentView } from './view.ts';

/** What a criterion got before and got now. */
interface CriterionChange {
  readonly criterion: Criterion;
  readonly before: CriterionResult | null;
  readonly after: CriterionResult | null;
  /** Points more than before; null where one of them has none. */
  readonly change: Fraction | null;
}

/** The first marking and the newest, criterion by criterion. */
export interface BeforeAfter {
  readonly first: Marking;
  readonly last: Marking;
  readonly criteria: readonly CriterionChange[];
  /** Points more than before in all; null where one of them has no score. */
  readonly change: Fraction | null;
}

/** Sets the first marked attempt beside the newest; null with fewer than two of them. */
export function beforeAndAfter({ attempts, rubric }: AssignmentView): BeforeAfter | null {
  const marked = attempts.flatMap(({ marking }) => (marking === null ? [] : [marking]));
  const [first, last] = [marked.at(0), marked.at(-1)];
  if (first === undefined || last === undefined || marked.length < 2) return null;
  const resultIn = ({ criteria }: Marking, { id }: Criterion) =>
    criteria.find(({ criterionId }) => criterionId === id) ?? null;
  return {
    first,
    last,
    criteria: (rubric?.criteria ?? []).map((criterion) => {
      const [before, after] = [resultIn(first, criterion), resultIn(last, criterion)];
      return { criterion, before, after, change: changeOf(before?.points ?? null, after?.points ?? null) };
    }),
    change: changeOf(first.score, last.score),
  };
}

function changeOf(before: DecimalString | null, after: DecimalString | null): Fraction | null {
  return before === null || after === null ? null : subtract(fromDecimal(after), fromDecimal(before));
}

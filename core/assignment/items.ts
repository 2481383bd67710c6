import type { Criterion, CriterionResult } from '../model/facts.ts';
import type { Remark } from '../model/remark.ts';
import { asId, CriterionId } from '../model/ids.ts';
import { compare, fromDecimal } from '../scores/fraction.ts';
import { standing, type MarkedAttempt } from './attempts.ts';
import type { AssignmentView } from './view.ts';

/** An item of an activity: what was answered, what was said of that, and the answer of the next attempt. */
export interface ItemRow {
  readonly item: Criterion;
  /** What was answered in the attempt before; '' where that isn't known. */
  readonly before: string;
  readonly result: CriterionResult | null;
  readonly remarks: readonly Remark[];
  /** '' while it is not answered again. */
  readonly answer: string;
  /** Points were lost on it; null where that isn't known. */
  readonly lost: boolean | null;
}

/** The one item of an activity that is marked as a whole. */
export const WHOLE_ITEM = asId(CriterionId, 'whole');

/**
 * The items of an activity, which are the criteria it is marked by: those that lost points first, in their own order. One
 * that has none is answered and marked as a whole.
 */
export function itemRows(view: AssignmentView): ItemRow[] {
  const { rubric, attempts, draft, criteria, remarks } = view;
  const last = standing(attempts).at(-1);
  if (rubric === null || rubric.criteria.length === 0) return [wholeRow(view, last)];
  const marked = standing(attempts).findLast(({ marking }) => marking !== null)?.marking ?? null;
  const rows = rubric.criteria.map((item): ItemRow => {
    const scaled = criteria.find(({ criterion }) => criterion.id === item.id);
    const [got, possible] = [scaled?.got ?? null, scaled?.possible ?? null];
    return {
      item,
      before: textOf(last?.attempt.items, item.id),
      result: marked?.criteria.find(({ criterionId }) => criterionId === item.id) ?? null,
      remarks: remarks.filter(({ criterionId }) => criterionId === item.id),
      answer: textOf(draft?.items, item.id),
      lost: got === null || possible === null ? null : compare(got, possible) < 0,
    };
  });
  return [...rows.filter(({ lost }) => lost === true), ...rows.filter(({ lost }) => lost !== true)];
}

function wholeRow(
  { assignment, draft, remarks, score }: AssignmentView,
  last: MarkedAttempt | undefined,
): ItemRow {
  const { title, brief, possible } = assignment;
  return {
    item: {
      id: WHOLE_ITEM,
      title,
      description: brief,
      possible,
      weight: null,
      levels: [],
    },
    before: textOf(last?.attempt.items, WHOLE_ITEM),
    result: null,
    remarks,
    answer: textOf(draft?.items, WHOLE_ITEM),
    lost: score === null || possible === null ? null : compare(score, fromDecimal(possible)) < 0,
  };
}

function textOf(items: Readonly<Partial<Record<string, string>>> | undefined, id: string): string {
  return items?.[id] ?? '';
}

import type { Criterion, CriterionResult } from '../model/facts.ts';
import type { Remark } from '../model/remark.ts';
import { standing } from './attempts.ts';
import { compare } from '../scores/fraction.ts';
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

/** The items of an activity, which are the criteria it is marked by: those that lost points first, in their own order. */
export function itemRows(view: AssignmentView): ItemRow[] {
  const { rubric, attempts, draft, criteria, remarks } = view;
  const last = standing(attempts).at(-1);
  const marked = standing(attempts).findLast(({ marking }) => marking !== null)?.marking ?? null;
  const rows = (rubric?.criteria ?? []).map((item): ItemRow => {
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

function textOf(items: Readonly<Partial<Record<string, string>>> | undefined, id: string): string {
  return items?.[id] ?? '';
}

import type { Remark } from '../model/remark.ts';
import type { AssignmentView } from './view.ts';

/** A remark that was carried on, and what it says for next time, where it says so. */
interface CarriedRemark {
  readonly remark: Remark;
  readonly hint: string | null;
}

/** The remarks of the same course that were carried on, to keep in mind. */
export function carriedIn(view: AssignmentView, all: readonly AssignmentView[]): CarriedRemark[] {
  return all
    .filter((one) => one.assignment.courseId === view.assignment.courseId)
    .flatMap(({ remarks, judgements, sayings }) =>
      remarks
        .filter((remark) => judgements.get(remark.id)?.carry === true)
        .map((remark) => ({ remark, hint: sayings.get(remark.id)?.hint ?? null })),
    );
}

import { Proposals } from '#core/assignment/proposals.ts';
import { recordsIn } from '#core/assignment/records.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { RemarkRef } from '#core/model/work.ts';
import { firstTitleOf } from '#core/plan/tasks.ts';
import { taskFor } from '#core/saying/task-wording.ts';
import type { Workspace } from '../../workspace/workspace.ts';

/** What is to be done about a remark, as a task of its own would be called; null for one that is gone. */
export function titleOfRemark(
  { records }: Workspace,
  { about }: AssignmentView,
  { remarkId }: RemarkRef,
): string | null {
  const remark = about.remarks.find(({ id }) => id === remarkId);
  if (remark === undefined) return null;
  const saying = new Proposals(recordsIn(records)).of(remark);
  return (saying === null ? null : taskFor(remark.text, saying)) ?? (firstTitleOf(remark) || null);
}

import { isRead } from '#core/tally/tally.ts';
import type { Remark } from '#core/model/remark.ts';
import { unreadIn, type AssignmentView } from '#core/assignment/view.ts';

/** Assignments with something not read, the newest first. */
function unreadViews(views: readonly AssignmentView[]): AssignmentView[] {
  return views
    .filter((view) => view.latestMarking !== null && unreadIn(view) > 0)
    .sort((x, y) => (y.latestMarking?.at ?? '').localeCompare(x.latestMarking?.at ?? ''));
}

/** The first remark that is not read, of the newest assignment that has one; `except` is passed over. */
export function nextUnreadAnywhere(
  views: readonly AssignmentView[],
  except: string | null,
): { view: AssignmentView; remark: Remark } | null {
  for (const view of unreadViews(views)) {
    if (view.assignment.id === except) continue;
    const remark = view.remarks.find((one) => !isRead(one, view.readings.get(one.id)));
    if (remark !== undefined) return { view, remark };
  }
  return null;
}

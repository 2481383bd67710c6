import { toast } from 'sonner';
import { pointsMoved, proposalsMoved } from '#core/assignment/moved.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import * as words from '../../words/en.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { undoAndTell } from '../page/notify.ts';

/**
 * Puts something right about a remark, and says what of the others moved with it: their points, and what they are proposed to
 * say. One undo takes all of it back.
 */
export async function sayWhatMoves(
  workspace: Workspace,
  view: AssignmentView,
  remark: Remark,
  change: Promise<void>,
): Promise<void> {
  await change;
  const after = workspace.views.viewOf(workspace.records, view.assignment.id, workspace.nowMs());
  if (after === null) return;
  const points = pointsMoved(view, after, remark.id).length;
  const proposals = proposalsMoved(view, after, remark.id).length;
  if (points + proposals === 0) return;
  toast(words.slip.moved(points, proposals), {
    action: { label: words.undo.undo, onClick: () => void undoAndTell(workspace, remark.assignmentId) },
  });
}

import type { Workspace } from '../workspace.ts';
import type { ScoreChange } from '#core/assignment/attempts.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { scoreReadingId } from '#core/model/own-ids.ts';
import type { Remark } from '#core/model/remark.ts';
import { wordingMark } from '#core/reading/need.ts';
import * as words from '../../words/en.ts';
import type { Writing } from '../storage/transact.ts';

/** What was read. Apart from what is decided: pages that only count what is read need no more than this. */

/** Marks a remark read or not, within a command. */
export async function putRead(writing: Writing, remark: Remark, read: boolean): Promise<void> {
  const known = await writing.get('readings', remark.id);
  const seenMs = known?.of === wordingMark(remark) ? known.seenMs : 0;
  if (known?.read === read && known.of === wordingMark(remark)) return;
  await writing.put('readings', {
    remarkId: remark.id,
    assignmentId: remark.assignmentId,
    of: wordingMark(remark),
    seenMs,
    read,
  });
}

/** Adds time that a remark was in view; from enough of it on the remark counts as read. */
export function addReadingTime(
  workspace: Workspace,
  remark: Remark,
  ms: number,
  read: boolean,
): Promise<void> {
  return workspace.save(async (writing) => {
    const of = wordingMark(remark);
    const known = await writing.get('readings', remark.id);
    const before = known?.of === of ? known : null;
    // Time counts until it is read; what was on its way when it was decided about changes nothing more.
    if (before?.read === true) return;
    await writing.put('readings', {
      remarkId: remark.id,
      assignmentId: remark.assignmentId,
      of,
      seenMs: Math.round((before?.seenMs ?? 0) + ms),
      read,
    });
  });
}

export function markRead(workspace: Workspace, remark: Remark, read: boolean): Promise<void> {
  return workspace.run(
    remark.assignmentId,
    read ? words.undo.markedRead : words.undo.markedUnread,
    (writing) => putRead(writing, remark, read),
  );
}

/** Marks everything that came back for an assignment as read, a changed score with it. */
export function markAllRead(
  workspace: Workspace,
  { assignment, remarks, scoreChange }: AssignmentView,
): Promise<void> {
  return workspace.run(assignment.id, words.undo.markedAllRead, async (writing) => {
    // Each writes a record of its own; one after the other would be as many ways to the disk.
    await Promise.all(remarks.map((remark) => putRead(writing, remark, true)));
    if (scoreChange !== null) await putScoreSeen(writing, scoreChange);
  });
}

/** Says that a changed score was seen. */
export function markScoreSeen(
  workspace: Workspace,
  assignmentId: string,
  change: ScoreChange,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.seenScore, (writing) => putScoreSeen(writing, change));
}

async function putScoreSeen(writing: Writing, change: ScoreChange): Promise<void> {
  await writing.put('readings', {
    remarkId: scoreReadingId(change.after.id),
    assignmentId: change.after.assignmentId,
    of: change.after.score ?? '',
    seenMs: 0,
    read: true,
  });
}

import type { Workspace } from '../workspace.ts';
import type { Attempt, Fact, Marking, Rubric } from '#core/model/facts.ts';
import type { Remark } from '#core/model/remark.ts';
import type { Submission } from '#core/model/work.ts';
import { settleTasks } from '../commands/stages.ts';
import type { Writing } from '../storage/transact.ts';
import { criterionRemarkId, overallRemarkId } from '#core/model/own-ids.ts';

/** Copies what the course desk says into the workspace. */

/**
 * Overall words and criterion comments are remarks too; each is one.
 * @param first the first marking of this attempt by this marker: a correction speaks of the same remarks
 */
export function remarksOfMarking(marking: Marking, first: Marking): Remark[] {
  const base = {
    assignmentId: marking.assignmentId,
    attemptId: marking.attemptId,
    markingId: marking.id,
    author: marking.marker,
    at: marking.at,
    kind: 'comment',
    color: null,
    replies: [],
    state: null,
    change: null,
    rule: null,
    before: null,
    withdrawn: false,
    textAt: null,
    fileHash: null,
    paperHash: null,
  };
  const remarks: Remark[] = [];
  if (marking.overall.trim() !== '')
    remarks.push({
      ...base,
      id: overallRemarkId(first.id),
      channel: 'overall',
      text: marking.overall,
      criterionId: null,
      targets: [{ kind: 'whole' }],
      points: marking.score,
      order: 0,
    });
  marking.criteria.forEach(({ criterionId, comment, points }, order) => {
    if (comment.trim() !== '')
      remarks.push({
        ...base,
        id: criterionRemarkId(first.id, criterionId),
        channel: 'criterion',
        text: comment,
        criterionId,
        targets: [{ kind: 'criterion', criterionId }],
        points,
        order,
      });
  });
  return remarks;
}

/** Writes a remark as its source has it now; what it said before is kept beside it. */
export async function putRemark(writing: Writing, remark: Remark): Promise<void> {
  const known = await writing.get('remarks', remark.id);
  if (known === null) {
    await writing.put('remarks', remark);
    return;
  }
  const changed = known.text !== remark.text || known.points !== remark.points;
  const before = changed ? { text: known.text, points: known.points, at: known.at } : known.before;
  await writing.put('remarks', { ...remark, before });
}

/** Remarks of a marking or file that its newer form has no more are kept, marked as withdrawn. */
export async function withdrawOthers(
  writing: Writing,
  old: readonly Remark[],
  kept: readonly Remark[],
): Promise<void> {
  const ids = new Set<string>(kept.map(({ id }) => id));
  for (const remark of old)
    if (!ids.has(remark.id) && !remark.withdrawn)
      await writing.put('remarks', { ...remark, withdrawn: true });
}

async function putMarking(workspace: Workspace, writing: Writing, marking: Marking): Promise<void> {
  const sameHand = (await writing.all('markings')).filter(
    (one) =>
      one.attemptId === marking.attemptId && one.marker.name === marking.marker.name && one.id !== marking.id,
  );
  const first = [...sameHand, marking].reduce((x, y) => (y.at < x.at ? y : x));
  await writing.put('markings', marking);
  await writing.put('arrivals', {
    markingId: marking.id,
    assignmentId: marking.assignmentId,
    at: workspace.now(),
  });
  const remarks = remarksOfMarking(marking, first);
  // A line of the record that comes late must not undo a newer one.
  if (sameHand.some((one) => one.at > marking.at)) return;
  if (sameHand.length > 0) {
    const said = (await writing.all('remarks')).filter(
      (remark) => remark.fileHash === null && remark.id.startsWith(`${first.id}/`),
    );
    await withdrawOthers(writing, said, remarks);
  }
  for (const remark of remarks) await putRemark(writing, remark);
}

/** Copies facts of the desk into the workspace, all of a page or none. */
export function takeInFacts(
  workspace: Workspace,
  facts: readonly Fact[],
  rubrics: readonly Rubric[],
  cursor: number,
  meta: Readonly<Record<string, unknown>> = {},
): Promise<void> {
  return workspace.save(async (writing) => {
    for (const rubric of rubrics) await writing.put('rubrics', rubric);
    for (const fact of facts)
      switch (fact.kind) {
        case 'course':
          await writing.put('courses', fact.value);
          break;
        case 'assignment':
          await writing.put('assignments', fact.value);
          break;
        case 'attempt':
          await putAttempt(writing, fact.value);
          break;
        case 'marking':
          await putMarking(workspace, writing, fact.value);
          break;
        case 'withdrawal':
          await writing.put('withdrawals', fact.value);
          break;
      }
    if (facts.some(({ kind }) => kind === 'assignment')) await settleTasks(writing);
    writing.setMeta('cursor', cursor);
    for (const [key, value] of Object.entries(meta)) writing.setMeta(key, value);
  });
}

/** Whether an attempt is the one that a submission became. */
function isOf(submission: Submission, attempt: Attempt): boolean {
  if (submission.assignmentId !== attempt.assignmentId) return false;
  const papers = submission.files.filter(({ role }) => role === 'paper');
  return papers.length > 0
    ? papers.every(({ hash }) => attempt.files.some((file) => file.hash === hash))
    : JSON.stringify([submission.post, submission.items]) === JSON.stringify([attempt.post, attempt.items]);
}

/**
 * An attempt that arrived at the desk settles the submission it came from.
 * @param submissionId the submission that it answers, where that is known
 */
export async function putAttempt(
  writing: Writing,
  attempt: Attempt,
  submissionId: string | null = null,
): Promise<void> {
  await writing.put('attempts', attempt);
  const { receipt } = attempt;
  if (receipt === null) return;
  for (const submission of await writing.all('submissions')) {
    const { state, id } = submission;
    // One that became another attempt stays with that.
    const isSettled = state.kind === 'received' && state.attemptId !== attempt.id;
    if (!isSettled && (id === submissionId || isOf(submission, attempt)))
      await writing.put('submissions', {
        ...submission,
        state: { kind: 'received', attemptId: attempt.id, receipt },
      });
  }
}

import type { AssignmentId } from '#core/model/ids.ts';
import type { Remark } from '#core/model/remark.ts';
import type { GivenAnswer, PlaceInPicture } from '#core/model/work.ts';
import * as words from '../../words/en.ts';
import type { Writing } from '../storage/transact.ts';
import type { Workspace } from '../workspace.ts';

/** What the student says was done about remarks. */

async function change(
  writing: Writing,
  assignmentId: AssignmentId,
  remark: Remark,
  how: (known: GivenAnswer) => GivenAnswer,
): Promise<void> {
  const none: GivenAnswer = { remarkId: remark.id, assignmentId, words: '', regions: [] };
  const next = how((await writing.get('answers', remark.id)) ?? none);
  const isEmpty = next.words.trim() === '' && next.regions.length === 0;
  if (isEmpty) await writing.remove('answers', remark.id);
  else await writing.put('answers', next);
  // An answer ticks its task; one that is taken away leaves it open again.
  for (const task of await writing.all('tasks'))
    if (task.remarkIds.includes(remark.id) && task.remarkIds.length === 1 && task.done === isEmpty)
      await writing.put('tasks', { ...task, done: !isEmpty });
}

/** Keeps in words what was done about a remark. */
export function answerInWords(
  workspace: Workspace,
  assignmentId: AssignmentId,
  remark: Remark,
  text: string,
  typing?: string,
): Promise<void> {
  return workspace.run(
    assignmentId,
    words.undo.answered,
    (writing) => change(writing, assignmentId, remark, (known) => ({ ...known, words: text })),
    typing,
  );
}

/** Keeps where in a new picture a remark was seen to. */
export function answerByPlace(
  workspace: Workspace,
  assignmentId: AssignmentId,
  remark: Remark,
  place: PlaceInPicture,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.answered, (writing) =>
    change(writing, assignmentId, remark, (known) => ({ ...known, regions: [...known.regions, place] })),
  );
}

/** Takes the places of an answer away; its words stay. */
export function withoutPlaces(
  workspace: Workspace,
  assignmentId: AssignmentId,
  remark: Remark,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.answered, (writing) =>
    change(writing, assignmentId, remark, (known) => ({ ...known, regions: [] })),
  );
}

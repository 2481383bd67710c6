import type { Assignment } from '#core/model/facts.ts';
import type { AssignmentId } from '#core/model/ids.ts';
import { workedInOf } from '#core/assignment/stages.ts';
import type { Writing } from '../storage/transact.ts';

/** Tasks of work in stages: they belong to the final (decisions.md, Kind of work). */

async function finderIn(writing: Writing): Promise<(id: string) => Assignment | null> {
  const byId = new Map((await writing.all('assignments')).map((one) => [one.id as string, one]));
  return (id) => byId.get(id) ?? null;
}

/** The assignment that tasks for remarks on this one belong to. */
export async function taskOwner(writing: Writing, assignmentId: AssignmentId): Promise<AssignmentId> {
  const find = await finderIn(writing);
  const own = find(assignmentId);
  return own === null ? assignmentId : workedInOf(find, own).id;
}

/**
 * Puts every task where it belongs, after stages were joined or parted: with the final that its remarks' work leads to. One
 * without a remark goes along with a draft stage that is joined, and stays when it is parted.
 */
export async function settleTasks(writing: Writing): Promise<void> {
  const find = await finderIn(writing);
  for (const task of await writing.all('tasks')) {
    const first = task.about.at(0);
    const remark = first === undefined ? null : await writing.get('remarks', first.remarkId);
    const home = find(remark?.assignmentId ?? task.assignmentId);
    if (home === null) continue;
    const owner = workedInOf(find, home).id;
    if (owner !== task.assignmentId) await writing.put('tasks', { ...task, assignmentId: owner });
  }
}

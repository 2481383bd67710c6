import type { Workspace } from '../workspace.ts';
import type { ChangeKind, Task } from '#core/model/work.ts';
import { MINUTES_BY_KIND } from '#core/plan/tasks.ts';
import * as words from '../../words/en.ts';

function changeTask(
  workspace: Workspace,
  task: Task,
  label: string,
  change: (task: Task) => Partial<Task>,
): Promise<void> {
  return workspace.run(task.assignmentId, label, async (writing) => {
    const known = await writing.get('tasks', task.id);
    if (known !== null) await writing.put('tasks', { ...known, ...change(known), touched: true });
  });
}

export function tickTask(workspace: Workspace, task: Task, done: boolean): Promise<void> {
  return changeTask(workspace, task, done ? words.undo.ticked : words.undo.unticked, () => ({ done }));
}
export function renameTask(workspace: Workspace, task: Task, title: string): Promise<void> {
  return changeTask(workspace, task, words.undo.renamed, () => ({ title }));
}
export function setTaskMinutes(workspace: Workspace, task: Task, minutes: number): Promise<void> {
  return changeTask(workspace, task, words.undo.minutes, () => ({ minutes }));
}
export function setTaskKind(workspace: Workspace, task: Task, kind: ChangeKind): Promise<void> {
  return changeTask(workspace, task, words.undo.kind, () => ({ kind, minutes: MINUTES_BY_KIND[kind] }));
}

/** Keeps the order that the student gave the tasks. */
export function orderTasks(
  workspace: Workspace,
  assignmentId: string,
  taskIds: readonly string[],
): Promise<void> {
  return workspace.run(assignmentId, words.undo.ordered, async (writing) => {
    for (const [rank, id] of taskIds.entries()) {
      const task = await writing.get('tasks', id);
      if (task !== null && task.rank !== rank) await writing.put('tasks', { ...task, rank });
    }
  });
}

/** Gives up the student's order for the proposed one. */
export function proposeOrder(workspace: Workspace, assignmentId: string): Promise<void> {
  return workspace.run(assignmentId, words.undo.proposed, async (writing) => {
    for (const task of await writing.all('tasks'))
      if (task.assignmentId === assignmentId && task.rank !== null)
        await writing.put('tasks', { ...task, rank: null });
  });
}

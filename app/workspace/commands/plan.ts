import type { Workspace } from '../workspace.ts';
import type { AssignmentId, TaskId } from '#core/model/ids.ts';
import { asId, TaskId as Id } from '#core/model/ids.ts';
import type { ChangeKind, RemarkRef, Task } from '#core/model/work.ts';
import { MINUTES_BY_KIND, newTask } from '#core/plan/tasks.ts';
import { circleThrough } from '#core/plan/time.ts';
import * as words from '../../words/en.ts';
import type { Writing } from '../storage/transact.ts';
import { newId } from './draft.ts';

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
/** Says whether a task is in the plan or out of it whatever it gains; null: as it pays. */
export function pinTask(workspace: Workspace, task: Task, pin: Task['pin']): Promise<void> {
  return changeTask(workspace, task, words.undo.pinned, () => ({ pin }));
}
/** Says what has to be done before a task; a circle is for whoever asks to see to (core/plan/time.ts). */
export function setTaskNeeds(workspace: Workspace, task: Task, needs: readonly TaskId[]): Promise<void> {
  return changeTask(workspace, task, words.undo.needs, () => ({ needs: [...needs] }));
}
export function setTaskSteps(workspace: Workspace, task: Task, steps: Task['steps']): Promise<void> {
  return changeTask(workspace, task, words.undo.steps, () => ({ steps }));
}

/** Says who of a group does a task, by name; '' for nobody yet. */
export function setTaskWho(workspace: Workspace, task: Task, who: string): Promise<void> {
  return changeTask(workspace, task, words.undo.who, () => ({ who }));
}

/** A task of the student's own. */
export async function addTask(
  workspace: Workspace,
  assignmentId: AssignmentId,
  title: string,
): Promise<TaskId> {
  const id = asId(Id, newId());
  await workspace.run(assignmentId, words.undo.taskAdded, (writing) =>
    writing.put('tasks', {
      ...newTask({ id, assignmentId, title, kind: 'paragraph', about: [] }),
      touched: true,
    }),
  );
  return id;
}

/** Takes a task out of the plan, with what others need of it and the time set aside for it. */
export async function removeTask(writing: Writing, { id }: Task): Promise<void> {
  await writing.remove('tasks', id);
  await replaceIn(writing, id, null);
}

/** Puts a task in another's place, null for none, wherever one is needed, or has time set aside or spent on it. */
async function replaceIn(writing: Writing, id: TaskId, by: TaskId | null): Promise<void> {
  const replaced = (ids: readonly TaskId[], self: TaskId | null) =>
    [...new Set(ids.flatMap((one) => (one === id ? (by ?? []) : one)))].filter((one) => one !== self);
  for (const task of await writing.all('tasks'))
    if (task.needs.includes(id))
      await writing.put('tasks', { ...task, needs: replaced(task.needs, task.id) });
  for (const block of await writing.all('blocks')) {
    if (!block.taskIds.includes(id)) continue;
    const taskIds = replaced(block.taskIds, null);
    if (taskIds.length > 0) await writing.put('blocks', { ...block, taskIds });
    else await writing.remove('blocks', block.id);
  }
  if (by === null) return;
  for (const spell of await writing.all('spells'))
    if (spell.taskId === id) await writing.put('spells', { ...spell, taskId: by });
}

/** Takes a task of the student's own away. */
export function dropTask(workspace: Workspace, task: Task): Promise<void> {
  return workspace.run(task.assignmentId, words.undo.taskDropped, (writing) => removeTask(writing, task));
}

/**
 * Joins tasks: the first takes in what the others are about, their steps, their minutes and what they need.
 */
export function joinTasks(workspace: Workspace, tasks: readonly Task[]): Promise<void> {
  return joinGroups(workspace, tasks[0].assignmentId, [{ tasks, once: false }]);
}

/** Tasks to be joined. */
interface ToJoin {
  readonly tasks: readonly Task[];
  /** They ask for the same: it is done once, and looked after in each other place. */
  readonly once: boolean;
}

/** The same for several groups of tasks, undone in one step. */
export function joinGroups(
  workspace: Workspace,
  assignmentId: AssignmentId,
  groups: readonly ToJoin[],
): Promise<void> {
  const label = words.undo.tasksJoined(groups.reduce((sum, { tasks }) => sum + tasks.length, 0));
  return workspace.run(assignmentId, label, async (writing) => {
    for (const group of groups) await joinInto(writing, group);
  });
}

/** Joins tasks into the first of them. */
export async function joinInto(writing: Writing, { tasks, once }: ToJoin): Promise<void> {
  const known: Task[] = [];
  for (const { id } of tasks) {
    const task = await writing.get('tasks', id);
    if (task !== null) known.push(task);
  }
  if (known.length < 2) return;
  const [first, ...others] = known;
  const ids = new Set<string>(known.map(({ id }) => id));
  await writing.put('tasks', {
    ...first,
    about: known.flatMap(({ about }) => about),
    steps: known.flatMap(({ steps }) => steps),
    needs: [...new Set(known.flatMap(({ needs }) => needs))].filter((id) => !ids.has(id)),
    minutes: once ? onceMinutes(known) : known.reduce((sum, { minutes }) => sum + minutes, 0),
    done: known.every(({ done }) => done),
    touched: true,
  });
  for (const { id } of others) {
    await writing.remove('tasks', id);
    await replaceIn(writing, id, first.id);
  }
  // What one of them needed may itself need another: joined, they would go in a circle.
  const joined = await writing.get('tasks', first.id);
  const all = await writing.all('tasks');
  if (joined !== null)
    await writing.put('tasks', {
      ...joined,
      needs: joined.needs.filter((id) => circleThrough(all, joined.id, id) === null),
    });
}

/** What is asked for in several places is done once, and looked after in each other place. */
function onceMinutes(tasks: readonly Task[]): number {
  const longest = Math.max(...tasks.map(({ minutes }) => minutes));
  return longest + (tasks.length - 1) * MINUTES_BY_KIND.mechanical;
}

/**
 * Makes a task of each remark that a task is about; one about a single remark becomes two, with the time halved.
 * @param titleOf what is to be done about a remark
 */
export function splitTask(
  workspace: Workspace,
  task: Task,
  titleOf: (ref: RemarkRef) => string,
): Promise<void> {
  return workspace.run(task.assignmentId, words.undo.taskSplit, async (writing) => {
    const known = await writing.get('tasks', task.id);
    if (known === null) return;
    const { about, title } = known;
    const pieces =
      about.length > 1
        ? about.map((ref) => ({ about: [ref], title: titleOf(ref) }))
        : [
            { about, title },
            { about, title: words.plan.secondHalf(title) },
          ];
    const minutes = Math.max(1, Math.ceil(known.minutes / pieces.length));
    for (const [index, piece] of pieces.entries()) {
      const own = index === 0 ? {} : { id: asId(Id, newId()), steps: [] };
      await writing.put('tasks', { ...known, ...piece, ...own, minutes, touched: true });
    }
  });
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

/** Keeps the minutes that the student has for an assignment; null: as many as all tasks take. */
export function planMinutes(
  workspace: Workspace,
  assignmentId: AssignmentId,
  minutes: number | null,
): Promise<void> {
  return workspace.save((writing) =>
    minutes === null
      ? writing.remove('planTimes', assignmentId)
      : writing.put('planTimes', { assignmentId, minutes }),
  );
}

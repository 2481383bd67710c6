import type { AssignmentView } from '#core/assignment/view.ts';
import { whyNotThen } from '#core/plan/by-hand.ts';
import type { TaskBlock, PlacedBlock } from '#core/plan/place.ts';
import type { Span } from '#core/plan/spans.ts';
import type { Task } from '#core/model/work.ts';
import * as words from '../../words/en.ts';
import type { WeekPlan } from '../../workspace/state/week.ts';

/** What tasks and their assignments are called. */
export interface Names {
  readonly viewByTask: ReadonlyMap<string, { readonly view: AssignmentView; readonly task: Task }>;
}

/** The assignment that a block is for; null where it is gone. */
export function viewOfBlock(
  { taskIds }: Pick<TaskBlock, 'taskIds'>,
  { viewByTask }: Names,
): AssignmentView | null {
  for (const id of taskIds) {
    const found = viewByTask.get(id);
    if (found !== undefined) return found.view;
  }
  return null;
}

/** The tasks of a block, as they are called. */
export function tasksOfBlock({ taskIds }: Pick<TaskBlock, 'taskIds'>, { viewByTask }: Names): string[] {
  return taskIds.flatMap((id) => viewByTask.get(id)?.task.title ?? []);
}

export function titleOfBlock(block: Pick<TaskBlock, 'taskIds'>, names: Names): string {
  const [first = '', ...more] = tasksOfBlock(block, names);
  return words.week.tasks(first, more.length);
}

/** The sentence why a block can't be set to a time; null where it can. */
export function reasonNotThen(
  block: PlacedBlock,
  to: Span,
  plan: WeekPlan,
  nowMs: number,
  names: Names,
): string | null {
  const why = whyNotThen(block, to, plan.blocks, plan.busy, nowMs);
  if (why === null) return null;
  if (why.kind === 'over') return words.week.over;
  return why.kind === 'busy' ? words.week.busyThen(why.title) : words.week.taken(titleOfBlock(why.by, names));
}

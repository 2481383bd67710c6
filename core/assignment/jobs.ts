import { openTasks } from '../plan/time.ts';
import type { WeekJob } from '../plan/week.ts';
import type { Spell } from '../model/work.ts';
import type { AssignmentView } from './view.ts';

/** What is still to be done of assignments, and by when. */

/**
 * By when the work on an assignment is taken, ms since 1970: a first handing-in by when it is due, another attempt until it
 * closes. null where nobody says.
 */
export function takenUntil({
  assignment,
  attempts,
}: Pick<AssignmentView, 'assignment' | 'attempts'>): number | null {
  const { extendedTo, dueAt, closesAt } = assignment;
  const at = attempts.length === 0 ? (extendedTo ?? dueAt ?? closesAt) : (closesAt ?? extendedTo ?? dueAt);
  return at === null ? null : Date.parse(at);
}

/** Whether no task of an assignment can be done for anything any more. Work that no desk takes is the student's own affair. */
export function isOver(view: AssignmentView, atMs: number): boolean {
  const until = takenUntil(view);
  if (until !== null && until <= atMs) return true;
  return view.byDesk && (view.state.kind === 'finished' || view.state.kind === 'closed');
}

/** Whole minutes spent on each task. */
export function minutesSpent(spells: Iterable<Spell>, nowMs: number): Map<string, number> {
  const ms = new Map<string, number>();
  for (const { taskId, from, to } of spells) {
    const until = to === null ? nowMs : Date.parse(to);
    ms.set(taskId, (ms.get(taskId) ?? 0) + Math.max(0, until - Date.parse(from)));
  }
  return new Map([...ms].map(([id, spent]) => [id, Math.floor(spent / 60_000)]));
}

/**
 * The assignments with open tasks that can still be done for something, each with by when less a margin.
 * @param minutesById the minutes that the student has for an assignment
 */
export function weekJobs(
  views: readonly AssignmentView[],
  minutesById: (assignmentId: string) => number | null,
  spent: ReadonlyMap<string, number>,
  marginMs: number,
  atMs: number,
): WeekJob[] {
  return views.flatMap((view) => {
    const tasks = openTasks(view.tasks);
    if (tasks.length === 0 || isOver(view, atMs)) return [];
    const { id } = view.assignment;
    const until = takenUntil(view);
    const by = until === null ? Infinity : until - marginMs;
    return { assignmentId: id, by, tasks, spent, minutes: minutesById(id) };
  });
}

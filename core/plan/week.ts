import { bought } from './time.ts';
import { place, type Placement, type TaskBlock } from './place.ts';
import type { Choosable } from './problem.ts';
import type { Span } from './spans.ts';

/** The work of all assignments in one week after the other. */

/** An assignment with open tasks. */
export interface WeekJob {
  readonly assignmentId: string;
  /** By when all is to be done, ms since 1970; Infinity where nothing is due. */
  readonly by: number;
  /** In the order in which they are best done. */
  readonly tasks: readonly Choosable[];
  /** Minutes already spent on tasks. */
  readonly spent: ReadonlyMap<string, number>;
  /** The minutes that the student has for it; null: as many as its tasks take. */
  readonly minutes: number | null;
}

/** A task that is begun takes at least so much longer, whatever was spent on it. */
const LEAST_LEFT_MINUTES = 5;

/**
 * Places the tasks that are best done in the minutes there are for each assignment. Nothing is placed before the start of the
 * day; a block that is over while its tasks are open was missed, and all that is not pinned is placed anew from its end.
 * @param pinned blocks set by hand; those that are over hold nothing any more
 * @param dayStart when today began, ms since 1970
 */
export function placeWeek(
  jobs: readonly WeekJob[],
  free: readonly Span[],
  pinned: readonly TaskBlock[],
  dayStart: number,
  nowMs: number,
): Placement {
  const toPlace = jobs.map(({ assignmentId, by, tasks, spent, minutes }) => {
    const chosen = minutes === null ? null : bought(tasks, minutes).chosen;
    const left = tasks.filter(({ id }) => chosen === null || chosen.has(id));
    return {
      assignmentId,
      by,
      tasks: left.map((task) => ({
        ...task,
        minutes: Math.max(LEAST_LEFT_MINUTES, task.minutes - (spent.get(task.id) ?? 0)),
      })),
    };
  });
  const open = new Set(toPlace.flatMap(({ tasks }) => tasks.map(({ id }) => id)));
  const holding = pinned.filter(({ to, taskIds }) => to > nowMs && taskIds.some((id) => open.has(id)));
  for (let from = dayStart; ;) {
    const placed = place(toPlace, free, holding, from);
    const missed = placed.blocks.find((block) => !block.pinned && block.to <= nowMs);
    if (missed === undefined) return placed;
    from = missed.to;
  }
}

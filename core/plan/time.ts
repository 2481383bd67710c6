import { choose, curveOf } from './choose.ts';
import type { Choosable } from './problem.ts';
import type { PlannedTask } from './tasks.ts';

/** What is done with the time there is: which open tasks are best done in it (computation.md 7). */

/**
 * What a task without points weighs beside hundredths of a point: it is done where there is time to spare, the more important
 * first, and never in place of points.
 */
const WITHOUT_POINTS = 0.001;

/** The open tasks, to be chosen among: by the points that they may win, else by what they are asked for. */
export function openTasks(planned: readonly PlannedTask[]): Choosable[] {
  const open = planned.filter(({ task }) => !task.done);
  return open.map(({ task, gain, importance }) => ({
    id: task.id,
    minutes: task.minutes,
    gain: Math.round(((gain ?? 0) + WITHOUT_POINTS * (1 + importance)) * 1e6) / 1e6,
    needs: [],
    must: false,
  }));
}

/** What some minutes buy. */
export interface TimeBought {
  /** The tasks to do in them. */
  readonly chosen: ReadonlySet<string>;
  readonly minutes: number;
  /** No less could gain more: what is left out is proven to be left out rightly. */
  readonly proven: boolean;
}

/** The best open tasks for so many minutes. */
export function bought(tasks: readonly Choosable[], minutes: number): TimeBought {
  const { chosen, minutes: used, gain, bound } = choose(tasks, minutes);
  return { chosen: new Set(chosen), minutes: used, proven: gain === bound };
}

/**
 * The tasks that are done in the minutes bought, with those that are done already, and the others, each with how many minutes
 * more than are left it takes: whatever fits into what is left is in.
 */
export function parted(
  planned: readonly PlannedTask[],
  minutes: number,
  now: TimeBought,
): { readonly inPlan: readonly PlannedTask[]; readonly left: ReadonlyMap<PlannedTask, number> } {
  const isIn = ({ task }: PlannedTask) => task.done || now.chosen.has(task.id);
  const spare = minutes - now.minutes;
  return {
    inPlan: planned.filter(isIn),
    left: new Map(
      planned.filter((one) => !isIn(one)).map((one) => [one, Math.max(1, one.task.minutes - spare)]),
    ),
  };
}

/** What each amount of time gains in hundredths of a point, ascending: the points at which more of it gains more. */
export function pointsCurve(tasks: readonly Choosable[]): (readonly [minutes: number, hundredths: number])[] {
  const all = tasks.reduce((sum, { minutes }) => sum + minutes, 0);
  const steps: (readonly [number, number])[] = [];
  for (const [minutes, gain] of curveOf(tasks, all)) {
    // What has no points shows in no step.
    const points = Math.floor(gain);
    if (steps.length === 0 || points > steps[steps.length - 1][1]) steps.push([minutes, points]);
  }
  return steps;
}

/** What the curve gains at an amount of time, in hundredths of a point. */
export function gainAt(curve: readonly (readonly [number, number])[], minutes: number): number {
  return curve.findLast(([at]) => at <= minutes)?.[1] ?? 0;
}

/** The next step of a curve behind an amount of time; null where no more time gains more. */
export function nextStep(
  curve: readonly (readonly [number, number])[],
  minutes: number,
): { readonly minutes: number; readonly gain: number } | null {
  const next = curve.find(([at]) => at > minutes);
  return next === undefined ? null : { minutes: next[0] - minutes, gain: next[1] - gainAt(curve, minutes) };
}

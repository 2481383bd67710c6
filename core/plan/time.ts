import { choose, curveOf } from './choose.ts';
import type { Choosable } from './problem.ts';
import type { Task } from '../model/work.ts';
import type { PlannedTask } from './tasks.ts';

/** What is done with the time there is: which open tasks are best done in it (computation.md 7). */

/**
 * What a task without points weighs beside hundredths of a point: it is done where there is time to spare, the more important
 * first, and never in place of points.
 */
const WITHOUT_POINTS = 0.001;

/**
 * The open tasks, to be chosen among: by the points that they may win, else by what they are asked for. What is left out by
 * hand is not among them, nor what needs it, unless something that is in by hand does.
 */
export function openTasks(planned: readonly PlannedTask[]): Choosable[] {
  const open = new Map(
    planned.filter(({ task }) => !task.done).map((one) => [one.task.id as string, one.task]),
  );
  const inByHand = withNeeds(open, ({ pin }) => pin === 'in');
  const isOut = ({ id, pin }: Task) => pin === 'out' && !inByHand.has(id);
  return planned.flatMap(({ task, gain, importance }) => {
    if (!open.has(task.id)) return [];
    if ([...withNeeds(open, ({ id }) => id === task.id)].some((id) => isOut(open.get(id) ?? task))) return [];
    return {
      id: task.id,
      minutes: task.minutes,
      gain: Math.round(((gain ?? 0) + WITHOUT_POINTS * (1 + importance)) * 1e6) / 1e6,
      needs: task.needs.filter((id) => open.has(id)),
      must: task.pin === 'in',
    };
  });
}

/** Some tasks with all that they need, near and far. */
function withNeeds(tasks: ReadonlyMap<string, Task>, which: (task: Task) => boolean): Set<string> {
  const all = new Set<string>();
  const put = (id: string) => {
    const task = tasks.get(id);
    if (task === undefined || all.has(id)) return;
    all.add(id);
    task.needs.forEach(put);
  };
  for (const task of tasks.values()) if (which(task)) put(task.id);
  return all;
}

/**
 * The circle that would come to be if a task needed another: the tasks' ids in order, the first again at the end; null where
 * none would.
 */
export function circleThrough(tasks: readonly Task[], taskId: string, needed: string): string[] | null {
  const byId = new Map(tasks.map((task) => [task.id as string, task]));
  const seen = new Set<string>();
  const pathFrom = (id: string): string[] | null => {
    if (id === taskId) return [id];
    if (seen.has(id)) return null;
    seen.add(id);
    for (const next of byId.get(id)?.needs ?? []) {
      const path = pathFrom(next);
      if (path !== null) return [id, ...path];
    }
    return null;
  };
  const path = pathFrom(needed);
  return path === null ? null : [taskId, ...path];
}

/** What some minutes buy. */
export interface TimeBought {
  /** The tasks to do in them. */
  readonly chosen: ReadonlySet<string>;
  readonly minutes: number;
  /** No less could gain more: what is left out is proven to be left out rightly. */
  readonly proven: boolean;
  /** How many minutes would do for what is in by hand, where that takes more than there are; null where it doesn't. */
  readonly short: number | null;
}

/** The best open tasks for so many minutes; where what is in by hand takes more, that alone. */
export function bought(tasks: readonly Choosable[], minutes: number): TimeBought {
  const least = leastMinutes(tasks, minutes);
  const { chosen, minutes: used, gain, bound } = choose(tasks, least ?? minutes);
  return { chosen: new Set(chosen), minutes: used, proven: gain === bound, short: least };
}

/** How many minutes what must be done takes, where there are fewer; null where there are enough. */
function leastMinutes(tasks: readonly Choosable[], minutes: number): number | null {
  const byId = new Map(tasks.map((task) => [task.id, task]));
  const must = new Set<string>();
  const put = (id: string) => {
    if (must.has(id)) return;
    must.add(id);
    byId.get(id)?.needs.forEach(put);
  };
  for (const task of tasks) if (task.must) put(task.id);
  const least = [...must].reduce((sum, id) => sum + (byId.get(id)?.minutes ?? 0), 0);
  return least > minutes ? least : null;
}

/** Why a task is not done in the minutes bought. */
export type LeftOut =
  /** It takes so many minutes more than are left, with what it needs. */
  | { readonly kind: 'short'; readonly minutes: number }
  | { readonly kind: 'by hand' }
  /** It needs a task that is left out by hand. */
  | { readonly kind: 'needs'; readonly title: string };

/** The tasks of a plan in two lists. */
export interface Parted {
  readonly inPlan: readonly PlannedTask[];
  readonly left: ReadonlyMap<PlannedTask, LeftOut>;
}

/**
 * The tasks that are done in the minutes bought, with those that are done already, and the others, each with why: whatever
 * fits into what is left is in.
 */
export function parted(planned: readonly PlannedTask[], minutes: number, now: TimeBought): Parted {
  const isIn = ({ task }: PlannedTask) => task.done || now.chosen.has(task.id);
  const open = new Map(
    planned.filter(({ task }) => !task.done).map((one) => [one.task.id as string, one.task]),
  );
  const spare = Math.max(0, minutes - now.minutes);
  const whyOut = ({ task }: PlannedTask): LeftOut => {
    if (task.pin === 'out') return { kind: 'by hand' };
    const wanted = [...withNeeds(open, ({ id }) => id === task.id)].flatMap((id) => open.get(id) ?? []);
    const without = wanted.find(({ id, pin }) => pin === 'out' && !now.chosen.has(id));
    if (without !== undefined) return { kind: 'needs', title: without.title };
    const more = wanted.filter(({ id }) => !now.chosen.has(id)).reduce((sum, one) => sum + one.minutes, 0);
    return { kind: 'short', minutes: Math.max(1, more - spare) };
  };
  return {
    inPlan: planned.filter(isIn),
    left: new Map(planned.filter((one) => !isIn(one)).map((one) => [one, whyOut(one)])),
  };
}

/** The same two lists as they stood when somebody began to change a row: nothing moves under their hands. */
export function heldAs(
  held: { readonly inPlan: readonly string[]; readonly left: readonly string[] },
  now: Parted,
): Parted {
  const rank = new Map([...held.inPlan, ...held.left].map((id, index) => [id, index]));
  const inHeld = new Set(held.inPlan);
  const rankOf = ({ task }: PlannedTask) => rank.get(task.id) ?? rank.size;
  const all = [...now.inPlan, ...now.left.keys()].toSorted((x, y) => rankOf(x) - rankOf(y));
  const isIn = (one: PlannedTask) => (rank.has(one.task.id) ? inHeld.has(one.task.id) : !now.left.has(one));
  return {
    inPlan: all.filter(isIn),
    left: new Map(
      all
        .filter((one) => !isIn(one))
        .map((one) => [one, now.left.get(one) ?? ({ kind: 'short', minutes: 0 } as const)]),
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

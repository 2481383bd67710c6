import { decimalsOf } from './decimals.ts';

/** What is chosen among, made ready: tasks by number, what each needs near and far, and what it is worth in whole numbers. */

/** A task as far as choosing goes. */
export interface Choosable {
  readonly id: string;
  /** A whole number, 0 or more. */
  readonly minutes: number;
  /** What doing it is worth, in any unit. */
  readonly gain: number;
  /** The tasks that have to be done before it. */
  readonly needs: readonly string[];
  readonly must: boolean;
  /**
   * By when it has to be done, in minutes of the time there is; null for no earlier than the end of it. What a task needs is
   * taken to be due no later than it.
   */
  readonly due?: number | null;
}

/** Why nothing can be chosen. */
export type Refusal =
  /** Tasks that need each other, the first again at the end. */
  | { readonly kind: 'circle'; readonly ids: readonly string[] }
  | { readonly kind: 'missing'; readonly id: string; readonly needs: string }
  | { readonly kind: 'same id'; readonly id: string }
  /** What must be done takes longer than there is time: so many minutes would do. */
  | { readonly kind: 'must'; readonly minutes: number }
  /** What must be done fits into the time, but not all of it before it is due. */
  | { readonly kind: 'due'; readonly id: string };

/** Thrown where no choice is possible. */
export class NoChoice extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.kind);
    this.name = 'NoChoice';
  }
}

/** Tasks by number, with their worth as whole numbers in which fewer minutes break ties. */
export interface Problem {
  readonly tasks: readonly Choosable[];
  readonly minutes: Float64Array;
  readonly due: Float64Array;
  readonly worth: Float64Array;
  /** Pairs of numbers: the second needs the first. */
  readonly arcs: readonly (readonly [needed: number, by: number])[];
  /** For each task all that it needs, and all that need it, near and far. */
  readonly before: readonly (readonly number[])[];
  readonly after: readonly (readonly number[])[];
  /** In the order in which they fall due. */
  readonly order: readonly number[];
  readonly must: Uint8Array;
  /** What one unit of gain is in worth, and one of worth in gain. */
  readonly scale: number;
  readonly perGain: number;
}

/** @throws NoChoice for tasks that can't be chosen among */
export function problemOf(tasks: readonly Choosable[]): Problem {
  const indexById = new Map<string, number>();
  for (const [index, { id }] of tasks.entries()) {
    if (indexById.has(id)) throw new NoChoice({ kind: 'same id', id });
    indexById.set(id, index);
  }
  const needs = tasks.map(({ id, needs: ids }) =>
    [...new Set(ids)].map((needed) => {
      const index = indexById.get(needed);
      if (index === undefined) throw new NoChoice({ kind: 'missing', id, needs: needed });
      return index;
    }),
  );
  const before = closures(tasks, needs);
  const after = tasks.map((_, needed) =>
    tasks.flatMap((__, by) => (before[by].includes(needed) ? [by] : [])),
  );
  const must = new Uint8Array(tasks.length);
  for (const [index, task] of tasks.entries())
    if (task.must) for (const one of [index, ...before[index]]) must[one] = 1;
  const due = Float64Array.from(tasks, (_, index) =>
    Math.min(...[index, ...after[index]].map((one) => tasks[one].due ?? Infinity)),
  );
  const order = tasks
    .map((_, index) => index)
    .sort((x, y) => compare(due[x], due[y]) || before[x].length - before[y].length);
  // Worth is in whole numbers as far as those are exact: one unit of gain outweighs all minutes.
  const decimals = Math.max(0, ...tasks.map(({ gain }) => decimalsOf(gain)));
  const perGain = 10 ** decimals;
  const all = tasks.reduce((sum, task) => sum + task.minutes, 0) + 1;
  const units = tasks.reduce((sum, { gain }) => sum + Math.abs(gain) * perGain, 0);
  const scale = units * all < Number.MAX_SAFE_INTEGER ? all : 1;
  return {
    tasks,
    minutes: Float64Array.from(tasks, (task) => task.minutes),
    due,
    worth: Float64Array.from(tasks, ({ gain, minutes }) =>
      scale === 1 ? Math.round(gain * perGain) : Math.round(gain * perGain) * scale - minutes,
    ),
    arcs: needs.flatMap((own, by) => own.map((needed) => [needed, by] as const)),
    before,
    after,
    order,
    must,
    scale,
    perGain,
  };
}

const compare = (x: number, y: number) => (x === y ? 0 : x - y);

/** All that each task needs. @throws NoChoice for a circle */
function closures(tasks: readonly Choosable[], needs: readonly (readonly number[])[]): number[][] {
  const known: (number[] | undefined)[] = tasks.map(() => undefined);
  const path: number[] = [];
  const visit = (index: number): number[] => {
    const before = known[index];
    if (before !== undefined) return before;
    const at = path.indexOf(index);
    if (at >= 0)
      throw new NoChoice({ kind: 'circle', ids: [...path.slice(at), index].map((one) => tasks[one].id) });
    path.push(index);
    const all = new Set<number>();
    for (const needed of needs[index]) {
      all.add(needed);
      for (const far of visit(needed)) all.add(far);
    }
    path.pop();
    return (known[index] = [...all]);
  };
  return tasks.map((_, index) => visit(index));
}

/** How long a set takes. */
export function minutesOf({ minutes }: Problem, taken: Uint8Array): number {
  let sum = 0;
  for (const [index, is] of taken.entries()) if (is === 1) sum += minutes[index];
  return sum;
}

/** What a set is worth. */
export function worthOf({ worth }: Problem, taken: Uint8Array): number {
  let sum = 0;
  for (const [index, is] of taken.entries()) if (is === 1) sum += worth[index];
  return sum;
}

/** What is decided of a task. */
export const FREE = 0;
/** It is in every set. */
export const IN = 1;
/** It is in none. */
export const OUT = 2;

/** What follows from taking or leaving a task; null where it contradicts what is decided. */
export function decide(
  { before, after }: Problem,
  fixed: Uint8Array,
  index: number,
  as: number,
): Uint8Array | null {
  const next = fixed.slice();
  for (const one of [index, ...(as === IN ? before[index] : after[index])]) {
    if (next[one] !== FREE && next[one] !== as) return null;
    next[one] = as;
  }
  return next;
}

/** The first task of a set that is done after it is due, where all are done in the order in which they fall due. */
export function firstLate({ order, minutes, due }: Problem, taken: Uint8Array): number | null {
  let at = 0;
  for (const index of order) {
    if (taken[index] === 0) continue;
    at += minutes[index];
    if (at > due[index]) return index;
  }
  return null;
}

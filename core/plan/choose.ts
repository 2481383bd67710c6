import { decimalsOf } from './decimals.ts';
import { frontier, type Frontier } from './frontier.ts';

/**
 * Which tasks are best done in the time there is: the set with the highest gain in all, with whatever a task needs, and with
 * those that must be done (computation.md 7). Exact: that a task needs another is priced (Lagrangian relaxation; M. Fisher,
 * The Lagrangian Relaxation Method for Solving Integer Programming Problems, Management Science 27, 1981), what is left is a
 * knapsack with deadlines, solved whole; where prices don't make a set that holds together, it is branched.
 */

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

/** The best set of tasks for a time. */
export interface Choice {
  /** In the order given. */
  readonly chosen: readonly string[];
  readonly minutes: number;
  readonly gain: number;
  /** No set within the time gains more than this; the same as `gain` where that is proven. */
  readonly bound: number;
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

/** How long is searched: so many branches are looked at before the best so far is given with its bound. */
const MOST_BRANCHES = 20_000;
/** Prices are bettered so often at the root and at each branch: more gains less than branching does. */
const ROUNDS = { root: 30, branch: 4 };

/**
 * The best tasks for the minutes there are. Of sets that gain the same the one with fewer minutes, then that with the earlier
 * tasks of the order given. @throws NoChoice
 */
export function choose(tasks: readonly Choosable[], minutes: number, mostBranches = MOST_BRANCHES): Choice {
  const problem = problemOf(tasks);
  return choiceOf(problem, best(problem, minutes, mostBranches, true));
}

/**
 * What each amount of time buys: the points at which more of it gains more, `[minutes, gain]`, both ascending, the first what
 * must be done. @throws NoChoice
 */
export function curveOf(
  tasks: readonly Choosable[],
  minutes: number,
  mostBranches = MOST_BRANCHES,
): (readonly [minutes: number, gain: number])[] {
  const problem = problemOf(tasks);
  const least = minutesOf(problem, problem.must);
  const points: (readonly [number, number])[] = [];
  for (let left = minutes; left >= least;) {
    const solved = best(problem, left, mostBranches, false);
    const { minutes: used, gain } = choiceOf(problem, solved);
    points.push([used, gain]);
    left = used - 1;
    // Lower points at which the prices leave nothing open are proven with this one.
    for (const { taken, at } of solved.proven.toReversed()) {
      if (at > left) continue;
      const sum = choiceOf(problem, { taken, bound: NaN });
      if (at !== sum.minutes) break;
      points.push([sum.minutes, sum.gain]);
      left = sum.minutes - 1;
    }
  }
  return points.reverse();
}

/** Tasks by number, with their worth as whole numbers in which fewer minutes break ties. */
interface Problem {
  readonly tasks: readonly Choosable[];
  readonly minutes: Int32Array | Float64Array;
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

function problemOf(tasks: readonly Choosable[]): Problem {
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

interface Solved {
  readonly taken: Uint8Array;
  /** In worth; NaN where none was looked for. */
  readonly bound: number;
}

function minutesOf({ minutes }: Problem, taken: Uint8Array): number {
  let sum = 0;
  for (const [index, is] of taken.entries()) if (is === 1) sum += minutes[index];
  return sum;
}

function worthOf({ worth }: Problem, taken: Uint8Array): number {
  let sum = 0;
  for (const [index, is] of taken.entries()) if (is === 1) sum += worth[index];
  return sum;
}

function choiceOf(problem: Problem, { taken, bound }: Solved): Choice {
  const chosen = problem.tasks.filter((_, index) => taken[index] === 1);
  // Added up in whole units, so that 0.1 and 0.2 make 0.3.
  const units = chosen.reduce((sum, { gain }) => sum + Math.round(gain * problem.perGain), 0);
  const gain = units / problem.perGain;
  const minutes = minutesOf(problem, taken);
  const isProven = Number.isNaN(bound) || bound <= worthOf(problem, taken);
  const most = Math.floor((bound + (problem.scale === 1 ? 0 : minutes)) / problem.scale) / problem.perGain;
  return { chosen: chosen.map(({ id }) => id), minutes, gain, bound: isProven ? gain : Math.max(gain, most) };
}

const FREE = 0;
const IN = 1;
const OUT = 2;

/** A branch of the search: what is decided of each task, and the prices that its parent ended with. */
interface Branch {
  readonly fixed: Uint8Array;
  readonly prices: Float64Array;
  /** No set of the branch is worth more, as its parent found. */
  readonly bound: number;
}

interface BestSet extends Solved {
  /** Points below that the root proves too: sets that hold together and cost no price. */
  readonly proven: readonly { readonly at: number; readonly taken: Uint8Array }[];
}

function best(problem: Problem, minutes: number, mostBranches: number, inOrder: boolean): BestSet {
  const needed = minutesOf(problem, problem.must);
  if (needed > minutes) throw new NoChoice({ kind: 'must', minutes: needed });
  const late = firstLate(problem, problem.must);
  if (late !== null) throw new NoChoice({ kind: 'due', id: problem.tasks[late].id });
  const fixed = Uint8Array.from(problem.must, (is) => (is === 1 ? IN : FREE));
  const free = new Float64Array(problem.arcs.length);
  const found = search(problem, minutes, fixed, free, null, mostBranches);
  // Unless nothing at all is possible, what must be done is a set.
  let taken = found.taken ?? problem.must;
  if (inOrder && found.bound <= worthOf(problem, taken))
    taken = earliest(problem, minutes, fixed, found.prices, taken, mostBranches);
  return { taken, bound: found.bound, proven: found.proven };
}

/** Of the sets that are worth the same the one with the earlier tasks. */
function earliest(
  problem: Problem,
  minutes: number,
  fixed: Uint8Array,
  prices: Float64Array,
  known: Uint8Array,
  mostBranches: number,
): Uint8Array {
  const worth = worthOf(problem, known);
  const decided = fixed.slice();
  let taken = known;
  for (let index = 0; index < decided.length; index++) {
    if (decided[index] !== FREE) continue;
    if (taken[index] === 0) {
      const tried = decide(problem, decided, index, IN);
      const found =
        tried === null ? null : search(problem, minutes, tried, prices, worth, mostBranches).taken;
      if (found === null) {
        decided[index] = OUT;
        continue;
      }
      taken = found;
    }
    decided[index] = IN;
  }
  return taken;
}

/** What follows from taking or leaving a task; null where it contradicts what is decided. */
function decide({ before, after }: Problem, fixed: Uint8Array, index: number, as: number): Uint8Array | null {
  const next = fixed.slice();
  for (const one of [index, ...(as === IN ? before[index] : after[index])]) {
    if (next[one] !== FREE && next[one] !== as) return null;
    next[one] = as;
  }
  return next;
}

/** The first task of a set that is done after it is due, where all are done in the order in which they fall due. */
function firstLate({ order, minutes, due }: Problem, taken: Uint8Array): number | null {
  let at = 0;
  for (const index of order) {
    if (taken[index] === 0) continue;
    at += minutes[index];
    if (at > due[index]) return index;
  }
  return null;
}

/**
 * The set that is worth most, or the first that is worth at least `wanted`; null for none.
 * @param given the prices to begin with
 * @param wanted null: the most there is
 */
function search(
  problem: Problem,
  minutes: number,
  fixed: Uint8Array,
  given: Float64Array,
  wanted: number | null,
  mostBranches: number,
): { taken: Uint8Array | null; bound: number; prices: Float64Array; proven: BestSet['proven'] } {
  const found: { taken: Uint8Array | null; worth: number } = {
    taken: null,
    worth: wanted === null ? -Infinity : wanted - 1,
  };
  let proven: BestSet['proven'] = [];
  let prices = given;
  const open: Branch[] = [{ fixed, prices, bound: Infinity }];
  const offer = (set: Uint8Array) => {
    const worth = worthOf(problem, set);
    if (worth > found.worth) Object.assign(found, { taken: set, worth });
  };
  for (let looked = 0; open.length > 0; looked++) {
    if (wanted !== null && found.taken !== null) break;
    const branch = open.pop();
    if (branch === undefined || whole(branch.bound) <= found.worth) continue;
    if (looked >= mostBranches) {
      const bound = Math.max(found.worth, branch.bound, ...open.map((one) => one.bound));
      return { taken: found.taken, bound: whole(bound), prices, proven };
    }
    const rounds = looked === 0 && wanted === null ? ROUNDS.root : ROUNDS.branch;
    const priced = priceIn(problem, minutes, branch, rounds, offer, () => found.worth);
    if (priced === null) continue;
    if (looked === 0) ({ proven, prices } = priced);
    if (whole(priced.bound) <= found.worth) continue;
    const at = branchAt(problem, branch.fixed, priced);
    if (at === null) continue;
    for (const as of [OUT, IN]) {
      const next = decide(problem, branch.fixed, at, as);
      if (next !== null) open.push({ fixed: next, prices: priced.prices, bound: priced.bound });
    }
  }
  return { taken: found.taken, bound: found.worth, prices, proven };
}

/** Worth comes in whole numbers; what is left over is of the prices. */
function whole(bound: number): number {
  return Math.floor(bound + 1e-6 * Math.max(1, Math.abs(bound) * 1e-6));
}

interface Priced {
  readonly bound: number;
  readonly prices: Float64Array;
  /** The best set at these prices; it may not hold together. */
  readonly taken: Uint8Array;
  readonly proven: BestSet['proven'];
}

/** Betters the prices of needs so that the bound falls; null where the branch holds no set at all. */
function priceIn(
  problem: Problem,
  minutes: number,
  { fixed, prices: given }: Branch,
  rounds: number,
  offer: (set: Uint8Array) => void,
  most: () => number,
): Priced | null {
  const { worth, order } = problem;
  // What is decided already needs no price; one that stayed would only lift the bound.
  const arcs = problem.arcs.flatMap(([needed, by], arc) =>
    fixed[needed] === IN || fixed[by] === OUT ? [] : [{ needed, by, arc }],
  );
  let prices = new Float64Array(given.length);
  for (const { arc } of arcs) prices[arc] = given[arc];
  let lowest: Priced | null = null;
  let stride = 1;
  let since = 0;
  for (let round = 0; round <= rounds; round++) {
    const priced = worth.slice();
    for (const { needed, by, arc } of arcs) {
      priced[needed] += prices[arc];
      priced[by] -= prices[arc];
    }
    const at = frontier(problem.minutes, problem.due, priced, order, fixed, minutes);
    if (at === null) return null;
    const taken = at.taken(at.size - 1);
    const bound = at.value(at.size - 1);
    if (isWhole(problem, taken)) offer(taken);
    else offer(mended(problem, fixed, taken, minutes));
    if (lowest === null || bound < lowest.bound - 1e-9) {
      lowest = { bound, prices: prices.slice(), taken, proven: provenIn(problem, at) };
      since = 0;
    } else if (++since === 5) {
      stride /= 2;
      since = 0;
      prices = lowest.prices.slice();
    }
    if (whole(lowest.bound) <= most() || arcs.length === 0) break;
    const slope = arcs.map(({ needed, by }) => taken[by] - taken[needed]);
    const length = slope.reduce((sum, one) => sum + one * one, 0);
    if (length === 0) break;
    const step = (stride * Math.max(1, bound - Math.max(most(), 0))) / length;
    for (const [index, { arc }] of arcs.entries())
      prices[arc] = Math.max(0, prices[arc] + step * slope[index]);
  }
  return lowest;
}

/** Whether a set has all that its tasks need. */
function isWhole({ arcs }: Problem, taken: Uint8Array): boolean {
  return arcs.every(([needed, by]) => taken[by] === 0 || taken[needed] === 1);
}

/** The lower points of a frontier whose sets hold together and cost no price: each is the best for its minutes. */
function provenIn(problem: Problem, at: Frontier): BestSet['proven'] {
  const points: { at: number; taken: Uint8Array }[] = [];
  for (let index = at.size - 1; index >= 0; index--) {
    const taken = at.taken(index);
    if (!isWhole(problem, taken) || Math.abs(at.value(index) - worthOf(problem, taken)) > 0.5) break;
    points.push({ at: at.minutes(index), taken });
  }
  return points.reverse();
}

/** A set made whole: without what lacks something, and with what still fits and is worth most by the minute. */
function mended(problem: Problem, fixed: Uint8Array, given: Uint8Array, minutes: number): Uint8Array {
  const { before, worth, minutes: takes } = problem;
  const taken = given.slice();
  for (const [index, own] of before.entries())
    if (own.some((needed) => given[needed] === 0)) taken[index] = 0;
  let used = minutesOf(problem, taken);
  const byWorth = problem.order
    .filter((index) => fixed[index] !== OUT)
    .toSorted((x, y) => worth[y] / Math.max(1, takes[y]) - worth[x] / Math.max(1, takes[x]));
  for (const index of byWorth) {
    const added = [index, ...before[index]].filter((one) => taken[one] === 0);
    const size = added.reduce((sum, one) => sum + takes[one], 0);
    const gained = added.reduce((sum, one) => sum + worth[one], 0);
    if (taken[index] === 1 || gained <= 0 || used + size > minutes || added.some((one) => fixed[one] === OUT))
      continue;
    for (const one of added) taken[one] = 1;
    if (firstLate(problem, taken) === null) used += size;
    else for (const one of added) taken[one] = 0;
  }
  return taken;
}

/** The task to decide next: one that is lacking for most, else one whose price was paid for nothing; null for none. */
function branchAt({ arcs }: Problem, fixed: Uint8Array, { taken, prices }: Priced): number | null {
  const lacking = new Map<number, number>();
  for (const [needed, by] of arcs)
    if (taken[by] === 1 && taken[needed] === 0 && fixed[needed] === FREE)
      lacking.set(needed, (lacking.get(needed) ?? 0) + 1);
  const first = [...lacking].toSorted((x, y) => y[1] - x[1] || x[0] - y[0]).at(0);
  if (first !== undefined) return first[0];
  let dearest = 0;
  let task: number | null = null;
  for (const [arc, [needed, by]] of arcs.entries()) {
    if (taken[needed] === 0 || taken[by] === 1 || fixed[by] !== FREE || prices[arc] <= dearest) continue;
    dearest = prices[arc];
    task = by;
  }
  return task;
}

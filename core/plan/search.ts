import { frontier, type Frontier } from './frontier.ts';
import { decide, firstLate, FREE, IN, minutesOf, OUT, worthOf, type Problem } from './problem.ts';

/**
 * The set that is worth most, proven: that a task needs another is priced (Lagrangian relaxation; M. Fisher, The Lagrangian
 * Relaxation Method for Solving Integer Programming Problems, Management Science 27, 1981), what is left is a knapsack with
 * deadlines, solved whole; where prices don't make a set that holds together, it is branched.
 */

/** Prices are bettered so often at the root and at each branch: more gains less than branching does. */
const ROUNDS = { root: 30, branch: 4 };

/** A branch of the search: what is decided of each task, and the prices that its parent ended with. */
interface Branch {
  readonly fixed: Uint8Array;
  readonly prices: Float64Array;
  /** No set of the branch is worth more, as its parent found. */
  readonly bound: number;
}

/** Points below the best that the root proves too: sets that hold together and cost no price. */
export type Proven = readonly { readonly at: number; readonly taken: Uint8Array }[];

/**
 * The set that is worth most, or the first that is worth at least `wanted`; null for none.
 * @param given the prices to begin with
 * @param wanted null: the most there is
 * @param provesLower whether the points below the best are wanted too
 */
export function search(
  problem: Problem,
  minutes: number,
  fixed: Uint8Array,
  given: Float64Array,
  wanted: number | null,
  mostBranches: number,
  provesLower: boolean,
): { taken: Uint8Array | null; bound: number; prices: Float64Array; proven: Proven } {
  const found: { taken: Uint8Array | null; worth: number } = {
    taken: null,
    worth: wanted === null ? -Infinity : wanted - 1,
  };
  let proven: Proven = [];
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
    const least = provesLower && looked === 0 ? () => -Infinity : () => leastOf(found.worth);
    const priced = priceIn(problem, minutes, branch, rounds, offer, () => found.worth, least);
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

/** Below this nothing is worth more than so much, as `whole` has it. */
function leastOf(worth: number): number {
  return worth === -Infinity ? -Infinity : worth + 1 - 2e-6 * Math.max(1, Math.abs(worth) * 1e-6);
}

interface Priced {
  readonly bound: number;
  readonly prices: Float64Array;
  /** The best set at these prices; it may not hold together. */
  readonly taken: Uint8Array;
  readonly proven: Proven;
}

/** Betters the prices of needs so that the bound falls; null where the branch holds no set at all. */
function priceIn(
  problem: Problem,
  minutes: number,
  { fixed, prices: given }: Branch,
  rounds: number,
  offer: (set: Uint8Array) => void,
  most: () => number,
  least: () => number,
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
    const at = frontier(problem.minutes, problem.due, priced, order, fixed, minutes, least());
    // Nothing of the branch is worth more than what is known.
    if (at === null) return lowest === null ? null : { ...lowest, bound: most() };
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
function provenIn(problem: Problem, at: Frontier): Proven {
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

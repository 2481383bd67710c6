import {
  decide,
  firstLate,
  FREE,
  IN,
  minutesOf,
  NoChoice,
  OUT,
  problemOf,
  worthOf,
  type Choosable,
  type Problem,
} from './problem.ts';
import { search, type Proven } from './search.ts';

/**
 * Which tasks are best done in the time there is: the set with the highest gain in all, with whatever a task needs, and with
 * those that must be done (computation.md 7). Exact, within a bound on the search.
 */

/** The best set of tasks for a time. */
export interface Choice {
  /** In the order given. */
  readonly chosen: readonly string[];
  readonly minutes: number;
  readonly gain: number;
  /** No set within the time gains more than this; the same as `gain` where that is proven. */
  readonly bound: number;
}

/** How long is searched: so many branches are looked at before the best so far is given with its bound. */
const MOST_BRANCHES = 20_000;
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

interface Solved {
  readonly taken: Uint8Array;
  /** In worth; NaN where none was looked for. */
  readonly bound: number;
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

interface BestSet extends Solved {
  readonly proven: Proven;
}

function best(problem: Problem, minutes: number, mostBranches: number, inOrder: boolean): BestSet {
  const needed = minutesOf(problem, problem.must);
  if (needed > minutes) throw new NoChoice({ kind: 'must', minutes: needed });
  const late = firstLate(problem, problem.must);
  if (late !== null) throw new NoChoice({ kind: 'due', id: problem.tasks[late].id });
  const fixed = Uint8Array.from(problem.must, (is) => (is === 1 ? IN : FREE));
  const free = new Float64Array(problem.arcs.length);
  const found = search(problem, minutes, fixed, free, null, mostBranches, !inOrder);
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
        tried === null ? null : search(problem, minutes, tried, prices, worth, mostBranches, false).taken;
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

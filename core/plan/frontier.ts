/** The best values for every amount of time, as a list: more minutes, more value. */
export interface Frontier {
  readonly size: number;
  minutes(point: number): number;
  value(point: number): number;
  /** Which things make up a point. */
  taken(point: number): Uint8Array;
}

const IN = 1;
const OUT = 2;

/**
 * The knapsack with deadlines, whole: things are taken in the order in which they fall due, and of all ways to spend so many
 * minutes only the most valuable is kept, and none that costs more than a better one (G. Nemhauser and Z. Ullmann, Discrete
 * Dynamic Programming and Capital Allocation, Management Science 15, 1969). null where what is fixed does not fit.
 * @param due by when each has to be done
 * @param order of the things, by when they are due
 * @param fixed for each thing 1: taken, 2: left, 0: free
 * @param least points that can't come to this any more are left out; null is given too where none can
 */
export function frontier(
  minutes: ArrayLike<number>,
  due: ArrayLike<number>,
  value: ArrayLike<number>,
  order: readonly number[],
  fixed: ArrayLike<number>,
  most: number,
  least = -Infinity,
): Frontier | null {
  const hopeAfter = least === -Infinity ? null : hopes(minutes, value, order, fixed, most);
  // Points of all steps, each with the one that it came from; a step's own are those from `begin` on.
  let at: number[] = [0];
  let worth: number[] = [0];
  let node: number[] = [-1];
  const from: number[] = [];
  const thing: number[] = [];
  for (const [step, index] of order.entries()) {
    if (fixed[index] === OUT) continue;
    const isForced = fixed[index] === IN;
    const own = value[index];
    if (!isForced && own <= 0 && minutes[index] >= 0) continue;
    const end = Math.min(most, due[index]) - minutes[index];
    const nextAt: number[] = [];
    const nextWorth: number[] = [];
    const nextNode: number[] = [];
    let best = -Infinity;
    const put = (when: number, what: number, comes: number) => {
      if (what <= best) return;
      best = what;
      if (nextAt.length > 0 && nextAt[nextAt.length - 1] === when) {
        nextWorth[nextWorth.length - 1] = what;
        nextNode[nextNode.length - 1] = comes;
        return;
      }
      nextAt.push(when);
      nextWorth.push(what);
      nextNode.push(comes);
    };
    const take = (point: number) => {
      from.push(node[point]);
      thing.push(index);
      put(at[point] + minutes[index], worth[point] + own, from.length - 1);
    };
    let skip = isForced ? at.length : 0;
    let taken = 0;
    while (skip < at.length || (taken < at.length && at[taken] <= end)) {
      const canTake = taken < at.length && at[taken] <= end;
      // At the same minutes the more valuable comes first, and the other is left out.
      const skips =
        skip < at.length &&
        (!canTake ||
          at[skip] < at[taken] + minutes[index] ||
          (at[skip] === at[taken] + minutes[index] && worth[skip] >= worth[taken] + own));
      if (skips) {
        put(at[skip], worth[skip], node[skip]);
        skip++;
      } else take(taken++);
    }
    if (hopeAfter !== null) keepHopeful(nextAt, nextWorth, nextNode, hopeAfter(step), least);
    if (nextAt.length === 0) return null;
    at = nextAt;
    worth = nextWorth;
    node = nextNode;
  }
  return {
    size: at.length,
    minutes: (point) => at[point],
    value: (point) => worth[point],
    taken(point) {
      const set = new Uint8Array(order.length);
      for (let one = node[point]; one >= 0; one = from[one]) set[thing[one]] = 1;
      return set;
    },
  };
}

/** The most that what is left to look at can add to a point at some minutes; asked for ever more of them. */
type Hope = (at: number) => number;

/**
 * What things can still add behind each step, deadlines aside: the forced ones, and of the others the most valuable by the
 * minute, the last in part (G. Dantzig, Discrete-Variable Extremum Problems, Operations Research 5, 1957).
 */
function hopes(
  minutes: ArrayLike<number>,
  value: ArrayLike<number>,
  order: readonly number[],
  fixed: ArrayLike<number>,
  most: number,
): (step: number) => Hope {
  const stepOf = new Int32Array(order.length);
  for (const [step, index] of order.entries()) stepOf[index] = step;
  const byDensity = order
    .filter((index) => fixed[index] !== OUT && fixed[index] !== IN && value[index] > 0)
    .sort((x, y) => value[y] * minutes[x] - value[x] * minutes[y]);
  return (step) => {
    let room = most;
    let forced = 0;
    for (let after = step + 1; after < order.length; after++) {
      const index = order[after];
      if (fixed[index] !== IN) continue;
      room -= minutes[index];
      forced += value[index];
    }
    const rest = byDensity.filter((index) => stepOf[index] > step);
    let used = 0;
    let sum = forced;
    for (const index of rest) {
      used += minutes[index];
      sum += value[index];
    }
    // From all of them down to those that fit: points come in rising minutes, with ever less room.
    let last = rest.length - 1;
    return (at) => {
      const left = room - at;
      if (left < 0) return -Infinity;
      while (last >= 0 && used > left) {
        const index = rest[last];
        if (used - minutes[index] <= left)
          return sum - value[index] * (minutes[index] === 0 ? 0 : (used - left) / minutes[index]);
        used -= minutes[index];
        sum -= value[index];
        last--;
      }
      return sum;
    };
  };
}

/** Takes out the points that can't come to what is wanted. */
function keepHopeful(at: number[], worth: number[], node: number[], hope: Hope, least: number): void {
  let kept = 0;
  for (let point = 0; point < at.length; point++) {
    if (worth[point] + hope(at[point]) < least) continue;
    at[kept] = at[point];
    worth[kept] = worth[point];
    node[kept] = node[point];
    kept++;
  }
  at.length = kept;
  worth.length = kept;
  node.length = kept;
}

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
 */
export function frontier(
  minutes: ArrayLike<number>,
  due: ArrayLike<number>,
  value: ArrayLike<number>,
  order: readonly number[],
  fixed: ArrayLike<number>,
  most: number,
): Frontier | null {
  // Points of all steps, each with the one that it came from; a step's own are those from `begin` on.
  let at: number[] = [0];
  let worth: number[] = [0];
  let node: number[] = [-1];
  const from: number[] = [];
  const thing: number[] = [];
  for (const index of order) {
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

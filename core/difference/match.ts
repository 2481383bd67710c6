/**
 * The word-by-word matching of two texts: which word of A stays as which word of B. Long stretches are cut at words that
 * stand once in each (with an agreeing neighbour), short ones are solved by Myers' linear-space algorithm
 * (E. Myers, An O(ND) Difference Algorithm and Its Variations, Algorithmica 1, 1986).
 */

/** What bounds the time that matching takes. */
export interface MatchLimits {
  /** Beyond so many edits in one stretch the search stops, and only the longest run that it saw is kept. */
  readonly mostEdits: number;
  /** A stretch of so many words is solved by Myers at once: looking for words that stand once would not pay. */
  readonly shortStretch: number;
}

/** For whole papers: two versions that have nothing in common are given up on before one waits. */
const LIMITS: MatchLimits = { mostEdits: 2000, shortStretch: 1500 };

/** For each word of A the index of the word of B that it stays as, or -1. The indices ascend. */
export function matchWords(a: Int32Array, b: Int32Array, limits = LIMITS): Int32Array {
  const { mostEdits, shortStretch } = limits;
  const toB = new Int32Array(a.length).fill(-1);
  const stack: [number, number, number, number][] = [[0, a.length, 0, b.length]];
  for (let stretch = stack.pop(); stretch !== undefined; stretch = stack.pop()) {
    let [fromA, toA, fromB, toB2] = stretch;
    while (fromA < toA && fromB < toB2 && a[fromA] === b[fromB]) toB[fromA++] = fromB++;
    while (fromA < toA && fromB < toB2 && a[toA - 1] === b[toB2 - 1]) toB[--toA] = --toB2;
    if (fromA === toA || fromB === toB2) continue;
    const cuts =
      toA - fromA > shortStretch || toB2 - fromB > shortStretch
        ? uniqueCuts(a, b, fromA, toA, fromB, toB2)
        : [];
    if (cuts.length > 0) {
      for (const [atA, atB] of cuts) {
        stack.push([fromA, atA, fromB, atB]);
        toB[atA] = atB;
        fromA = atA + 1;
        fromB = atB + 1;
      }
      stack.push([fromA, toA, fromB, toB2]);
      continue;
    }
    const snake = middleSnake(a, b, fromA, toA, fromB, toB2, mostEdits);
    if (snake === null) continue;
    for (let i = 0; i < snake.length; i++) toB[snake.fromA + i] = snake.fromB + i;
    stack.push([fromA, snake.fromA, fromB, snake.fromB]);
    stack.push([snake.fromA + snake.length, toA, snake.fromB + snake.length, toB2]);
  }
  return toB;
}

/** Pairs of words that stand once in each stretch and whose next word agrees, as the longest run in both orders. */
function uniqueCuts(a: Int32Array, b: Int32Array, fromA: number, toA: number, fromB: number, toB: number) {
  const onceIn = (words: Int32Array, from: number, to: number) => {
    const at = new Map<number, number>();
    for (let i = from; i < to; i++) at.set(words[i], at.has(words[i]) ? -1 : i);
    return at;
  };
  const inA = onceIn(a, fromA, toA);
  const inB = onceIn(b, fromB, toB);
  const pairs: [number, number][] = [];
  for (let i = fromA; i < toA - 1; i++) {
    const j = inB.get(a[i]);
    if (inA.get(a[i]) === i && j !== undefined && j >= 0 && j < toB - 1 && a[i + 1] === b[j + 1])
      pairs.push([i, j]);
  }
  return longestAscending(pairs);
}

/** The longest run of pairs in which the second number ascends too (patience sorting). */
function longestAscending(pairs: readonly [number, number][]): [number, number][] {
  const tails: number[] = [];
  const before = new Int32Array(pairs.length).fill(-1);
  pairs.forEach(([, b], index) => {
    let low = 0;
    let high = tails.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (pairs[tails[middle]][1] < b) low = middle + 1;
      else high = middle;
    }
    if (low > 0) before[index] = tails[low - 1];
    tails[low] = index;
  });
  const run: [number, number][] = [];
  for (let i = tails.at(-1) ?? -1; i >= 0; i = before[i]) run.push(pairs[i]);
  return run.reverse();
}

interface Snake {
  fromA: number;
  fromB: number;
  length: number;
}

/**
 * The middle of a shortest edit path, with the run of equal words there; where the search was cut off, the longest run
 * seen; null where nothing agrees.
 */
function middleSnake(
  a: Int32Array,
  b: Int32Array,
  fromA: number,
  toA: number,
  fromB: number,
  toB: number,
  mostEdits: number,
): Snake | null {
  const n = toA - fromA;
  const m = toB - fromB;
  const most = Math.min(Math.ceil((n + m) / 2), mostEdits);
  const offset = most + 1;
  const delta = n - m;
  const forward = new Int32Array(2 * offset + 1);
  const backward = new Int32Array(2 * offset + 1);
  let best: Snake | null = null;
  const consider = (x: number, y: number, length: number): void => {
    if (length > (best?.length ?? 0)) best = { fromA: fromA + x, fromB: fromB + y, length };
  };
  // Where the two paths meet the stretch is cut; a meeting in a corner would cut nothing off.
  const meeting = (x: number, y: number, length: number): Snake | null =>
    length === 0 && ((x === 0 && y === 0) || (x === n && y === m))
      ? best
      : { fromA: fromA + x, fromB: fromB + y, length };
  for (let d = 0; d <= most; d++) {
    for (let k = -d; k <= d; k += 2) {
      const down = k === -d || (k !== d && forward[offset + k - 1] < forward[offset + k + 1]);
      let x = down ? forward[offset + k + 1] : forward[offset + k - 1] + 1;
      let y = x - k;
      if (x > n || y > m) {
        forward[offset + k] = x;
        continue;
      }
      const startX = x;
      const startY = y;
      while (x < n && y < m && a[fromA + x] === b[fromB + y]) {
        x++;
        y++;
      }
      forward[offset + k] = x;
      consider(startX, startY, x - startX);
      const other = delta - k;
      if (delta % 2 !== 0 && Math.abs(other) <= d - 1 && x + backward[offset + other] >= n) {
        return meeting(startX, startY, x - startX);
      }
    }
    for (let k = -d; k <= d; k += 2) {
      const down = k === -d || (k !== d && backward[offset + k - 1] < backward[offset + k + 1]);
      let x = down ? backward[offset + k + 1] : backward[offset + k - 1] + 1;
      let y = x - k;
      if (x > n || y > m) {
        backward[offset + k] = x;
        continue;
      }
      const startX = x;
      while (x < n && y < m && a[toA - 1 - x] === b[toB - 1 - y]) {
        x++;
        y++;
      }
      backward[offset + k] = x;
      consider(n - x, m - y, x - startX);
      const other = delta - k;
      if (delta % 2 === 0 && Math.abs(other) <= d && x + forward[offset + other] >= n) {
        return meeting(n - x, m - y, x - startX);
      }
    }
  }
  return best;
}

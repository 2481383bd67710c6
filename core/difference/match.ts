/**
 * The word-by-word matching of two texts: which word of A stays as which word of B. Long stretches are cut at words that
 * stand once in each (with an agreeing neighbour), short ones are solved by Myers' linear-space algorithm
 * (E. Myers, An O(ND) Difference Algorithm and Its Variations, Algorithmica 1, 1986) over the words that stand in both.
 */

/** What bounds the time that matching takes. */
export interface MatchLimits {
  /** Beyond so many edits in one stretch the search stops, and only the longest run that it saw is kept. */
  readonly mostEdits: number;
  /** A stretch of so many words is solved by Myers at once: looking for words that stand once would not pay. */
  readonly shortStretch: number;
}

/**
 * For whole papers. Myers' time grows with the square of the edits: within 300 words that is less than one would notice,
 * and two versions that have nothing in common are given up on, run by run, before one waits.
 */
const LIMITS: MatchLimits = { mostEdits: 256, shortStretch: 300 };

/**
 * For each word of A the index of the word of B that it stays as, or -1. The indices ascend.
 * @param a numbers of words, none below 0, so small that an array can be indexed by them
 */
export function matchWords(a: Int32Array, b: Int32Array, limits = LIMITS): Int32Array {
  return new Matching(a, b, limits).solved();
}

/** A run of equal words. */
interface Run {
  readonly fromA: number;
  readonly fromB: number;
  readonly length: number;
}

class Matching {
  private readonly toB: Int32Array;
  /** Stretches still to be solved, four numbers each. */
  private readonly open: number[] = [];
  /** For each word, where it stands in the stretch at hand (-1: more than once), and for which stretch that was noted. */
  private readonly atInA: Int32Array;
  private readonly atInB: Int32Array;
  private readonly notedA: Int32Array;
  private readonly notedB: Int32Array;
  private stretch = 0;
  private readonly forward: Int32Array;
  private readonly backward: Int32Array;

  constructor(
    private readonly a: Int32Array,
    private readonly b: Int32Array,
    private readonly limits: MatchLimits,
  ) {
    this.toB = new Int32Array(a.length).fill(-1);
    let most = -1;
    for (const id of a) if (id > most) most = id;
    for (const id of b) if (id > most) most = id;
    this.atInA = new Int32Array(most + 1);
    this.atInB = new Int32Array(most + 1);
    this.notedA = new Int32Array(most + 1);
    this.notedB = new Int32Array(most + 1);
    const diagonals = 2 * limits.mostEdits + 3;
    this.forward = new Int32Array(diagonals);
    this.backward = new Int32Array(diagonals);
  }

  solved(): Int32Array {
    const { open } = this;
    this.later(0, this.a.length, 0, this.b.length);
    while (open.length > 0) {
      const toB = open.pop() ?? 0;
      const fromB = open.pop() ?? 0;
      const toA = open.pop() ?? 0;
      const fromA = open.pop() ?? 0;
      const { shortStretch } = this.limits;
      const isLong = toA - fromA > shortStretch || toB - fromB > shortStretch;
      if (!isLong || !this.cut(fromA, toA, fromB, toB)) this.solve(fromA, toA, fromB, toB);
    }
    this.settle();
    return this.toB;
  }

  /** Matches what agrees at both ends of a stretch, and leaves what is between for later. */
  private later(fromA: number, toA: number, fromB: number, toB: number): void {
    const { a, b } = this;
    while (fromA < toA && fromB < toB && a[fromA] === b[fromB]) this.toB[fromA++] = fromB++;
    while (fromA < toA && fromB < toB && a[toA - 1] === b[toB - 1]) this.toB[--toA] = --toB;
    if (fromA < toA && fromB < toB) this.open.push(fromA, toA, fromB, toB);
  }

  /** Notes the words of a stretch: where each stands in it, in either text. */
  private note(fromA: number, toA: number, fromB: number, toB: number): void {
    const { a, b, atInA, atInB, notedA, notedB } = this;
    const now = ++this.stretch;
    for (let i = fromA; i < toA; i++) {
      const id = a[i];
      atInA[id] = notedA[id] === now ? -1 : i;
      notedA[id] = now;
    }
    for (let j = fromB; j < toB; j++) {
      const id = b[j];
      atInB[id] = notedB[id] === now ? -1 : j;
      notedB[id] = now;
    }
  }

  /** Cuts a stretch at words that stand once in each text and whose next word agrees; false where none does. */
  private cut(fromA: number, toA: number, fromB: number, toB: number): boolean {
    const { a, b, atInA, atInB, notedB } = this;
    this.note(fromA, toA, fromB, toB);
    const now = this.stretch;
    const inA: number[] = [];
    const inB: number[] = [];
    for (let i = fromA; i < toA - 1; i++) {
      const id = a[i];
      if (atInA[id] !== i || notedB[id] !== now) continue;
      const j = atInB[id];
      if (j < 0 || j >= toB - 1 || a[i + 1] !== b[j + 1]) continue;
      inA.push(i);
      inB.push(j);
    }
    const run = longestAscending(inB);
    if (run.length === 0) return false;
    let nextA = fromA;
    let nextB = fromB;
    for (const index of run) {
      const atA = inA[index];
      const atB = inB[index];
      this.later(nextA, atA, nextB, atB);
      this.toB[atA] = atB;
      nextA = atA + 1;
      nextB = atB + 1;
    }
    this.later(nextA, toA, nextB, toB);
    return true;
  }

  /** Solves a stretch by Myers; words that stand in one of the texts only can't stay, and take no part. */
  private solve(fromA: number, toA: number, fromB: number, toB: number): void {
    const { a, b, notedA, notedB } = this;
    this.note(fromA, toA, fromB, toB);
    const now = this.stretch;
    const inA: number[] = [];
    const inB: number[] = [];
    for (let i = fromA; i < toA; i++) if (notedB[a[i]] === now) inA.push(i);
    for (let j = fromB; j < toB; j++) if (notedA[b[j]] === now) inB.push(j);
    const idsA = Int32Array.from(inA, (i) => a[i]);
    const idsB = Int32Array.from(inB, (j) => b[j]);
    const open = [0, idsA.length, 0, idsB.length];
    while (open.length > 0) {
      let endB = open.pop() ?? 0;
      let startB = open.pop() ?? 0;
      let endA = open.pop() ?? 0;
      let startA = open.pop() ?? 0;
      while (startA < endA && startB < endB && idsA[startA] === idsB[startB])
        this.toB[inA[startA++]] = inB[startB++];
      while (startA < endA && startB < endB && idsA[endA - 1] === idsB[endB - 1])
        this.toB[inA[--endA]] = inB[--endB];
      if (startA === endA || startB === endB) continue;
      const run = this.middleRun(idsA, startA, endA, idsB, startB, endB);
      if (run === null) continue;
      for (let i = 0; i < run.length; i++) this.toB[inA[run.fromA + i]] = inB[run.fromB + i];
      open.push(startA, run.fromA, startB, run.fromB);
      open.push(run.fromA + run.length, endA, run.fromB + run.length, endB);
    }
  }

  /**
   * Of several places that a word may stay in as well, Myers takes any. One that stays with no neighbour goes to where one of
   * its neighbours stays too: "the dams" rather than "the" of some words before.
   */
  private settle(): void {
    const { a, b, toB } = this;
    let last = -1;
    for (let i = 0; i < a.length; i++) {
      const j = toB[i];
      if (j < 0) continue;
      const before = last < 0 ? -1 : toB[last];
      let next = i + 1;
      while (next < a.length && toB[next] < 0) next++;
      const after = next < a.length ? toB[next] : b.length;
      const stays = (last === i - 1 && before === j - 1) || (next === i + 1 && after === j + 1);
      if (!stays) {
        // Beside the word before or after, in either text: all of these lie between the two, so that the order stays.
        const beside = [
          [last + 1, j, before === j - 1],
          [i, before + 1, last === i - 1],
          [next - 1, j, after === j + 1],
          [i, after - 1, next === i + 1],
        ] as const;
        const better = beside.find(([x, y, isBeside]) => isBeside && a[x] === b[y]);
        if (better !== undefined) {
          toB[i] = -1;
          toB[better[0]] = better[1];
          last = better[0];
          i = Math.max(i, last);
          continue;
        }
      }
      last = i;
    }
  }

  /**
   * The middle of a shortest edit path, with the run of equal words there; where the search was cut off, the longest run
   * seen; null where nothing agrees.
   */
  private middleRun(
    a: Int32Array,
    fromA: number,
    toA: number,
    b: Int32Array,
    fromB: number,
    toB: number,
  ): Run | null {
    const { forward, backward } = this;
    const n = toA - fromA;
    const m = toB - fromB;
    const delta = n - m;
    const most = Math.min(Math.ceil((n + m) / 2), this.limits.mostEdits);
    const offset = most + 1;
    forward[offset + 1] = 0;
    backward[offset + 1] = 0;
    let best: Run | null = null;
    let bestLength = 0;
    for (let d = 0; d <= most; d++) {
      // Diagonals beyond the corners lead nowhere.
      const first = d > m ? d - 2 * m : -d;
      const last = d > n ? 2 * n - d : d;
      for (let k = first; k <= last; k += 2) {
        const down = k === -d || (k !== d && forward[offset + k - 1] < forward[offset + k + 1]);
        let x = down ? forward[offset + k + 1] : forward[offset + k - 1] + 1;
        let y = x - k;
        const startX = x;
        while (x < n && y < m && a[fromA + x] === b[fromB + y]) {
          x++;
          y++;
        }
        forward[offset + k] = x;
        if (x > n || y > m) continue;
        const length = x - startX;
        if (length > bestLength) {
          bestLength = length;
          best = { fromA: fromA + startX, fromB: fromB + startX - k, length };
        }
        const other = delta - k;
        if ((delta & 1) !== 0 && other < d && other > -d && x + backward[offset + other] >= n)
          return meeting(startX, startX - k, length, best);
      }
      for (let k = first; k <= last; k += 2) {
        const down = k === -d || (k !== d && backward[offset + k - 1] < backward[offset + k + 1]);
        let x = down ? backward[offset + k + 1] : backward[offset + k - 1] + 1;
        let y = x - k;
        const startX = x;
        while (x < n && y < m && a[toA - 1 - x] === b[toB - 1 - y]) {
          x++;
          y++;
        }
        backward[offset + k] = x;
        if (x > n || y > m) continue;
        const length = x - startX;
        if (length > bestLength) {
          bestLength = length;
          best = { fromA: toA - x, fromB: toB - y, length };
        }
        const other = delta - k;
        if ((delta & 1) === 0 && other <= d && other >= -d && x + forward[offset + other] >= n)
          return meeting(n - x, m - y, length, best);
      }
    }
    return best;

    // Where the two paths meet the stretch is cut; a meeting in a corner would cut nothing off.
    function meeting(x: number, y: number, length: number, longest: Run | null): Run | null {
      return length === 0 && ((x === 0 && y === 0) || (x === n && y === m))
        ? longest
        : { fromA: fromA + x, fromB: fromB + y, length };
    }
  }
}

/** Which of these numbers are the longest run in which they ascend (patience sorting). */
function longestAscending(values: readonly number[]): Int32Array {
  const tails = new Int32Array(values.length);
  const before = new Int32Array(values.length);
  let size = 0;
  for (let index = 0; index < values.length; index++) {
    let low = 0;
    // Mostly the numbers ascend by themselves.
    if (size > 0 && values[tails[size - 1]] < values[index]) low = size;
    else
      for (let high = size; low < high;) {
        const middle = (low + high) >> 1;
        if (values[tails[middle]] < values[index]) low = middle + 1;
        else high = middle;
      }
    before[index] = low > 0 ? tails[low - 1] : -1;
    tails[low] = index;
    if (low === size) size++;
  }
  const run = new Int32Array(size);
  for (let at = size - 1, index = size > 0 ? tails[size - 1] : -1; at >= 0; at--, index = before[index])
    run[at] = index;
  return run;
}

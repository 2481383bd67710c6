import { add, compare, divide, multiply, subtract, ZERO, type Fraction } from './fraction.ts';

/** One counted assignment of a category: its points, and what tells between equal drops. */
export interface Droppable {
  readonly id: string;
  readonly earned: Fraction;
  readonly possible: Fraction;
  /** Milliseconds since 1970; null sorts last. */
  readonly dueMs: number | null;
}

/** Of two that are worth the same, the one with the earlier due time is kept, then the one with the smaller id. */
function keepFirst(x: Droppable, y: Droppable): number {
  const due = (x.dueMs ?? Infinity) - (y.dueMs ?? Infinity);
  return (Number.isNaN(due) ? 0 : due) || (x.id < y.id ? -1 : x.id > y.id ? 1 : 0);
}

/**
 * Which assignments a category keeps when it drops `drop` of them: those whose ratio (extra + Σ earned) / Σ possible is
 * highest. At least one stays. Exact, after Kane and Kane, Dropping Lowest Grades (2006): for a ratio q the best to keep
 * are those with the largest earned − q·possible, and raising q to what they make converges on the best.
 * @param extra points that are added to earned and never dropped
 */
export function keptAfterDrops(all: readonly Droppable[], drop: number, extra: Fraction = ZERO): Droppable[] {
  const keep = Math.max(1, all.length - drop);
  if (keep >= all.length) return [...all];
  const ratioOf = (kept: readonly Droppable[]) => {
    const possible = kept.reduce((sum, one) => add(sum, one.possible), ZERO);
    if (possible.n === 0n) return null;
    return divide(
      kept.reduce((sum, one) => add(sum, one.earned), extra),
      possible,
    );
  };
  const bestAt = (q: Fraction) =>
    all
      .map((one) => ({ one, worth: subtract(one.earned, multiply(q, one.possible)) }))
      .sort((x, y) => compare(y.worth, x.worth) || keepFirst(x.one, y.one))
      .slice(0, keep)
      .map(({ one }) => one);
  let ratio = ratioOf(bestAt(ZERO)) ?? ZERO;
  for (;;) {
    const next = ratioOf(bestAt(ratio));
    // Every step raises the ratio to that of another of finitely many choices.
    if (next === null || compare(next, ratio) <= 0) return bestAt(ratio);
    ratio = next;
  }
}

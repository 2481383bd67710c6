import { fromDecimal, multiply, smaller, subtract, larger, ZERO, type Fraction } from './fraction.ts';
import type { LateRule } from '../model/facts.ts';

const HOUR_MS = 3_600_000;
/** A late day is 24 elapsed hours, whatever the clocks did in between. */
const DAY_MS = 24 * HOUR_MS;

/**
 * Started days an attempt is late: counted from its due time once the grace has passed, 0 within it.
 * @param atMs when it was handed in, ms since 1970
 * @param dueMs its own due time, extension included
 */
export function lateDays(atMs: number, dueMs: number, graceHours: number): number {
  return atMs <= dueMs + Math.round(graceHours * HOUR_MS) ? 0 : Math.ceil((atMs - dueMs) / DAY_MS);
}

/** What comes off for lateness: points per started day, up to the rule's most (computation.md 1). */
export function lateDeduction(rule: LateRule, atMs: number, dueMs: number): Fraction {
  const days = lateDays(atMs, dueMs, rule.graceHours);
  const due = multiply(fromDecimal(rule.pointsPerDay), { n: BigInt(days), d: 1n });
  return rule.maxPoints === null ? due : smaller(due, fromDecimal(rule.maxPoints));
}

/** A score after its deduction; a deduction never takes it below 0. */
export function afterDeduction(score: Fraction, deduction: Fraction): Fraction {
  return deduction.n === 0n ? score : larger(ZERO, subtract(score, deduction));
}

import type { AttemptPolicy } from '../model/facts.ts';
import {
  add,
  divide,
  fromDecimal,
  larger,
  multiply,
  smaller,
  subtract,
  ZERO,
  type Fraction,
} from './fraction.ts';

/**
 * The assignment's score from the scores of its marked attempts, oldest first (computation.md 1); null where none is
 * marked. `f` is the first, `b` the best later one.
 * - capped(c): max(f, min(b, c·P)): another attempt can lift to c of the points and never lowers
 * - recover(r): f + r·max(0, b − f)
 */
export function scoreOf(
  policy: AttemptPolicy,
  scores: readonly Fraction[],
  possible: Fraction,
): Fraction | null {
  const first = scores.at(0);
  const last = scores.at(-1);
  if (first === undefined || last === undefined) return null;
  const laterBest = scores.slice(1).reduce<Fraction | null>((b, s) => (b === null ? s : larger(b, s)), null);
  switch (policy.kind) {
    case 'latest':
      return last;
    case 'best':
      return scores.reduce(larger);
    case 'mean':
      return divide(scores.reduce(add, ZERO), { n: BigInt(scores.length), d: 1n });
    case 'capped':
      return laterBest === null
        ? first
        : larger(first, smaller(laterBest, multiply(fromDecimal(policy.cap), possible)));
    case 'recover':
      return laterBest === null
        ? first
        : add(first, multiply(fromDecimal(policy.share), larger(ZERO, subtract(laterBest, first))));
  }
}

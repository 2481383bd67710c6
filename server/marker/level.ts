import type { Criterion } from '#core/model/facts.ts';
import { compare, fromDecimal, type Fraction } from '#core/scores/fraction.ts';

/** The highest level that so many points reach; null where none does. */
export function levelFor({ levels }: Pick<Criterion, 'levels'>, points: Fraction): string | null {
  const reached = levels.findLast((l) => l.points !== null && compare(fromDecimal(l.points), points) <= 0);
  return reached?.title ?? null;
}

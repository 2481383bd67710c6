import { seeded } from '../../saying/training/seeded.ts';
import type { Choosable } from '../problem.ts';

/** Tasks of some assignments, each with a deadline of its own; a task needs up to two of those before it in the same one. */
export function termOf(seed: number, count: number): Choosable[] {
  const chance = seeded(seed);
  const assignments = 4;
  const due = Array.from({ length: assignments }, () => 120 + 30 * chance.below(20));
  const tasks: Choosable[] = [];
  for (let n = 0; n < count; n++) {
    const of = chance.below(assignments);
    const before = tasks.filter((one) => one.due === due[of]);
    const needs = new Set<string>();
    for (let left = chance.below(3); left > 0 && before.length > 0; left--)
      needs.add(before[chance.below(before.length)].id);
    tasks.push({
      id: `t${n}`,
      minutes: 5 * (1 + chance.below(18)),
      gain: (1 + chance.below(300)) / 100,
      needs: [...needs],
      must: false,
      due: due[of],
    });
  }
  return tasks;
}

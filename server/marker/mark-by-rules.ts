import type { CriterionResult, Marking, Rubric } from '#core/model/facts.ts';
import { fromDecimal, smaller } from '#core/scores/fraction.ts';
import { levelFor } from './level.ts';
import { drawingSaid } from './mark-drawing.ts';
import { itemsSaid, paperSaid, postSaid } from './mark-texts.ts';
import { markingOf, shown, sumOf, type Marked } from './marked.ts';
import type { WorkRules } from './marking-rules.ts';
import type { Said } from './said.ts';

/**
 * Marks an attempt by the rules of its assignment, from what was really sent, whether or not anything was marked before.
 * @throws Error where the desk lacks a file of the attempt
 */
export async function markByRules(given: Marked, rules: WorkRules): Promise<Marking> {
  const said = await saidOf(given, rules);
  const criteria = criteriaOf(given.rubric, rules, said);
  const loose = [...(said.isWork ? rules.base : []), ...said.won].filter(
    ({ criterion }) => criterion === null,
  );
  const score = sumOf([
    ...criteria.flatMap(({ points }) => points ?? []),
    ...loose.map(({ points }) => points),
  ]);
  const most =
    given.assignment.possible === null ? score : smaller(score, fromDecimal(given.assignment.possible));
  return markingOf(given, { score: shown(most), overall: said.overall, criteria, files: [...said.files] });
}

function criteriaOf(rubric: Rubric | null, rules: WorkRules, said: Said): CriterionResult[] {
  return (rubric?.criteria ?? []).map((criterion) => {
    const own = [...(said.isWork ? rules.base : []), ...said.won].filter(
      (one) => one.criterion === criterion.id,
    );
    const sum = sumOf(own.map(({ points }) => points));
    const points = criterion.possible === null ? sum : smaller(sum, fromDecimal(criterion.possible));
    return {
      criterionId: criterion.id,
      points: shown(points),
      level: levelFor(criterion, points),
      comment: (said.comments.get(criterion.id) ?? []).join(' '),
    };
  });
}

function saidOf(given: Marked, rules: WorkRules): Promise<Said> {
  switch (rules.kind) {
    case 'paper':
      return paperSaid(given, rules);
    case 'posts':
      return postSaid(given, rules);
    case 'items':
      return Promise.resolve(itemsSaid(given, rules));
    case 'files':
      return drawingSaid(given, rules);
  }
}

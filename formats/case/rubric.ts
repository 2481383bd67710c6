import * as v from 'valibot';
import type { Rubric } from '#core/model/facts.ts';
import { asId, DecimalString, CriterionId, RubricId } from '#core/model/ids.ts';

/** A rubric as 1EdTech CASE 1.0 has it (CFRubric), as far as Juncture uses it. */

const CfLevel = v.object({
  identifier: v.string(),
  quality: v.string(),
  description: v.optional(v.string(), ''),
  score: v.nullish(v.number()),
  position: v.number(),
});
const CfCriterion = v.object({
  identifier: v.string(),
  category: v.string(),
  description: v.optional(v.string(), ''),
  position: v.number(),
  CFRubricCriterionLevels: v.array(CfLevel),
});
export const CfRubric = v.object({
  identifier: v.string(),
  title: v.string(),
  CFRubricCriteria: v.array(CfCriterion),
});
export type CfRubric = v.InferOutput<typeof CfRubric>;

function decimal(score: number | null | undefined): DecimalString | null {
  return score === null || score === undefined ? null : v.parse(DecimalString, String(score));
}

/** A CASE rubric as Juncture's: levels from the lowest to the highest; a criterion is worth its highest level. */
export function rubricFromCase(cf: CfRubric): Rubric {
  const byPosition = <T extends { position: number }>(list: readonly T[]) =>
    list.toSorted((x, y) => x.position - y.position);
  return {
    id: asId(RubricId, cf.identifier),
    title: cf.title,
    criteria: byPosition(cf.CFRubricCriteria).map((criterion) => {
      const levels = byPosition(criterion.CFRubricCriterionLevels).map((level) => ({
        title: level.quality,
        description: level.description,
        points: decimal(level.score),
      }));
      const scores = criterion.CFRubricCriterionLevels.flatMap((level) => level.score ?? []);
      return {
        id: asId(CriterionId, criterion.identifier),
        title: criterion.category,
        possible: scores.length === 0 ? null : decimal(Math.max(...scores)),
        levels,
      };
    }),
  };
}

/** Juncture's rubric in the form of CASE. */
export function caseFromRubric(rubric: Rubric): CfRubric {
  return {
    identifier: rubric.id,
    title: rubric.title,
    CFRubricCriteria: rubric.criteria.map((criterion, c) => ({
      identifier: criterion.id,
      category: criterion.title,
      description: '',
      position: c + 1,
      CFRubricCriterionLevels: criterion.levels.map((level, l) => ({
        identifier: `${criterion.id}-${l + 1}`,
        quality: level.title,
        description: level.description,
        score: level.points === null ? null : Number(level.points),
        position: l + 1,
      })),
    })),
  };
}

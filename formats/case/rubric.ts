import * as v from 'valibot';
import type { Criterion, Level, Rubric } from '#core/model/facts.ts';
import { asId, DecimalString, CriterionId, RubricId } from '#core/model/ids.ts';

/**
 * Rubrics as 1EdTech CASE 1.0 has them (CFRubric), as far as Juncture uses them. What CASE has no member for stands in
 * members of other names, which others pass over: `scoreFrom`, the lower end of a level's range of points, and `unscored`.
 */

const CfLevel = v.object({
  identifier: v.optional(v.string(), ''),
  quality: v.optional(v.string(), ''),
  description: v.optional(v.string(), ''),
  score: v.nullish(v.number()),
  scoreFrom: v.nullish(v.number()),
  position: v.optional(v.number()),
});
const CfCriterion = v.object({
  identifier: v.string(),
  category: v.optional(v.string(), ''),
  description: v.optional(v.string(), ''),
  weight: v.nullish(v.number()),
  position: v.optional(v.number()),
  unscored: v.optional(v.boolean(), false),
  CFRubricCriterionLevels: v.optional(v.array(CfLevel), []),
});
/** A CFRubric as in a CASE 1.1 CFPackage; what it has besides is left out. */
export const CfRubric = v.object({
  identifier: v.string(),
  title: v.optional(v.string(), ''),
  unscaled: v.optional(v.boolean(), false),
  CFRubricCriteria: v.optional(v.array(CfCriterion), []),
});
export type CfRubric = v.InferOutput<typeof CfRubric>;

function decimal(score: number | null | undefined): DecimalString | null {
  return score === null || score === undefined ? null : v.parse(DecimalString, String(score));
}

function byPosition<T extends { readonly position?: number | undefined }>(list: readonly T[]): T[] {
  return list.toSorted((x, y) => (x.position ?? 0) - (y.position ?? 0));
}

function levelFrom(level: v.InferOutput<typeof CfLevel>): Level {
  return {
    title: level.quality,
    description: level.description,
    points: decimal(level.score),
    pointsFrom: decimal(level.scoreFrom),
  };
}

/** A level that only says how many points there are. */
function onlyPoints({ title, description, pointsFrom }: Level): boolean {
  return title === '' && description === '' && pointsFrom === null;
}

/**
 * A CASE rubric as Juncture's: levels from the lowest to the highest; a criterion is worth its highest level. Where the
 * levels stand the other way round they are turned.
 */
export function rubricFromCase(cf: CfRubric): Rubric {
  return {
    id: asId(RubricId, cf.identifier),
    title: cf.title,
    criteria: byPosition(cf.CFRubricCriteria).map((given): Criterion => {
      const levels = lowestFirst(byPosition(given.CFRubricCriterionLevels).map(levelFrom));
      const scores = given.CFRubricCriterionLevels.flatMap(({ score }) => score ?? []);
      const described = levels.length === 1 && onlyPoints(levels[0]) ? [] : levels;
      return {
        id: asId(CriterionId, given.identifier),
        title: given.category === '' ? given.description : given.category,
        description: given.category === '' ? '' : given.description,
        possible: given.unscored || scores.length === 0 ? null : decimal(Math.max(...scores)),
        weight: decimal(given.weight),
        levels: described,
      };
    }),
    unscaled: cf.unscaled,
    byHandFor: null,
  };
}

/** Levels with the fewest points first; those without points stay as they are. */
export function lowestFirst(levels: readonly Level[]): Level[] {
  const points = levels.flatMap((level) => (level.points === null ? [] : [Number(level.points)]));
  const falling = points.length > 1 && points[0] > (points.at(-1) ?? 0);
  return falling ? levels.toReversed() : [...levels];
}

/** Juncture's rubric in the form of CASE. A criterion worth more than its levels say gets a level that only has points. */
export function caseFromRubric(rubric: Rubric): CfRubric {
  return {
    identifier: rubric.id,
    title: rubric.title,
    unscaled: rubric.unscaled,
    CFRubricCriteria: rubric.criteria.map((criterion, c) => {
      const levels =
        criterion.levels.length === 0 && criterion.possible !== null
          ? [{ title: '', description: '', points: criterion.possible, pointsFrom: null }]
          : criterion.levels;
      return {
        identifier: criterion.id,
        category: criterion.title,
        description: criterion.description,
        weight: criterion.weight === null ? null : Number(criterion.weight),
        position: c + 1,
        unscored: criterion.possible === null,
        CFRubricCriterionLevels: levels.map((level, l) => ({
          identifier: `${criterion.id}-${l + 1}`,
          quality: level.title,
          description: level.description,
          score: level.points === null ? null : Number(level.points),
          scoreFrom: level.pointsFrom === null ? null : Number(level.pointsFrom),
          position: l + 1,
        })),
      };
    }),
  };
}

const CasePackage = v.union([
  v.pipe(
    CfRubric,
    v.check(({ CFRubricCriteria: criteria }) => criteria.length > 0),
    v.transform((one) => [one]),
  ),
  v.pipe(
    v.object({ CFRubrics: v.array(CfRubric) }),
    v.transform((all) => all.CFRubrics),
  ),
  v.pipe(
    v.object({ CFRubric: CfRubric }),
    v.transform((all) => [all.CFRubric]),
  ),
  v.array(CfRubric),
]);

/** The rubrics of a CASE file: a rubric alone, several, or a package with some; null where it is no such file. */
export function readCaseRubrics(text: string): Rubric[] | null {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return null;
  }
  const parsed = v.safeParse(CasePackage, raw);
  if (!parsed.success) return null;
  const rubrics = parsed.output.map(rubricFromCase).filter(({ criteria }) => criteria.length > 0);
  return rubrics.length === 0 ? null : rubrics;
}

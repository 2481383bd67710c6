import type { Criterion, Level, Rubric } from '../model/facts.ts';
import { asId, CriterionId, RubricId, type AssignmentId, type DecimalString } from '../model/ids.ts';
import { sameTitle } from './suggest.ts';

/** A rubric as it is typed or read from a table: its criteria have no ids yet. */

export interface DraftCriterion {
  readonly title: string;
  readonly description: string;
  readonly possible: DecimalString | null;
  readonly weight: DecimalString | null;
  readonly levels: readonly Level[];
}

/** A rubric before it is kept. */
export interface RubricDraft {
  readonly title: string;
  readonly criteria: readonly DraftCriterion[];
  readonly unscaled: boolean;
}

/** A rubric as it is put into the form again. */
export function draftOfRubric({ title, criteria, unscaled }: Rubric): RubricDraft {
  return {
    title,
    unscaled,
    criteria: criteria.map(({ title: name, description, possible, weight, levels }) => ({
      title: name,
      description,
      possible,
      weight,
      levels,
    })),
  };
}

/**
 * The rubric of a draft. A criterion that was there before, by its title or else its place, keeps its id, so that results,
 * links and aims stay with it.
 */
export function rubricOfDraft(
  draft: RubricDraft,
  id: string,
  assignmentId: AssignmentId,
  before: Rubric | null,
): Rubric {
  const old = before?.criteria ?? [];
  const used = new Set<string>();
  const byTitle = draft.criteria.map(({ title }) => {
    const found = old.find((one) => !used.has(one.id) && sameTitle(one.title, title));
    if (found !== undefined) used.add(found.id);
    return found?.id ?? null;
  });
  let fresh = 0;
  const idFor = (index: number): CriterionId => {
    const named = byTitle[index];
    if (named !== null) return named;
    const inPlace = old.at(index);
    if (inPlace !== undefined && !used.has(inPlace.id)) {
      used.add(inPlace.id);
      return inPlace.id;
    }
    for (;;) {
      fresh++;
      const next = `${id}/${fresh}`.slice(-200);
      if (!used.has(next) && old.every((one) => one.id !== next)) {
        used.add(next);
        return asId(CriterionId, next);
      }
    }
  };
  return {
    id: asId(RubricId, id),
    title: draft.title,
    criteria: draft.criteria.map((criterion, i): Criterion => ({
      ...criterion,
      id: idFor(i),
      levels: [...criterion.levels],
    })),
    unscaled: draft.unscaled,
    byHandFor: assignmentId,
  };
}

import type { Criterion } from '../model/facts.ts';
import type { Paper } from '../paper/paper.ts';
import { aimItems, measuredIn } from '../rubric/aim.ts';
import type { AssignmentView } from './view.ts';

/** The level of a criterion that is aimed at, and how much of its list is done. */
interface AimedAt {
  readonly criterion: Criterion;
  readonly level: string;
  readonly done: number;
  readonly of: number;
}

/**
 * The levels that an assignment's work aims at, in the order of the rubric.
 * @param paper the draft, which counts for what can be counted; null where there is none
 */
export function aimsOf(
  { rubric, aims }: Pick<AssignmentView, 'rubric' | 'aims'>,
  paper: Paper | null,
): AimedAt[] {
  const measured = paper === null ? null : measuredIn(paper);
  return (rubric?.criteria ?? []).flatMap((criterion) => {
    const aim = aims.get(criterion.id);
    const level = aim === undefined ? undefined : criterion.levels.at(aim.level);
    if (aim === undefined || level === undefined) return [];
    const items = aimItems(criterion, aim.level, aim.ticked, measured);
    return [
      { criterion, level: level.title, done: items.filter(({ done }) => done).length, of: items.length },
    ];
  });
}

import { behindOf, type AssignmentView } from './view.ts';

/** The remarks, but for one, behind which other points lie than before; by their ids. */
export function pointsMoved(before: AssignmentView, after: AssignmentView, except: string): string[] {
  return after.remarks.flatMap(({ id }) => {
    if (id === except) return [];
    return behindOf(before, id)?.share === behindOf(after, id)?.share ? [] : [id];
  });
}

/** The remarks, but for one, that are proposed to say something else than before; by their ids. */
export function proposalsMoved(before: AssignmentView, after: AssignmentView, except: string): string[] {
  return after.remarks.flatMap(({ id }) => {
    if (id === except) return [];
    return before.sayings.get(id)?.stance === after.sayings.get(id)?.stance ? [] : [id];
  });
}

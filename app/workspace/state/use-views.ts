import type { AssignmentView } from '#core/assignment/view.ts';
import type { Weight } from '#core/assignment/worth.ts';
import { useWorkspace, useWorkspaceState } from '../use-workspace.ts';

/** The view of an assignment, computed again when a record or the time changes it. */
export function useAssignmentView(id: string): AssignmentView | null {
  const { views } = useWorkspace();
  return useWorkspaceState(({ records, atMs }) => views.viewOf(records, id, atMs));
}

/** The views of all assignments. */
export function useAllViews(): readonly AssignmentView[] {
  const { views } = useWorkspace();
  return useWorkspaceState(({ records, atMs }) => views.allViews(records, atMs));
}

/** What an assignment is of its course's grade; null where that can't be told. */
export function useWeight({ course, assignment }: AssignmentView): Weight | null {
  const { views } = useWorkspace();
  return useWorkspaceState(({ records }) =>
    course === null ? null : (views.weightsOf(records, course.id)?.get(assignment.id) ?? null),
  );
}

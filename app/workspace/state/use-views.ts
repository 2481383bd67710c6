import type { AssignmentView } from '#core/assignment/view.ts';
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

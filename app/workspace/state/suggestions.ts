import { recordsIn } from '#core/assignment/records.ts';
import { suggestedCriteria } from '#core/assignment/suggested.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import type { Suggestion } from '#core/rubric/suggest.ts';
import { linkRemarks } from '../commands/decide.ts';
import type { RecordMaps } from '../storage/records.ts';
import { useWorkspaceState } from '../use-workspace.ts';
import type { Workspace } from '../workspace.ts';

/** The criterion that is suggested for a remark; null where it has one, or none fits well enough. */
function suggestionFor(records: RecordMaps, view: AssignmentView, remark: Remark): Suggestion | null {
  const found = suggestedCriteria(recordsIn(records), view.rubric, [remark], view, view.remarks);
  return found.get(remark.id) ?? null;
}

export function useSuggestion(view: AssignmentView, remark: Remark): Suggestion | null {
  return useWorkspaceState(({ records }) => suggestionFor(records, view, remark));
}

/** Links a remark to the criterion that is suggested for it, if one is. */
export function confirmSuggestion(workspace: Workspace, view: AssignmentView, remark: Remark): Promise<void> {
  const suggestion = suggestionFor(workspace.records, view, remark);
  if (suggestion === null) return Promise.resolve();
  return linkRemarks(workspace, [remark], { criterionId: suggestion.criterionId });
}

/** All suggestions that wait for the student's word, by remark. */
export function suggestionsIn(records: RecordMaps, view: AssignmentView): Map<Remark, Suggestion> {
  const found = suggestedCriteria(recordsIn(records), view.rubric, view.remarks, view);
  return new Map(
    view.remarks.flatMap((remark) => {
      const suggestion = found.get(remark.id);
      return suggestion === undefined ? [] : [[remark, suggestion] as const];
    }),
  );
}

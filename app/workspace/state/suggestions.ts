import { useWorkspaceState } from '../use-workspace.ts';
import type { Workspace } from '../workspace.ts';
import type { Rubric } from '#core/model/facts.ts';
import type { Remark } from '#core/model/remark.ts';
import { criterionOf } from '#core/rubric/link.ts';
import { criterionSuggester, type LinkedRemark, type Suggestion } from '#core/rubric/suggest.ts';
import { rubricOf } from '#core/assignment/points.ts';
import { recordsIn } from '#core/assignment/records.ts';
import { type AssignmentView } from '#core/assignment/view.ts';
import { linkRemarks } from '../commands/decide.ts';
import type { RecordMaps } from '../storage/records.ts';
/** Which criteria remarks may be about, learnt from what was linked by hand before, in all assignments. */

type Suggester = (remark: Remark) => Suggestion | null;

/** By what they learnt from: the judgements as they are now. */
const suggesters = new WeakMap<RecordMaps['judgements'], Map<Rubric, Suggester>>();

function linkedByHand(records: RecordMaps): LinkedRemark[] {
  return [...records.judgements.values()].flatMap(({ remarkId, assignmentId, link }) => {
    const remark = records.remarks.get(remarkId);
    const assignment = records.assignments.get(assignmentId);
    if (link?.criterionId == null || remark === undefined || assignment === undefined) return [];
    const criterion = rubricOf(recordsIn(records), assignment)?.criteria.find(
      ({ id }) => id === link.criterionId,
    );
    return criterion === undefined ? [] : [{ criterionTitle: criterion.title, remark }];
  });
}

function suggesterFor(records: RecordMaps, rubric: Rubric): Suggester {
  const byRubric = suggesters.get(records.judgements) ?? new Map<Rubric, Suggester>();
  suggesters.set(records.judgements, byRubric);
  const known = byRubric.get(rubric);
  if (known !== undefined) return known;
  const suggest = criterionSuggester(rubric, linkedByHand(records));
  const byRemark = new Map<Remark, Suggestion | null>();
  const once: Suggester = (remark) => {
    const found = byRemark.get(remark);
    if (found !== undefined) return found;
    const suggestion = suggest(remark);
    byRemark.set(remark, suggestion);
    return suggestion;
  };
  byRubric.set(rubric, once);
  return once;
}

/** Remarks that hang on no criterion and are about the work itself. */
function isUnlinked(view: AssignmentView, remark: Remark): boolean {
  const judgement = view.judgements.get(remark.id);
  return (
    (judgement?.link ?? null) === null &&
    criterionOf(remark, judgement) === null &&
    remark.channel !== 'overall' &&
    remark.channel !== 'overlap'
  );
}

/** The criterion that is suggested for a remark; null where it has one, or none fits well enough. */
function suggestionFor(records: RecordMaps, view: AssignmentView, remark: Remark): Suggestion | null {
  return view.rubric === null || !isUnlinked(view, remark)
    ? null
    : suggesterFor(records, view.rubric)(remark);
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
  const { rubric } = view;
  if (rubric === null) return new Map();
  const suggest = suggesterFor(records, rubric);
  return new Map(
    view.remarks.flatMap((remark) => {
      const suggestion = isUnlinked(view, remark) ? suggest(remark) : null;
      return suggestion === null ? [] : [[remark, suggestion] as const];
    }),
  );
}

import { useWorkspace } from '../../workspace/use-workspace.ts';
import { CriterionId, asId } from '#core/model/ids.ts';
import type { Remark } from '#core/model/remark.ts';
import { words } from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { linkRemarks } from '../../workspace/commands/decide.ts';
import { useSuggestion } from '../../workspace/state/suggestions.ts';

const AS_GIVEN = 'as given';
const NONE = 'none';

/** Which criterion a remark counts towards: as given, as the student says, or as suggested until confirmed. */
export function CriterionChoice({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const workspace = useWorkspace();
  const suggestion = useSuggestion(view, remark);
  const criteria = view.rubric?.criteria ?? [];
  if (criteria.length === 0 || remark.channel === 'criterion') return null;
  const titleOf = (id: string | null) => criteria.find((criterion) => criterion.id === id)?.title ?? null;
  const link = view.judgements.get(remark.id)?.link ?? null;
  const given = titleOf(remark.criterionId);
  const suggested = suggestion === null ? null : titleOf(suggestion.criterionId);
  return (
    <span className="inline-flex min-w-0 flex-wrap items-center gap-x-2">
      <select
        aria-label={words.rubric.linkLabel}
        className="max-w-full min-w-0 rounded border border-transparent bg-transparent py-0.5 text-sm text-quiet hover:border-rule"
        value={link === null ? AS_GIVEN : (link.criterionId ?? NONE)}
        onChange={({ target: { value } }) =>
          void linkRemarks(
            workspace,
            [remark],
            value === AS_GIVEN ? null : { criterionId: value === NONE ? null : asId(CriterionId, value) },
          )
        }
      >
        <option value={AS_GIVEN}>
          {given === null ? words.rubric.noCriterion : words.rubric.criterionGiven(given)}
        </option>
        {criteria.map(({ id, title }) => (
          <option key={id} value={id}>
            {title}
          </option>
        ))}
        <option value={NONE}>{words.rubric.onNone}</option>
      </select>
      {suggestion !== null && suggested !== null && (
        <button
          type="button"
          title={words.rubric.suggestedTitle(suggestion.score.toFixed(1))}
          className="rounded border border-dashed border-rule-strong px-1.5 italic hover:border-ink hover:text-ink"
          onClick={() => void linkRemarks(workspace, [remark], { criterionId: suggestion.criterionId })}
        >
          {words.rubric.suggested(suggested)}
        </button>
      )}
    </span>
  );
}

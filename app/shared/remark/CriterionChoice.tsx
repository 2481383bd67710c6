import { Tooltip } from '../controls/Tooltip.tsx';
import { Select } from '../controls/Select.tsx';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { CriterionId, asId } from '#core/model/ids.ts';
import type { Remark } from '#core/model/remark.ts';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Judgement } from '#core/model/work.ts';
import { sayWhatMoves } from './moved.ts';
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
  const chosen = view.judgements.get(remark.id)?.link ?? null;
  const link = (to: Judgement['link']) =>
    void sayWhatMoves(workspace, view, remark, linkRemarks(workspace, [remark], to));
  const given = titleOf(remark.criterionId);
  const suggested = suggestion === null ? null : titleOf(suggestion.criterionId);
  return (
    <span className="inline-flex min-w-0 flex-wrap items-center gap-x-2">
      <Select
        look="quiet"
        label={words.rubric.linkLabel}
        value={chosen === null ? AS_GIVEN : (chosen.criterionId ?? NONE)}
        options={[
          [AS_GIVEN, given === null ? words.rubric.noCriterion : words.rubric.criterionGiven(given)],
          ...criteria.map(({ id, title }) => [id, title] as const),
          [NONE, words.rubric.onNone],
        ]}
        onChange={(value) =>
          link(value === AS_GIVEN ? null : { criterionId: value === NONE ? null : asId(CriterionId, value) })
        }
      />
      {suggestion !== null && suggested !== null && (
        <Tooltip text={words.rubric.suggestedTitle(suggestion.score.toFixed(1))}>
          <button
            type="button"
            className="rounded border border-dashed border-rule-strong px-1.5 italic hover:border-ink hover:text-ink"
            onClick={() => link({ criterionId: suggestion.criterionId })}
          >
            {words.rubric.suggested(suggested)}
          </button>
        </Tooltip>
      )}
    </span>
  );
}

import { Toggles } from '../../../shared/controls/Toggles.tsx';
import { Fold } from '../../../shared/controls/Fold.tsx';
import { useWorkspace, useWorkspaceState } from '../../../workspace/use-workspace.ts';
import { useEffect, useMemo, useRef } from 'react';
import { Link, useSearchParams } from 'react-router';
import { rubricTotal } from '#core/rubric/result.ts';
import { toShown, type Fraction } from '#core/scores/fraction.ts';
import { Button, Empty } from '../../../shared/controls/Controls.tsx';
import { useNarrow } from '../../../shared/page/hooks.ts';
import { setPreference, usePreferences } from '../../../shared/page/preferences.ts';
import * as words from '../../../words/en.ts';
import { criterionFor, type AssignmentView } from '#core/assignment/view.ts';
import { linkRemarks } from '../../../workspace/commands/decide.ts';
import { suggestionsIn } from '../../../workspace/state/suggestions.ts';
import { CriterionRule } from './CriterionRule.tsx';
import { SlipList } from '../slips/SlipList.tsx';
import { assignmentAddress } from '../../../shared/page/addresses.ts';

/** The rubric before handing in and after: what each level asks, what was reached and lost, and the remarks on it. */
export function RubricView({
  view,
  focusedId,
  onFocus,
}: {
  view: AssignmentView;
  focusedId: string | null;
  onFocus: (id: string) => void;
}) {
  const [search] = useSearchParams();
  const wanted = search.get('criterion');
  const list = useRef<HTMLOListElement>(null);
  const asList = useAsList();
  useEffect(() => {
    if (wanted === null) return;
    const found = list.current?.querySelector(`[data-criterion="${CSS.escape(wanted)}"]`);
    found?.scrollIntoView({ block: 'start' });
  }, [wanted]);
  // Comments on a criterion that no rubric here has are there all the same.
  const others = view.remarks.filter(
    (remark) => remark.channel === 'criterion' && criterionFor(view, remark) === null,
  );
  return (
    <>
      {view.rubric === null ? (
        <Empty>
          {words.rubric.noneYet}{' '}
          <Link
            to={assignmentAddress(view.assignment.id, 'rubric')}
            className="font-semibold text-accent hover:underline"
          >
            {words.rubric.add}
          </Link>
          <span className="block">{words.rubric.addLead}</span>
        </Empty>
      ) : (
        <>
          <Head view={view} asList={asList} />
          <ol ref={list} className="mt-5 grid gap-9">
            {view.criteria.map((scaled) => (
              <CriterionRule
                key={scaled.criterion.id}
                view={view}
                scaled={scaled}
                asList={asList}
                opened={scaled.criterion.id === wanted}
                focusedId={focusedId}
                onFocus={onFocus}
              />
            ))}
          </ol>
        </>
      )}
      {others.length > 0 && (
        <div className="mt-5">
          <SlipList view={view} remarks={others} focusedId={focusedId} onFocus={onFocus} />
        </div>
      )}
    </>
  );
}

function useAsList(): boolean {
  const narrow = useNarrow();
  const layout = usePreferences((preferences) => preferences.rubricLayout);
  return layout === 'auto' ? narrow : layout === 'list';
}

function Head({ view, asList }: { view: AssignmentView; asList: boolean }) {
  const { rubric } = view;
  if (rubric === null) return null;
  const marked = view.criteria.some(({ result }) => result !== null);
  return (
    <header className="grid gap-2">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h2 className="font-serif text-xl font-semibold">{rubric.title || words.rubric.title}</h2>
        {rubric.byHandFor !== null && (
          <p className="flex flex-wrap gap-x-3 text-sm text-quiet">
            {words.rubric.own}
            <Link
              to={assignmentAddress(view.assignment.id, 'rubric')}
              className="font-semibold text-accent hover:underline"
            >
              {words.rubric.edit}
            </Link>
            <Link
              to={assignmentAddress(view.assignment.id, 'score')}
              className="font-semibold text-accent hover:underline"
            >
              {words.standing.form.typeScore}
            </Link>
          </p>
        )}
        <Toggles
          className="ml-auto"
          label={words.rubric.layout}
          options={[
            ['grid', words.rubric.asGrid],
            ['list', words.rubric.asList],
          ]}
          chosen={asList ? 'list' : 'grid'}
          onChoose={(rubricLayout) => setPreference({ rubricLayout })}
        />
      </div>
      {!marked && <p className="text-quiet">{words.rubric.waiting}</p>}
      <AddsUp view={view} />
      <Suggestions view={view} />
    </header>
  );
}

function AddsUp({ view: { addsUp, criteria, assignment, rubric } }: { view: AssignmentView }) {
  const scaled =
    rubric?.unscaled === false &&
    assignment.possible !== null &&
    criteria.some(({ factor }) => factor.n !== factor.d)
      ? words.rubric.scaled(toShown(rubricTotal(rubric), 2), assignment.possible)
      : null;
  const shown = (x: Fraction) => toShown(x, 2);
  const { n } = addsUp?.difference ?? { n: 0n };
  const difference = addsUp === null ? '' : shown({ ...addsUp.difference, n: n < 0n ? -n : n });
  return (
    <div className="grid gap-1 text-sm text-quiet">
      {scaled !== null && <p>{scaled}</p>}
      {addsUp !== null && n === 0n && <p>{words.rubric.addsUp(shown(addsUp.sum))}</p>}
      {addsUp !== null && n !== 0n && (
        <p className="border-l-2 border-ink pl-3 font-semibold text-ink" data-adds-up>
          {words.rubric.doesNotAdd(
            shown(addsUp.sum),
            shown(addsUp.score),
            n > 0n ? words.rubric.moreThan(difference) : words.rubric.lessThan(difference),
          )}
        </p>
      )}
    </div>
  );
}

/** Links that the words of remarks suggest: confirmed all at once here, or one by one on their slips. */
function Suggestions({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  const records = useWorkspaceState((state) => state.records);
  const found = useMemo(() => suggestionsIn(records, view), [records, view]);
  if (found.size === 0) return null;
  const titleOf = (id: string) => view.rubric?.criteria.find((criterion) => criterion.id === id)?.title ?? '';
  return (
    <Fold className="text-sm" labelClass="" label={words.rubric.suggestions(found.size)}>
      <ul className="mt-1 mb-2">
        {[...found].map(([remark, { criterionId }]) => (
          <li key={remark.id} className="flex items-baseline gap-3 border-t border-rule py-1.5">
            <span className="line-clamp-2 min-w-0 flex-1">{remark.text}</span>
            <button
              type="button"
              className="rounded border border-dashed border-rule-strong px-1.5 italic hover:border-ink"
              onClick={() => void linkRemarks(workspace, [remark], { criterionId })}
            >
              {titleOf(criterionId)}?
            </button>
          </li>
        ))}
      </ul>
      <Button
        onClick={() =>
          void linkRemarks(workspace, [...found.keys()], (remark) => {
            const suggestion = found.get(remark);
            return suggestion === undefined ? null : { criterionId: suggestion.criterionId };
          })
        }
      >
        {words.rubric.confirmAll}
      </Button>
    </Fold>
  );
}

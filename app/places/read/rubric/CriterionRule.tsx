import { Fold } from '../../../shared/controls/Fold.tsx';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import clsx from 'clsx';
import { toast } from 'sonner';
import { criterionOf } from '#core/rubric/link.ts';
import { gapToNext, levelReached, type ScaledResult } from '#core/rubric/result.ts';
import { larger, subtract, toShown, ZERO } from '#core/scores/fraction.ts';
import { Button } from '../../../shared/controls/Controls.tsx';
import { Sharing } from '../../../shared/remark/PointsBehind.tsx';
import { RemarkLines } from '../../../shared/remark/RemarkLines.tsx';
import { Slip } from '../../../shared/remark/Slip.tsx';
import * as words from '../../../words/en.ts';
import { hundredths, type AssignmentView } from '#core/assignment/view.ts';
import { proposedQueries, takeUpQuery } from '../../../workspace/commands/queries.ts';
import { AimList } from './AimList.tsx';
import { Levels } from './Levels.tsx';
import { useUnfolded } from '../reading-state.ts';
import { unexplainedQueryId } from '#core/model/own-ids.ts';

/** One criterion: its points, its levels, the list of the level aimed at, and the remarks on it. */
export function CriterionRule({
  view,
  scaled,
  asList,
  opened,
  focusedId,
  onFocus,
}: {
  view: AssignmentView;
  scaled: ScaledResult;
  asList: boolean;
  /** The address leads here: its remarks are open. */
  opened: boolean;
  focusedId: string | null;
  onFocus: (id: string) => void;
}) {
  const { criterion, result } = scaled;
  const linked = view.remarks.filter(
    (remark) => criterionOf(remark, view.judgements.get(remark.id)) === criterion.id,
  );
  const own = linked.filter(({ channel }) => channel === 'criterion');
  const elsewhere = linked.filter(({ channel }) => channel !== 'criterion');
  const loss = view.losses.find(({ criterionId }) => criterionId === criterion.id) ?? null;
  const aim = view.aims.get(criterion.id);
  const [unfolded, unfold] = useUnfolded(view.assignment.id);
  return (
    <li data-criterion={criterion.id} className="scroll-mt-4">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h3 className="font-serif text-[1.1rem] font-semibold">{criterion.title}</h3>
        <Points scaled={scaled} />
      </div>
      {criterion.description !== '' && (
        <Fold className="text-sm text-quiet" labelClass="" label={words.rubric.more}>
          <p className="mt-1 max-w-prose whitespace-pre-wrap">{criterion.description}</p>
        </Fold>
      )}
      <Levels
        view={view}
        scaled={scaled}
        reached={levelReached(criterion, result)}
        aimed={aim?.level ?? null}
        asList={asList}
      />
      {aim !== undefined && <AimList view={view} criterion={criterion} aim={aim} />}
      <div className="mt-3 grid gap-2">
        {own.map((remark) => (
          <Slip
            key={remark.id}
            view={view}
            remark={remark}
            focused={remark.id === focusedId}
            unfolded={unfolded.includes(remark.id)}
            onUnfold={unfold}
            onFocus={onFocus}
          />
        ))}
        {loss !== null && loss.unexplained > 0 && (
          <Unexplained view={view} criterionId={criterion.id} lost={hundredths(loss.unexplained)} />
        )}
        {loss?.atStake === true && (
          <p className="text-sm font-semibold">{words.rubric.atStakeHere(hundredths(loss.lost))}</p>
        )}
        {own.length === 0 && result !== null && (
          <p className="text-sm text-quiet">{words.reading.noComment}</p>
        )}
        {elsewhere.length > 0 && (
          <Fold
            key={String(opened)}
            defaultOpen={opened}
            labelClass="text-sm font-semibold text-accent"
            label={words.rubric.openRemarks(elsewhere.length)}
          >
            <RemarkLines view={view} remarks={elsewhere} />
          </Fold>
        )}
        {loss !== null && loss.shareByRemark.size > 0 && loss.lost > 0 && (
          <Fold
            className="text-sm text-quiet"
            labelClass=""
            label={loss.atStake ? words.rubric.howStaked : words.rubric.howShared(hundredths(loss.lost))}
          >
            <Sharing view={view} loss={loss} />
          </Fold>
        )}
      </div>
    </li>
  );
}

function Points({ scaled }: { scaled: ScaledResult }) {
  const { criterion, result, possible, got } = scaled;
  if (possible === null) return <p className="text-sm text-quiet">{words.rubric.unscored}</p>;
  const shown = toShown(possible, 2);
  if (got === null)
    return (
      <p className="text-sm text-quiet">
        {result === null
          ? words.rubric.points(shown)
          : `${words.rubric.points(shown)} · ${words.rubric.notGiven}`}
      </p>
    );
  const lost = larger(ZERO, subtract(possible, got));
  const gap = gapToNext(scaled);
  const next = criterion.levels.at(levelReached(criterion, result) + 1);
  return (
    <p className="text-sm whitespace-nowrap text-quiet" data-points>
      <b className="text-base text-ink">{words.rubric.got(toShown(got, 2), shown)}</b>
      {' · '}
      {lost.n === 0n ? words.rubric.nothingLost : words.rubric.lost(toShown(lost, 2))}
      {gap !== null && next !== undefined && ` · ${words.rubric.gap(toShown(gap, 2), next.title)}`}
    </p>
  );
}

/** Points that no remark explains, and the question that they give reason for. */
function Unexplained({
  view,
  criterionId,
  lost,
}: {
  view: AssignmentView;
  criterionId: string;
  lost: string;
}) {
  const workspace = useWorkspace();
  const id = unexplainedQueryId(view.assignment.id, criterionId);
  const taken = view.queries.some((query) => query.id === id);
  const proposed = proposedQueries(view).find((query) => query.id === id);
  return (
    <div
      className={clsx(
        'flex flex-wrap items-center justify-between gap-3 rounded-lg border border-dashed border-rule-strong p-3',
      )}
      data-unexplained
    >
      <p className="font-semibold">{words.rubric.unexplained(lost)}</p>
      {taken ? (
        <span className="text-sm text-quiet">{words.rubric.asked}</span>
      ) : (
        proposed !== undefined && (
          <Button
            onClick={() =>
              void takeUpQuery(workspace, view.assignment.id, proposed).then(() => toast(words.rubric.asked))
            }
          >
            {words.rubric.askWhy}
          </Button>
        )
      )}
    </div>
  );
}

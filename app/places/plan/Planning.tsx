import { stationOf } from '#core/assignment/line.ts';
import { useTouch } from '../../shared/page/hooks.ts';
import { shownPoints } from '../../shared/shown/figures.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { planTotals, type PlannedTask } from '#core/plan/tasks.ts';
import { parted } from '#core/plan/time.ts';
import { useAddress } from '../../shared/page/address.ts';
import { TimeThereIs } from './TimeThereIs.tsx';
import { useTimePlan } from './time-plan.ts';
import { useAssignment } from '../../shared/page/assignment-outlet.ts';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { StationNotice } from '../../shared/line/StationNotice.tsx';
import * as words from '../../words/en.ts';
import { hundredths, mostGain, type AssignmentView } from '#core/assignment/view.ts';
import { proposeOrder } from '../../workspace/commands/plan.ts';
import { TaskList } from './TaskList.tsx';

/** What was decided to be acted on, as tasks with minutes and the points behind them. */
export function Planning() {
  const touch = useTouch();
  const workspace = useWorkspace();
  const { work: view } = useAssignment();
  const totals = planTotals(view.tasks);
  const [search, setSearch] = useAddress();
  const asked = Number(search.get('minutes') ?? NaN);
  const minutes = asked >= 0 && asked < totals.minutesLeft ? asked : totals.minutesLeft;
  const plan = useTimePlan(view.tasks, minutes);
  const { inPlan, left } =
    plan === null
      ? { inPlan: view.tasks, left: new Map<PlannedTask, number>() }
      : parted(view.tasks, minutes, plan.bought);
  const leftOut = [...left.keys()];
  const counts = stationOf(view, 'plan').is === 'do';
  const hasPoints = view.losses.length > 0;
  const dragged = view.tasks.some((planned) => planned.task.rank !== null);
  return (
    <div className="mx-auto grid grid-cols-1 max-w-[84rem] gap-x-9 gap-y-8 p-6 max-md:p-4 lg:grid-cols-[minmax(0,1fr)_24rem] lg:grid-rows-[auto_1fr]">
      {totals.minutesLeft > 0 && (
        <section className="lg:col-start-2 lg:row-start-1">
          <TimeThereIs
            minutes={minutes}
            whole={totals.minutesLeft}
            onMinutes={(next) => setSearch(next >= totals.minutesLeft ? {} : { minutes: String(next) })}
            plan={plan}
            cap={mostGain(view)}
            hasPoints={counts && totals.gain > 0}
          />
        </section>
      )}
      <section className="lg:col-start-1 lg:row-span-2 lg:row-start-1">
        <Unexplained view={view} />
        <div className="mb-2 flex flex-wrap items-baseline justify-between gap-x-4">
          <div>
            <SectionTitle>{words.plan.title}</SectionTitle>
            <p className="text-sm text-quiet">
              {words.plan.summary(view.tasks.length, words.plan.hours(totals.minutesLeft), totals.done)}
            </p>
          </div>
          {dragged && (
            <Button look="quiet" onClick={() => void proposeOrder(workspace, view.assignment.id)}>
              {words.plan.proposed}
            </Button>
          )}
        </div>
        <StationNotice view={view} station="plan" />
        {view.tasks.length > 0 && (
          <>
            <p className="mb-2 text-sm text-quiet">
              {dragged ? words.plan.ownOrder : words.plan.order(hasPoints, touch)}
            </p>
            <TaskList
              view={view}
              tasks={inPlan}
              others={{ before: [], behind: leftOut }}
              noteOf={() => null}
            />
            {leftOut.length > 0 && (
              <>
                <h3 className="mt-6 mb-2 text-sm text-quiet">{words.plan.left}</h3>
                <TaskList
                  view={view}
                  tasks={leftOut}
                  others={{ before: inPlan, behind: [] }}
                  noteOf={(planned) => words.plan.leftShort(words.plan.hours(left.get(planned) ?? 0))}
                />
              </>
            )}
          </>
        )}
      </section>
      <aside className="lg:col-start-2">
        <Worth view={view} gain={counts ? totals.gain : null} />
      </aside>
    </div>
  );
}

function Unexplained({ view }: { view: AssignmentView }) {
  return view.losses
    .filter((loss) => loss.unexplained > 0)
    .map((loss) => (
      <p
        key={loss.criterionId ?? ''}
        className="mb-4 rounded-lg border border-dashed border-rule-strong p-3 text-sm font-semibold"
      >
        {loss.criterionId === null
          ? words.plan.unexplainedWhole(hundredths(loss.unexplained))
          : words.plan.unexplained(hundredths(loss.unexplained), loss.title)}
      </p>
    ));
}

/** Where the points went, and what the tasks could bring of them. */
function Worth({
  view,
  gain,
}: {
  view: AssignmentView;
  /** null: nothing can be won any more. */
  gain: number | null;
}) {
  const gainOf = (ids: ReadonlyMap<string, number>) =>
    view.tasks
      .filter((planned) => planned.task.about.some(({ remarkId }) => ids.has(remarkId)))
      .reduce((sum, planned) => sum + (planned.gain ?? 0), 0);
  const stake = view.losses.some(({ atStake }) => atStake);
  if (view.losses.length === 0) return <p className="text-sm text-quiet">{words.plan.noPoints}</p>;
  return (
    <>
      <SectionTitle>{words.plan.total}</SectionTitle>
      {gain !== null && stake && <p className="mt-2">{words.plan.stakeLine(hundredths(gain))}</p>}
      {gain !== null && !stake && view.score !== null && (
        <p className="mt-2">{words.plan.totalLine(hundredths(gain), shownPoints(view.score))}</p>
      )}
      {gain !== null && !stake && view.reachable !== null && (
        <p className="text-quiet">{words.plan.capLine(shownPoints(view.reachable))}</p>
      )}
      <p className="mt-2 mb-6 text-sm text-quiet">
        {gain === null ? words.plan.nothingToWin : words.plan.estimate}
      </p>
      <table className="w-full text-sm">
        <caption className="mb-1 text-left font-serif text-base font-semibold">
          {stake ? words.plan.stakeCaption : words.plan.byCriterion}
        </caption>
        <thead className="text-quiet">
          <tr>
            <th scope="col" className="py-1 text-left font-normal">
              {words.plan.criterion}
            </th>
            <th scope="col" className="text-right font-normal">
              {stake ? words.plan.stake : words.plan.lost}
            </th>
            <th scope="col" className="text-right font-normal">
              {words.plan.planned}
            </th>
          </tr>
        </thead>
        <tbody>
          {view.losses.map((loss) => (
            <tr key={loss.criterionId ?? ''} className="border-t border-rule">
              <th scope="row" className="py-1.5 text-left font-normal">
                {loss.criterionId === null ? words.plan.whole : loss.title}
              </th>
              <td className="text-right">{hundredths(loss.lost)}</td>
              <td className="text-right">{gain === null ? '–' : hundredths(gainOf(loss.shareByRemark))}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

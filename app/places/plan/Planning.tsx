import { isOver } from '#core/assignment/jobs.ts';
import { stationOf } from '#core/assignment/line.ts';
import { useState } from 'react';
import { compare } from '#core/scores/fraction.ts';
import type { AssignmentId } from '#core/model/ids.ts';
import { unexplainedQueryId } from '#core/model/own-ids.ts';
import { useTouch } from '../../shared/page/hooks.ts';
import { offerFile } from '../../shared/page/notify.ts';
import { shownPoints, shownShare } from '../../shared/shown/figures.ts';
import { fileNameOf } from '../../shared/files/file-name.ts';
import { useNow, useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { planTotals } from '#core/plan/tasks.ts';
import { parted, type LeftOut } from '#core/plan/time.ts';
import { TimeThereIs } from './TimeThereIs.tsx';
import { useTimePlan } from './time-plan.ts';
import { useAssignment } from '../../shared/page/assignment-outlet.ts';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { StationNotice } from '../../shared/line/StationNotice.tsx';
import * as words from '../../words/en.ts';
import { hundredths, mostGain, type AssignmentView } from '#core/assignment/view.ts';
import { addTask, planMinutes, proposeOrder } from '../../workspace/commands/plan.ts';
import { proposedQueries, takeUpQuery } from '../../workspace/commands/queries.ts';
import { useGradeGain } from '../../workspace/state/use-standing.ts';
import { DaysAhead, FreeTime } from './DaysAhead.tsx';
import { useHeldOrder } from './held-order.ts';
import { TaskList } from './TaskList.tsx';
import { Together } from './Together.tsx';

/** What was decided to be acted on, as tasks with minutes and the points behind them. */
export function Planning() {
  const touch = useTouch();
  const atMs = useNow();
  const workspace = useWorkspace();
  const { work: view, marked } = useAssignment();
  const { id } = view.assignment;
  const totals = planTotals(view.tasks);
  const [minutes, setMinutes] = useMinutesThereAre(view, totals.minutesLeft);
  const plan = useTimePlan(view.tasks, minutes);
  const { shown, isOther, release, handlers } = useHeldOrder(
    plan === null ? { inPlan: view.tasks, left: new Map() } : parted(view.tasks, minutes, plan.bought),
  );
  const { inPlan, left } = shown;
  const leftOut = [...left.keys()];
  const counts = stationOf(view, 'plan').is === 'do';
  const hasPoints = totals.gain > 0;
  const dragged = view.tasks.some((planned) => planned.task.rank !== null);
  return (
    <div className="mx-auto grid grid-cols-1 max-w-[84rem] gap-x-9 gap-y-8 p-6 max-md:p-4 lg:grid-cols-[minmax(0,1fr)_24rem] lg:grid-rows-[auto_1fr]">
      {totals.minutesLeft > 0 && (
        <section className="lg:col-start-2 lg:row-start-1">
          <TimeThereIs
            minutes={minutes}
            whole={totals.minutesLeft}
            onMinutes={setMinutes}
            plan={plan}
            cap={mostGain(view)}
            hasPoints={counts && hasPoints}
          />
          <FreeTime view={view} onMinutes={setMinutes} />
        </section>
      )}
      <section className="lg:col-start-1 lg:row-span-2 lg:row-start-1" {...handlers}>
        <Unexplained view={view} />
        <div className="mb-2 flex flex-wrap items-baseline justify-between gap-x-4">
          <div>
            <SectionTitle>{words.plan.title}</SectionTitle>
            <p className="text-sm text-quiet">
              {words.plan.summary(view.tasks.length, words.plan.hours(totals.minutesLeft), totals.done)}
            </p>
          </div>
          <span className="flex gap-3">
            {isOther && (
              <Button look="quiet" onClick={release}>
                {words.plan.renew}
              </Button>
            )}
            {dragged && (
              <Button look="quiet" onClick={() => void proposeOrder(workspace, id)}>
                {words.plan.proposed}
              </Button>
            )}
          </span>
        </div>
        <StationNotice view={view} station="plan" />
        <Together view={view} marked={marked} />
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
              onOrdered={release}
            />
            {leftOut.length > 0 && (
              <>
                <h3 className="mt-6 mb-2 text-sm text-quiet">{words.plan.left}</h3>
                <TaskList
                  view={view}
                  tasks={leftOut}
                  others={{ before: inPlan, behind: [] }}
                  noteOf={(planned) => leftWords(left.get(planned))}
                  onOrdered={release}
                />
              </>
            )}
          </>
        )}
        <div className="mt-4 flex flex-wrap items-end justify-between gap-3">
          <OwnTask assignmentId={id} />
          {view.tasks.length > 0 && <TableButton view={view} />}
        </div>
      </section>
      <aside className="grid grid-cols-1 content-start gap-8 lg:col-start-2">
        {totals.minutesLeft > 0 && !isOver(view, atMs) && <DaysAhead view={view} />}
        <div>
          <Worth view={view} gain={counts ? totals.gain : null} bought={plan?.gain ?? null} />
        </div>
      </aside>
    </div>
  );
}

/** The minutes that the student has: as they were kept, and at once as they are moved. All that the tasks take where nobody says. */
function useMinutesThereAre(view: AssignmentView, whole: number): [number, (minutes: number) => void] {
  const workspace = useWorkspace();
  const { id } = view.assignment;
  const kept = useWorkspaceState(({ records }) => records.planTimes.get(id)?.minutes ?? null);
  const [moved, setMoved] = useState<number | null>(null);
  const minutes = Math.min(whole, moved ?? kept ?? whole);
  const set = (next: number) => {
    setMoved(next);
    void planMinutes(workspace, id, next >= whole ? null : next);
  };
  return [minutes, set];
}

function leftWords(why: LeftOut | undefined): string {
  if (why === undefined) return '';
  if (why.kind === 'by hand') return words.plan.pinnedOut;
  return why.kind === 'needs'
    ? words.plan.leftNeeds(why.title)
    : words.plan.leftShort(words.plan.hours(why.minutes));
}

function OwnTask({ assignmentId }: { assignmentId: AssignmentId }) {
  const workspace = useWorkspace();
  const [title, setTitle] = useState('');
  const add = () => {
    if (title.trim() === '') return;
    setTitle('');
    void addTask(workspace, assignmentId, title.trim());
  };
  return (
    <form
      className="flex min-w-0 flex-1 items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <input
        type="text"
        aria-label={words.plan.addTask}
        placeholder={words.plan.addTask}
        value={title}
        onChange={(event) => setTitle(event.target.value)}
        className="min-w-0 max-w-96 flex-1 rounded-md border border-rule-strong/60 bg-paper px-2 py-1.5"
      />
      <Button type="submit" disabled={title.trim() === ''}>
        {words.plan.add}
      </Button>
    </form>
  );
}

/** Gives the tasks as a table. */
function TableButton({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  const save = async () => {
    const { writeCsv } = await import('#formats/table/csv.ts');
    const rows = view.tasks.map(({ task, behind, gain }) => [
      task.title,
      words.changeKinds[task.kind],
      String(task.minutes),
      behind === null ? '' : hundredths(behind),
      gain === null ? '' : hundredths(gain),
      task.about.flatMap(({ remarkId }) => view.about.numberByRemark.get(remarkId) ?? []).join(' '),
      task.done ? words.plan.done : '',
      task.steps.map((step) => step.title).join('; '),
    ]);
    const text = writeCsv([words.plan.csvHead, ...rows]);
    offerFile(
      fileNameOf(workspace, view, words.plan.planFile, 'csv'),
      new TextEncoder().encode(text),
      'text/csv',
    );
  };
  return <Button onClick={() => void save()}>{words.plan.csv}</Button>;
}

/** Points that no remark explains, each with a question to ask about them. */
function Unexplained({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  const proposed = new Map(proposedQueries(view).map((query) => [query.id, query]));
  const asked = new Set(view.queries.map(({ id }) => id));
  return view.losses
    .filter((loss) => loss.unexplained > 0)
    .map((loss) => {
      const id = unexplainedQueryId(view.assignment.id, loss.criterionId);
      const query = proposed.get(id);
      return (
        <div
          key={loss.criterionId ?? ''}
          className="mb-4 rounded-lg border border-dashed border-rule-strong p-3 text-sm"
        >
          <p className="font-semibold">
            {loss.criterionId === null
              ? words.plan.unexplainedWhole(hundredths(loss.unexplained))
              : words.plan.unexplained(hundredths(loss.unexplained), loss.title)}
          </p>
          {asked.has(id) ? (
            <p className="text-quiet">{words.plan.asked}</p>
          ) : (
            query !== undefined && (
              <div className="flex flex-wrap items-baseline gap-x-4">
                <p className="text-quiet">“{query.text}”</p>
                <Button
                  look="quiet"
                  className="min-h-0 py-0"
                  onClick={() => void takeUpQuery(workspace, view.assignment.id, query)}
                >
                  {words.plan.ask}
                </Button>
              </div>
            )
          )}
        </div>
      );
    });
}

/** Where the points went, and what the tasks could bring of them. */
function Worth({
  view,
  gain,
  bought,
}: {
  view: AssignmentView;
  /** null: nothing can be won any more. */
  gain: number | null;
  /** What the tasks gain that the time is for; null until it is known. */
  bought: number | null;
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
      {gain !== null && gain > 0 && stake && <p className="mt-2">{words.plan.stakeLine(hundredths(gain))}</p>}
      {gain !== null && gain > 0 && !stake && view.score !== null && (
        <p className="mt-2">{words.plan.totalLine(hundredths(gain), shownPoints(view.score))}</p>
      )}
      {gain !== null && !stake && view.reachable !== null && (
        <p className="text-quiet">{words.plan.capLine(shownPoints(view.reachable))}</p>
      )}
      {gain !== null && <OnGrade view={view} gain={bought ?? gain} />}
      <p className="mt-2 mb-6 text-sm text-quiet">
        {gain === null
          ? words.plan.nothingToWin
          : gain === 0 && view.tasks.length > 0
            ? words.plan.byImportance
            : words.plan.estimate}
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

/** What the chosen tasks do to the course grade, and plainly when another attempt does nothing. */
function OnGrade({ view, gain }: { view: AssignmentView; gain: number }) {
  const grade = useGradeGain(view, gain);
  const most = mostGain(view);
  if (view.state.kind === 'open for another attempt' && most === 0)
    return <p className="mt-1 font-semibold">{words.plan.notWorth}</p>;
  if (grade === null || gain === 0) return null;
  return (
    <p className="mt-1">
      {compare(grade.then, grade.now) === 0
        ? words.plan.gradeSame
        : words.plan.gradeLine(shownShare(grade.now), shownShare(grade.then))}
    </p>
  );
}

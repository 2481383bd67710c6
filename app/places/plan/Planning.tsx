import { isOver } from '#core/assignment/jobs.ts';
import { stationOf } from '#core/assignment/line.ts';
import { useState } from 'react';
import type { AssignmentId } from '#core/model/ids.ts';
import { useTouch } from '../../shared/page/hooks.ts';
import { offerFile } from '../../shared/page/notify.ts';
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
import { useCalendars, useMinute, useWeekPlan } from '../../workspace/state/week.ts';
import { EstimatesNote } from '../../shared/page/EstimatesNote.tsx';
import { DaysAhead, FreeTime } from './DaysAhead.tsx';
import { useHeldOrder } from './held-order.ts';
import { TaskList } from './TaskList.tsx';
import { Together } from './Together.tsx';
import { Unexplained } from './Unexplained.tsx';
import { Worth } from './Worth.tsx';

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
  const nowMs = useMinute();
  const week = useWeekPlan(nowMs, useCalendars(nowMs));
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
          <FreeTime view={view} week={week} nowMs={nowMs} onMinutes={setMinutes} />
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
        <EstimatesNote />
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
        {totals.minutesLeft > 0 && !isOver(view, atMs) && <DaysAhead view={view} week={week} nowMs={nowMs} />}
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

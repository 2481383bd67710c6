import { Link } from 'react-router';
import { takenUntil } from '#core/assignment/jobs.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { instantOf } from '#core/model/ids.ts';
import { dayOf } from '#core/plan/free-hours.ts';
import { planTotals } from '#core/plan/tasks.ts';
import { minutesIn, without } from '#core/plan/spans.ts';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { ownZone } from '../../shared/shown/own-zone.ts';
import { daysUntil, shownDay, shownTime } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { hundredths } from '#core/assignment/view.ts';
import { useTimeSettings, type WeekPlan } from '../../workspace/state/week.ts';

interface Placed {
  readonly view: AssignmentView;
  /** The work of all assignments; null until it was placed. */
  readonly week: WeekPlan | null;
  readonly nowMs: number;
}

/** The days until an assignment is due, with the time that its tasks have on them, and how far they are. */
export function DaysAhead({ view, week: plan, nowMs }: Placed) {
  const zone = ownZone();
  const until = takenUntil(view);
  const totals = planTotals(view.tasks);
  const gained = view.tasks.reduce((sum, { task, gain }) => sum + (task.done ? (gain ?? 0) : 0), 0);
  const titles = new Map(view.tasks.map(({ task }) => [task.id as string, task.title]));
  const blocks = (plan?.blocks ?? []).filter(
    ({ taskIds, to }) => to > nowMs && taskIds.some((id) => titles.has(id)),
  );
  const days = [...new Set(blocks.map(({ from }) => dayOf(from, zone)))];
  const unplaced = (plan?.unplaced ?? []).filter(({ taskId }) => titles.has(taskId));
  const time = (ms: number) => shownTime(instantOf(ms), zone);
  return (
    <section>
      <SectionTitle>{until === null ? words.plan.daysFree : words.plan.days}</SectionTitle>
      {until !== null && until > nowMs && (
        <p className="text-sm text-quiet">
          {words.plan.progress(
            totals.done,
            view.tasks.length,
            gained > 0 ? `+${hundredths(gained)}` : null,
            daysUntil(instantOf(until), nowMs),
          )}
        </p>
      )}
      {plan !== null && blocks.length === 0 && <p className="text-sm text-quiet">{words.plan.noDays}</p>}
      <ol className="mt-1 text-sm">
        {days.map((day) => {
          const own = blocks.filter(({ from }) => dayOf(from, zone) === day);
          return (
            <li key={day} className="grid grid-cols-[5.2rem_minmax(0,1fr)] gap-2 border-t border-rule py-1.5">
              <span className="font-semibold">{shownDay(instantOf(own[0].from), zone)}</span>
              <ul>
                {own.map(({ id, from, to, taskIds }) => (
                  <li key={id} className="flex gap-2">
                    <span className="shrink-0 text-quiet">
                      {time(from)}–{time(to)}
                    </span>
                    <span className="min-w-0 truncate">
                      {words.week.tasks(titles.get(taskIds[0]) ?? '', taskIds.length - 1)}
                    </span>
                  </li>
                ))}
              </ul>
            </li>
          );
        })}
      </ol>
      {unplaced.map(({ taskId, minutes, fits }) => (
        <p key={taskId} className="border-t border-rule py-1.5 text-sm font-semibold">
          {words.week.unplacedShort(titles.get(taskId) ?? '', words.plan.hours(minutes))}{' '}
          {fits === null ? words.week.fitsNever : words.week.fits(shownDay(instantOf(fits), zone))}
        </p>
      ))}
      <Link to="/week" className="text-sm font-semibold text-accent hover:underline">
        {words.plan.toWeek}
      </Link>
    </section>
  );
}

/** The time that is free until an assignment is due, to be taken as the time there is. */
export function FreeTime({
  view,
  week: plan,
  nowMs,
  onMinutes,
}: Placed & {
  onMinutes: (minutes: number) => void;
}) {
  const { marginHours } = useTimeSettings();
  const until = takenUntil(view);
  if (plan === null || until === null || until <= nowMs) return null;
  const by = until - marginHours * 3_600_000;
  const own = new Set(view.tasks.map(({ task }) => task.id as string));
  const others = plan.blocks.filter(({ taskIds }) => !taskIds.some((id) => own.has(id)));
  const left = minutesIn(
    without(plan.free, [{ from: -Infinity, to: nowMs }, { from: by, to: Infinity }, ...others]),
  );
  return (
    <p className="mt-1 flex flex-wrap items-baseline gap-x-3 text-sm text-quiet">
      {words.plan.useFree(words.plan.hours(left))}
      <Button look="quiet" className="min-h-0 py-0" onClick={() => onMinutes(left)}>
        {words.plan.useFreeButton}
      </Button>
    </p>
  );
}

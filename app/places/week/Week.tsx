import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { instantOf } from '#core/model/ids.ts';
import { takenUntil } from '#core/assignment/jobs.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { dayAfter, dayOf } from '#core/plan/free-hours.ts';
import { blocksToGive } from '#core/plan/given.ts';
import type { PlacedBlock } from '#core/plan/place.ts';
import { daysFrom, mondayOf } from '#core/plan/week-days.ts';
import { Button, Empty } from '../../shared/controls/Controls.tsx';
import { useAddress } from '../../shared/page/address.ts';
import { useNarrow, useTouch, useUndoKey } from '../../shared/page/hooks.ts';
import { offerFile, redoAndTell, undoAndTell } from '../../shared/page/notify.ts';
import { usePlaceTitle } from '../../shared/page/place-title.ts';
import { ownZone } from '../../shared/shown/own-zone.ts';
import { shownDay } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { keepGiven, setBlock, WEEK_SCOPE } from '../../workspace/commands/week.ts';
import { settingIn } from '../../workspace/state/settings.ts';
import { useAllViews } from '../../workspace/state/use-views.ts';
import { useCalendars, useMinute, useWeekPlan, type WeekPlan } from '../../workspace/state/week.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { BlockDialog } from './BlockDialog.tsx';
import { reasonNotThen, tasksOfBlock, titleOfBlock, type Names } from './block-words.ts';
import { Calendars } from './Calendars.tsx';
import { FirstThing } from './FirstThing.tsx';
import { FreeHours } from './FreeHours.tsx';
import { Unplaced } from './Unplaced.tsx';
import { WeekGrid } from './WeekGrid.tsx';
import { WeekList } from './WeekList.tsx';

/** So many days are a list on a phone: what is far ahead is looked up week by week. */
const DAYS = 7;

/** The planned work of all assignments on the days, with free hours and busy times. */
export function Week() {
  usePlaceTitle(words.places.week);
  const workspace = useWorkspace();
  const narrow = useNarrow();
  const touch = useTouch();
  const nowMs = useMinute();
  const calendars = useCalendars(nowMs);
  const plan = useWeekPlan(nowMs, calendars);
  const views = useAllViews();
  const names = useNames(views);
  const [search, setSearch] = useAddress();
  const zone = ownZone();
  const today = dayOf(nowMs, zone);
  const asked = search.get('week');
  const thisWeek = narrow ? today : mondayOf(today);
  const first = asked !== null && /^\d{4}-\d\d-\d\d$/.test(asked) ? asked : thisWeek;
  const [opened, setOpened] = useState<PlacedBlock | null>(null);
  useUndoKey(
    () => void undoAndTell(workspace, WEEK_SCOPE),
    () => void redoAndTell(workspace, WEEK_SCOPE),
  );
  const show = (week: string) => {
    const others = Object.fromEntries([...search].filter(([name]) => name !== 'week'));
    setSearch(week === thisWeek ? others : { ...others, week });
  };
  const days = plan === null ? [] : daysFrom(first, DAYS, zone, plan);
  const dues = useMemo(() => duesOf(views), [views]);
  const at = (day: string) => instantOf(Date.parse(`${day}T12:00:00Z`));
  const move = (block: PlacedBlock, from: number, to: number) => {
    if (plan === null) return;
    const reason = reasonNotThen(block, { from, to }, plan, nowMs, names);
    if (reason !== null) toast.error(reason);
    else void setBlock(workspace, block, { from, to });
  };
  const minutes = search.get('minutes');
  const little = (
    <FirstThing
      names={names}
      minutes={Number(minutes ?? NaN)}
      onMinutes={(next) => setSearch({ ...Object.fromEntries(search), minutes: String(next) })}
    />
  );
  // Where there is one column, what was asked for stands at its top.
  const comesFirst = narrow && minutes !== null;
  return (
    <div className="mx-auto grid max-w-[90rem] grid-cols-1 gap-x-8 gap-y-6 p-6 max-md:p-4 lg:grid-cols-[minmax(0,1fr)_19rem]">
      <section className="min-w-0">
        {comesFirst && <div className="mb-6">{little}</div>}
        <div className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1">
          <h1 className="font-serif text-xl font-semibold">{words.week.title}</h1>
          <p className="text-quiet">
            {words.week.range(shownDay(at(first), 'UTC'), shownDay(at(dayAfter(first, DAYS - 1)), 'UTC'))}
          </p>
          <span className="ml-auto flex items-center gap-1">
            <Button look="quiet" aria-label={words.week.before} onClick={() => show(dayAfter(first, -DAYS))}>
              <ChevronLeft size={18} aria-hidden />
            </Button>
            <Button look="quiet" disabled={first === thisWeek} onClick={() => show(thisWeek)}>
              {words.week.now}
            </Button>
            <Button look="quiet" aria-label={words.week.next} onClick={() => show(dayAfter(first, DAYS))}>
              <ChevronRight size={18} aria-hidden />
            </Button>
          </span>
        </div>
        {plan === null ? (
          <p role="status" className="text-quiet">
            {words.week.planning}
          </p>
        ) : (
          <>
            <Unplaced unplaced={plan.unplaced} names={names} />
            {plan.blocks.length === 0 && plan.unplaced.length === 0 && (
              <div className="mb-3">
                <Empty>{words.week.empty}</Empty>
              </div>
            )}
            {narrow ? (
              <WeekList days={days} dues={dues} names={names} today={today} onOpen={setOpened} />
            ) : (
              <WeekGrid
                days={days}
                dues={dues}
                names={names}
                nowMs={nowMs}
                today={today}
                onOpen={setOpened}
                onMove={move}
              />
            )}
            <div className="mt-2 flex flex-wrap items-center justify-between gap-3">
              <p className="text-sm text-quiet">{touch || narrow ? words.week.hintTouch : words.week.hint}</p>
              <ExportButton plan={plan} names={names} />
            </div>
          </>
        )}
      </section>
      <aside className="grid grid-cols-1 content-start gap-7">
        {!comesFirst && little}
        <FreeHours />
        <Calendars calendars={calendars} />
      </aside>
      {opened !== null && plan !== null && (
        <BlockDialog block={opened} plan={plan} names={names} nowMs={nowMs} onClose={() => setOpened(null)} />
      )}
    </div>
  );
}

/** When an assignment is due, or closes. */
export interface Due {
  readonly view: AssignmentView;
  readonly atMs: number;
  readonly kind: 'due' | 'closes';
}

function duesOf(views: readonly AssignmentView[]): Due[] {
  return views.flatMap((view): Due[] => {
    const until = takenUntil(view);
    if (until === null || view.state.kind === 'finished' || view.state.kind === 'excused') return [];
    return [{ view, atMs: until, kind: view.attempts.length === 0 ? 'due' : 'closes' }];
  });
}

function useNames(views: readonly AssignmentView[]): Names {
  return useMemo(() => {
    const viewByTask = new Map(
      views.flatMap((view) => view.tasks.map(({ task }) => [task.id as string, { view, task }] as const)),
    );
    return { viewByTask };
  }, [views]);
}

/** Gives the blocks to a calendar. */
function ExportButton({ plan, names }: { plan: WeekPlan; names: Names }) {
  const workspace = useWorkspace();
  const save = async () => {
    const known = settingIn(workspace.records.settings, 'calendarGiven')?.blocks ?? [];
    const {
      blocks,
      gone,
      known: next,
    } = blocksToGive(known, plan.blocks, (block) => titleOfBlock(block, names), workspace.nowMs());
    const byUid = new Map(blocks.map((given, index) => [given.uid, plan.blocks[index]]));
    const says = ({ uid }: { readonly uid: string }) => {
      const block = byUid.get(uid);
      return block === undefined ? '' : tasksOfBlock(block, names).join('\n');
    };
    const { writeCalendar } = await import('#formats/calendar/write-calendar.ts');
    const text = writeCalendar(words.week.calendarName, blocks, gone, says, workspace.now());
    offerFile('juncture-week.ics', new TextEncoder().encode(text), 'text/calendar');
    await keepGiven(workspace, next);
    toast.success(words.week.exported('juncture-week.ics'));
  };
  return (
    <Button disabled={plan.blocks.length === 0} onClick={() => void save()}>
      {words.week.export}
    </Button>
  );
}

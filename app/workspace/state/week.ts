import { useEffect, useMemo, useState } from 'react';
import { minutesSpent, weekJobs } from '#core/assignment/jobs.ts';
import {
  FREE_WEEK,
  freeSpans,
  MARGIN_HOURS,
  dayAfter,
  dayOf,
  momentOf,
  type FreeWeek,
} from '#core/plan/free-hours.ts';
import type { Placement } from '#core/plan/place.ts';
import type { Span } from '#core/plan/spans.ts';
import type { StoredFile } from '#core/model/work.ts';
import type { BusySpan, BusyTimes } from '#formats/calendar/read-calendar.ts';
import { ownZone } from '../../shared/shown/own-zone.ts';
import { planner, reader } from '../../workers/clients.ts';
import type { ReadResult } from '../../workers/protocol.ts';
import { useAnswer } from '../../shared/page/answer.ts';
import { useWorkspace, useWorkspaceState } from '../use-workspace.ts';
import type { Workspace } from '../workspace.ts';
import { useSetting } from './settings.ts';
import { useAllViews } from './use-views.ts';

/** The work of all assignments, placed in the student's free time. */

const HOUR_MS = 3_600_000;
/** So far is looked ahead at least and at most, and so far beyond what is due last. */
const LEAST_DAYS = 28;
const MOST_DAYS = 200;
const DAYS_BEYOND = 14;

/** A calendar that the student gave, and what was read of it. */
export interface BusyCalendar {
  readonly file: StoredFile;
  /** null while it is read. */
  readonly read: ReadResult<BusyTimes> | null;
}

export interface WeekPlan extends Placement {
  /** What is shown as free: also what is past of today. */
  readonly free: readonly Span[];
  readonly busy: readonly BusySpan[];
}

/** What the time that can be worked in is made of. */
export interface TimeSettings {
  readonly week: FreeWeek;
  /** Whether the student said so. */
  readonly isOwn: boolean;
  readonly marginHours: number;
}

export function useTimeSettings(): TimeSettings {
  const hours = useSetting('freeHours');
  const margin = useSetting('margin');
  return {
    week: hours?.week ?? FREE_WEEK,
    isOwn: hours !== null,
    marginHours: margin?.hours ?? MARGIN_HOURS,
  };
}

/** The time, ms since 1970, renewed with every minute. */
export function useMinute(): number {
  const workspace = useWorkspace();
  const atMs = useWorkspaceState((state) => state.atMs);
  const [ms, setMs] = useState(() => workspace.nowMs());
  useEffect(() => {
    const renew = () => setMs(Math.floor(workspace.nowMs() / 60_000) * 60_000);
    renew();
    const timer = setInterval(renew, 15_000);
    return () => clearInterval(timer);
  }, [workspace, atMs]);
  return ms;
}

/** Whole minutes spent on each task, of what is over. */
export function useSpent(): ReadonlyMap<string, number> {
  const spells = useWorkspaceState(({ records }) => records.spells);
  // What goes on is counted once it is over, so that nothing moves under one's hands.
  return useMemo(
    () =>
      minutesSpent(
        [...spells.values()].filter(({ to }) => to !== null),
        0,
      ),
    [spells],
  );
}

/** The days that are planned: from the start of today. */
function useRange(nowMs: number): Span {
  const views = useAllViews();
  const zone = ownZone();
  const today = dayOf(nowMs, zone);
  const last = useMemo(
    () =>
      Math.max(
        0,
        ...views.flatMap(({ assignment: { dueAt, extendedTo, closesAt } }) =>
          [dueAt, extendedTo, closesAt].flatMap((at) => (at === null ? [] : Date.parse(at))),
        ),
      ),
    [views],
  );
  return useMemo(() => {
    const from = momentOf(today, '00:00', zone);
    const days = Math.ceil((last - from) / (24 * HOUR_MS)) + DAYS_BEYOND;
    const to = momentOf(dayAfter(today, Math.min(MOST_DAYS, Math.max(LEAST_DAYS, days))), '00:00', zone);
    return { from, to };
  }, [last, today, zone]);
}

/** What was read of calendars, by what was asked. */
const reads = new Map<string, Promise<ReadResult<BusyTimes>>>();

function readCalendar(workspace: Workspace, hash: string, within: Span): Promise<ReadResult<BusyTimes>> {
  const zone = ownZone();
  const key = [workspace.name, hash, within.from, within.to, zone].join(' ');
  const known = reads.get(key);
  if (known !== undefined) return known;
  const asked = (async (): Promise<ReadResult<BusyTimes>> => {
    const bytes = await workspace.fileBytes(hash);
    if (bytes === null) return { kind: 'unreadable', reason: 'empty', detail: '' };
    return reader.ask((worker) => worker.readCalendar(bytes, within, zone));
  })();
  reads.set(key, asked);
  return asked;
}

/** The calendars that the student gave, in the order in which they came. */
export function useCalendars(nowMs: number): readonly BusyCalendar[] {
  const workspace = useWorkspace();
  const files = useWorkspaceState(({ records }) => records.files);
  const within = useRange(nowMs);
  const calendars = useMemo(() => [...files.values()].filter(({ role }) => role === 'calendar'), [files]);
  const [read, setRead] = useState<ReadonlyMap<string, ReadResult<BusyTimes>>>(new Map());
  useEffect(() => {
    let isWanted = true;
    for (const { hash } of calendars)
      workspace.inBackground(async () => {
        const result = await readCalendar(workspace, hash, within);
        if (isWanted) setRead((before) => new Map(before).set(hash, result));
      });
    return () => {
      isWanted = false;
    };
  }, [workspace, calendars, within]);
  return useMemo(
    () => calendars.map((file) => ({ file, read: read.get(file.hash) ?? null })),
    [calendars, read],
  );
}

/** The blocks of all assignments; null until they were first worked out. What was before stands until the next comes. */
export function useWeekPlan(nowMs: number, calendars: readonly BusyCalendar[]): WeekPlan | null {
  const views = useAllViews();
  const { planTimes, blocks } = useWorkspaceState(({ records }) => records);
  const { week, marginHours } = useTimeSettings();
  const spent = useSpent();
  const within = useRange(nowMs);
  const busy = useMemo(
    () => calendars.flatMap(({ read }) => (read?.kind === 'read' ? read.value.spans : [])),
    [calendars],
  );
  const isRead = calendars.every(({ read }) => read !== null);
  const free = useMemo(() => freeSpans(week, ownZone(), within, busy), [week, within, busy]);
  const question = useMemo(() => {
    if (!isRead) return null;
    const jobs = weekJobs(
      views,
      (id) => planTimes.get(id)?.minutes ?? null,
      spent,
      marginHours * HOUR_MS,
      nowMs,
    );
    const owner = new Map(
      jobs.flatMap(({ assignmentId, tasks }) => tasks.map(({ id }) => [id, assignmentId] as const)),
    );
    const pinned = [...blocks.values()].map(({ id, taskIds, from, to }) => ({
      id,
      assignmentId: taskIds.map((one) => owner.get(one)).find((one) => one !== undefined) ?? '',
      taskIds,
      from: Date.parse(from),
      to: Date.parse(to),
    }));
    return [jobs, free, pinned, within.from, nowMs] as const;
  }, [isRead, views, planTimes, spent, blocks, marginHours, nowMs, free, within]);
  const placed = useAnswer<Placement>(question, () => {
    if (question === null) throw new Error('nothing is asked');
    return planner.ask((worker) => worker.placeWeek(...question), { latestOf: 'week' });
  });
  return useMemo(() => (placed === null ? null : { ...placed, free, busy }), [placed, free, busy]);
}

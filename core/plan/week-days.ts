import { dayAfter, dayOf, momentOf, weekdayOf } from './free-hours.ts';
import type { PlacedBlock } from './place.ts';
import type { Span } from './spans.ts';

/** The days of a calendar week. */

/** A day with what is on it. */
export interface WeekDay<Busy extends Span = Span> {
  /** YYYY-MM-DD. */
  readonly day: string;
  readonly span: Span;
  readonly blocks: readonly PlacedBlock[];
  readonly free: readonly Span[];
  readonly busy: readonly Busy[];
}

/** The Monday of the week that a day is in. */
export function mondayOf(day: string): string {
  return dayAfter(day, -weekdayOf(day));
}

/** Days one after the other, each with what of the time is on it. */
export function daysFrom<Busy extends Span>(
  first: string,
  count: number,
  zone: string,
  on: {
    readonly blocks: readonly PlacedBlock[];
    readonly free: readonly Span[];
    readonly busy: readonly Busy[];
  },
): WeekDay<Busy>[] {
  return Array.from({ length: count }, (_, index) => {
    const day = dayAfter(first, index);
    const span = { from: momentOf(day, '00:00', zone), to: momentOf(day, '24:00', zone) };
    const isOn = ({ from, to }: Span) => from < span.to && span.from < to;
    return {
      day,
      span,
      blocks: on.blocks.filter(({ from }) => from >= span.from && from < span.to),
      free: on.free.filter(isOn),
      busy: on.busy.filter(isOn),
    };
  });
}

/** The least and the most of a day's hours that are drawn, where nothing is outside them. */
const LEAST_HOURS: readonly [number, number] = [9, 20];

/** The whole hours of the day from the first to the last that anything but busy times is at. */
export function hoursDrawn(days: readonly WeekDay[], zone: string): readonly [from: number, to: number] {
  let [first, last] = LEAST_HOURS;
  for (const { day, span, blocks, free } of days)
    for (const { from, to } of [...blocks, ...free]) {
      first = Math.min(first, Math.floor(minuteIn(Math.max(from, span.from), day, zone) / 60));
      last = Math.max(last, Math.ceil(minuteIn(Math.min(to, span.to), day, zone) / 60));
    }
  return [first, last];
}

/** The minute of a day as its clocks show it, at a moment on it; 1440 at its end. */
export function minuteIn(ms: number, day: string, zone: string): number {
  if (dayOf(ms, zone) > day) return 1440;
  const shown = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  }).format(ms);
  return Number(shown.slice(0, 2)) * 60 + Number(shown.slice(3, 5));
}

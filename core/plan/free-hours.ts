import { instantOf } from '../model/ids.ts';
import type { Hours } from '../model/work.ts';
import { instantOfWall, wallTimeOf } from '../model/zoned.ts';
import { merged, without, type Span } from './spans.ts';

/** Free hours of a week, from Monday to Sunday. */
export type FreeWeek = readonly (readonly Hours[])[];

/** What is taken for free until the student says: evenings, and more at the weekend. */
export const FREE_WEEK: FreeWeek = [
  ...Array.from({ length: 5 }, () => [{ from: '17:00', to: '20:00' }]),
  ...Array.from({ length: 2 }, () => [{ from: '10:00', to: '13:00' }]),
];

/** Hours before something is due by which all is to be done, until the student says. */
export const MARGIN_HOURS = 12;

/** The day that a clock in a zone shows, YYYY-MM-DD. */
export function dayOf(ms: number, zone: string): string {
  return wallTimeOf(instantOf(ms), zone).slice(0, 10);
}

/** So many days after a day, YYYY-MM-DD. */
export function dayAfter(day: string, days: number): string {
  return new Date(Date.parse(`${day}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);
}

/** The moment at which a clock in a zone shows a time of a day; 24:00 is the start of the next. ms since 1970. */
export function momentOf(day: string, clock: string, zone: string): number {
  const wall = clock === '24:00' ? `${dayAfter(day, 1)}T00:00` : `${day}T${clock}`;
  return Date.parse(instantOfWall(wall, zone) ?? '');
}

/** The weekday of a day, 0 Monday to 6 Sunday. */
export function weekdayOf(day: string): number {
  return (new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7;
}

/**
 * The free hours of a span of time, in order: those of the week as the clocks of a zone show them, also where they are put
 * forward or back, less the times at which the student is busy.
 */
export function freeSpans(week: FreeWeek, zone: string, within: Span, busy: readonly Span[]): Span[] {
  const free: Span[] = [];
  const last = dayOf(within.to, zone);
  for (let day = dayOf(within.from, zone); day <= last; day = dayAfter(day, 1))
    for (const { from, to } of week[weekdayOf(day)]) {
      const span = { from: momentOf(day, from, zone), to: momentOf(day, to, zone) };
      free.push({ from: Math.max(span.from, within.from), to: Math.min(span.to, within.to) });
    }
  return without(merged(free), busy);
}

import type { Instant } from '#core/model/ids.ts';

/** Dates and times as they are shown, in the zone of the course. */

/** Making a formatter takes far longer than using it, and long lists use them often. */
const formatters = new Map<string, Intl.DateTimeFormat>();

let language = 'en-GB';

/** In which language days and months are written from now on. */
export function setDateLanguage(tag: string): void {
  language = tag;
}

function formatter(
  what: 'day' | 'time',
  zone: string | undefined,
  options: Intl.DateTimeFormatOptions,
): Intl.DateTimeFormat {
  const key = `${language} ${what} ${zone ?? ''}`;
  const known = formatters.get(key);
  if (known !== undefined) return known;
  const made = new Intl.DateTimeFormat(language, { ...options, timeZone: zone });
  formatters.set(key, made);
  return made;
}

export function shownDay(at: Instant, zone: string | undefined): string {
  return formatter('day', zone, { weekday: 'short', day: 'numeric', month: 'short' })
    .format(new Date(at))
    .replace(',', '');
}

export function shownTime(at: Instant, zone: string | undefined): string {
  return formatter('time', zone, { hour: '2-digit', minute: '2-digit' }).format(new Date(at));
}

export function shownMoment(at: Instant, zone: string | undefined): string {
  return `${shownDay(at, zone)} ${shownTime(at, zone)}`;
}

/** Whole days from now until then. */
export function daysUntil(at: Instant, nowMs: number): number {
  return Math.max(0, Math.floor((Date.parse(at) - nowMs) / 86_400_000));
}

/** A share such as 0.85 as a percentage without needless places. */
export function shownPercent(share: string): string {
  return String(Math.round(Number(share) * 1000) / 10);
}

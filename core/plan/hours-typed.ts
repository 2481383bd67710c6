import type { Hours } from '../model/work.ts';
import { merged } from './spans.ts';

/** Hours of a day as people type them: "17:00-20:00", "9-12, 14–16:30"; null where they can't be told. */
export function hoursTyped(text: string): Hours[] | null {
  const parts = text
    .split(/[,;]/)
    .map((part) => part.trim())
    .filter((part) => part !== '');
  const spans: { from: number; to: number }[] = [];
  for (const part of parts) {
    const sides = part.split(/\s*(?:-|–|—|to)\s*/);
    const [from, to] = sides.map(minuteOfDay);
    if (sides.length !== 2 || from === null || to === null || to <= from) return null;
    spans.push({ from, to });
  }
  return merged(spans).map(({ from, to }) => ({ from: clockOf(from), to: clockOf(to) }));
}

/** Hours as they are typed. */
export function hoursShown(hours: readonly Hours[]): string {
  return hours.map(({ from, to }) => `${from}-${to}`).join(', ');
}

/** The minute of the day that a time names: "9", "9:30", "09.30", "24"; null for none. */
export function minuteOfDay(text: string): number | null {
  const found = /^(\d{1,2})(?:[:.](\d{2}))?$/.exec(text.trim());
  if (found === null) return null;
  const [, hour, past = '0'] = found;
  const minute = Number(hour) * 60 + Number(past);
  return Number(past) > 59 || minute > 1440 ? null : minute;
}

/** A minute of the day as clocks show it. */
export function clockOf(minute: number): string {
  const two = (n: number) => String(n).padStart(2, '0');
  return `${two(Math.floor(minute / 60))}:${two(minute % 60)}`;
}

/** A task takes no longer than a day: what does is several tasks. */
export const MOST_MINUTES = 24 * 60;

/** Hours and minutes in one: 1:30. */
const CLOCK = /^(\d+):([0-5]?\d)$/;
/** Hours, minutes, or both: 1 h, 1.5 hours, 90 min, 1 h 30. */
const UNITS = /^(?:(\d+(?:[.,]\d+)?)\s*h(?:ours?|rs?|\.)?)?\s*(?:(\d+)\s*(?:m(?:in(?:ute)?s?)?\.?)?)?$/i;

/**
 * Minutes as they are typed: a number of them, or hours and minutes in one of their usual forms.
 * @returns whole minutes from 1 to a day; null for what is none, or out of that
 */
export function minutesIn(text: string): number | null {
  const typed = text.trim();
  const clock = CLOCK.exec(typed);
  const units = UNITS.exec(typed);
  const minutes =
    clock !== null
      ? Number(clock[1]) * 60 + Number(clock[2])
      : units === null || typed === ''
        ? NaN
        : Math.round(Number((units.at(1) ?? '0').replace(',', '.')) * 60) + Number(units.at(2) ?? 0);
  return minutes >= 1 && minutes <= MOST_MINUTES ? minutes : null;
}

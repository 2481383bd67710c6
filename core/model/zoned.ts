import { instantOf, type Instant } from './ids.ts';

/** Times as clocks on the wall show them in a zone. */

/** What a clock in `zone` (IANA) shows, as YYYY-MM-DDTHH:MM. */
export function wallTimeOf(instant: Instant, zone: string): string {
  return wallOf(Date.parse(instant), zone);
}

/** Making one takes far longer than using it. */
const clocks = new Map<string, Intl.DateTimeFormat>();

function clockOf(zone: string): Intl.DateTimeFormat {
  const known = clocks.get(zone);
  if (known !== undefined) return known;
  const clock = new Intl.DateTimeFormat('sv-SE', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
  });
  clocks.set(zone, clock);
  return clock;
}

function wallOf(ms: number, zone: string): string {
  return clockOf(zone).format(ms).replace(' ', 'T');
}

/**
 * The moment at which a clock in `zone` shows `wall` (YYYY-MM-DDTHH:MM). Of a time that the clocks show twice the first; one
 * that they leap over counts from before the leap. null where it is no time.
 */
export function instantOfWall(wall: string, zone: string): Instant | null {
  if (!/^\d{4}-\d\d-\d\dT\d\d:\d\d$/.test(wall)) return null;
  const asUtc = Date.parse(`${wall}:00.000Z`);
  if (Number.isNaN(asUtc) || new Date(asUtc).toISOString().slice(0, 16) !== wall) return null;
  const offsetAt = (ms: number) =>
    Date.parse(`${wallOf(ms, zone)}:00.000Z`) - Math.floor(ms / 60_000) * 60_000;
  const day = 86_400_000;
  const tries = [offsetAt(asUtc - day), offsetAt(asUtc + day)].map((offset) => asUtc - offset);
  const right = tries.filter((ms) => wallOf(ms, zone) === wall);
  return instantOf(right.length > 0 ? Math.min(...right) : tries[0]);
}

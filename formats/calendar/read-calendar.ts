import ICAL from 'ical.js';
import { instantOf } from '#core/model/ids.ts';
import { instantOfWall, wallTimeOf } from '#core/model/zoned.ts';
import type { Span } from '#core/plan/spans.ts';
import { UnreadableFile } from '../unreadable.ts';

/** When somebody is busy, out of a calendar file (RFC 5545). */

/** An event at the times that it takes. */
export interface BusySpan extends Span {
  readonly title: string;
}

/** An event that could not be used. */
interface CalendarFault {
  /** What it is called, or the number of its line where it has no name. */
  readonly event: string;
  readonly problem: 'broken' | 'unknown zone' | 'no start' | 'repeats too often';
  /** The line, or the zone. */
  readonly detail: string;
}

/** What was read of a calendar. */
export interface BusyTimes {
  /** By time. */
  readonly spans: readonly BusySpan[];
  readonly events: number;
  /** Events of whole days: nobody is busy at them unless the file says so. */
  readonly wholeDays: number;
  readonly faults: readonly CalendarFault[];
}

/** An event that repeats more often than this within what is read is no appointment. */
const MOST_REPEATS = 40_000;

/**
 * The times of a calendar's events within a span of time. Events that are marked as free or cancelled take none. Bad events
 * are told, and the others used.
 * @param zone of times that name none
 * @throws UnreadableFile for a file that is no calendar
 */
export function readBusyTimes(text: string, within: Span, zone: string): BusyTimes {
  const { events, zones } = componentsOf(text);
  const times = new Zones(zones, zone);
  const faults: CalendarFault[] = [];
  const read: ReadEvent[] = [];
  let wholeDays = 0;
  for (const piece of events) {
    try {
      const event = eventOf(piece, times);
      if (event.isWholeDay && !event.isOpaque) wholeDays++;
      else read.push(event);
    } catch (error) {
      if (!(error instanceof BadEvent)) throw error;
      faults.push({ event: nameIn(piece), problem: error.problem, detail: error.detail });
    }
  }
  const spans: BusySpan[] = [];
  const moved = new Map<string, Set<number>>();
  for (const { uid, replaces } of read)
    if (replaces !== null) moved.set(uid, (moved.get(uid) ?? new Set()).add(replaces));
  for (const event of read) {
    if (!event.takesTime) continue;
    try {
      const gone = event.replaces === null ? moved.get(event.uid) : undefined;
      for (const from of startsOf(event, within, times)) {
        if (gone?.has(from) === true) continue;
        const to = from + event.lengthMs;
        if (to > within.from && from < within.to) spans.push({ from, to, title: event.title });
      }
    } catch (error) {
      if (!(error instanceof BadEvent)) throw error;
      faults.push({ event: event.title, problem: error.problem, detail: error.detail });
    }
  }
  return {
    spans: spans.sort((x, y) => x.from - y.from || x.to - y.to),
    events: events.length,
    wholeDays,
    faults,
  };
}

class BadEvent extends Error {
  constructor(
    readonly problem: CalendarFault['problem'],
    readonly detail: string,
  ) {
    super(problem);
  }
}

/** A component of the file as its lines, unfolded. */
interface Piece {
  /** From 1. */
  readonly line: number;
  readonly lines: readonly string[];
}

/** Each event and zone by itself, so that a line that is broken spoils only its own. */
function componentsOf(text: string): { events: Piece[]; zones: Piece[] } {
  const events: Piece[] = [];
  const zones: Piece[] = [];
  let isCalendar = false;
  let open: { name: string; line: number; lines: string[] } | null = null;
  for (const { line, content } of unfolded(text)) {
    const upper = content.toUpperCase().trim();
    if (upper === 'BEGIN:VCALENDAR') isCalendar = true;
    if (open === null) {
      if (upper === 'BEGIN:VEVENT' || upper === 'BEGIN:VTIMEZONE')
        open = { name: upper.slice(6), line, lines: [content] };
      continue;
    }
    // What was never closed ends where the next begins.
    if (upper === `BEGIN:${open.name}`) {
      (open.name === 'VEVENT' ? events : zones).push({ ...open, lines: [...open.lines, `END:${open.name}`] });
      open = { name: open.name, line, lines: [content] };
      continue;
    }
    open.lines.push(content);
    if (upper !== `END:${open.name}`) continue;
    (open.name === 'VEVENT' ? events : zones).push(open);
    open = null;
  }
  if (!isCalendar) throw new UnreadableFile('not a calendar');
  if (open !== null && open.name === 'VEVENT') events.push({ ...open, lines: [...open.lines, 'END:VEVENT'] });
  return { events, zones };
}

function* unfolded(text: string): Generator<{ line: number; content: string }> {
  let content = '';
  let line = 1;
  let start = 1;
  for (const raw of text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/)) {
    if (/^[ \t]/.test(raw)) content += raw.slice(1);
    else {
      if (content !== '') yield { line: start, content };
      content = raw;
      start = line;
    }
    line++;
  }
  if (content !== '') yield { line: start, content };
}

function parsed(piece: Piece): ICAL.Component {
  const lines = ['BEGIN:VCALENDAR', ...piece.lines, 'END:VCALENDAR'];
  try {
    const calendar = new ICAL.Component(ICAL.parse(lines.join('\r\n')) as unknown[]);
    const [inner] = calendar.getAllSubcomponents();
    return inner;
  } catch (error) {
    // The library tells of a bad line by errors of its own, and of bad values by whatever they run into.
    if (!(error instanceof Error)) throw error;
    throw new BadEvent('broken', error.message);
  }
}

/** What an event is called, found without understanding it. */
function nameIn({ lines, line }: Piece): string {
  const said = lines.find((one) => /^SUMMARY[;:]/i.test(one));
  return said === undefined ? String(line) : said.slice(said.indexOf(':') + 1).replace(/\\([,;\\])/g, '$1');
}

/** Zones by their name, as the file or the computer knows them. */
class Zones {
  /** As the file tells them. */
  private readonly byName = new Map<string, ICAL.Timezone>();
  /** What names are known as everywhere. */
  private readonly common = new Map<string, string>();

  constructor(
    pieces: readonly Piece[],
    private readonly own: string,
  ) {
    for (const piece of pieces) {
      try {
        const zone = new ICAL.Timezone(parsed(piece));
        // A place's own name is surer than rules that may hold for a year or two; "GMT" may be called what is none.
        if (!(zone.tzid.includes('/') && isZone(zone.tzid))) this.byName.set(zone.tzid, zone);
      } catch (error) {
        // Events in it tell of it.
        if (!(error instanceof BadEvent)) throw error;
      }
    }
  }

  /**
   * ms since 1970.
   * @param tzid the zone that the time itself names; null: none
   * @param otherwise that of the event it belongs to
   */
  msOf(time: ICAL.Time, tzid: string | null, otherwise: string | null = null): number {
    // The library takes some names for the world's time that the file may mean otherwise.
    if (tzid === null && time.zone === ICAL.Timezone.utcTimezone) return time.toUnixTime() * 1000;
    const name = tzid ?? otherwise;
    const zone = name === null ? this.own : this.named(name);
    if (typeof zone === 'string') {
      const two = (n: number) => String(n).padStart(2, '0');
      const day = `${String(time.year).padStart(4, '0')}-${two(time.month)}-${two(time.day)}`;
      const at = instantOfWall(`${day}T${two(time.hour)}:${two(time.minute)}`, zone);
      if (at === null) throw new BadEvent('broken', time.toString());
      return Date.parse(at) + time.second * 1000;
    }
    const zoned = time.clone();
    zoned.zone = zone;
    return zoned.toUnixTime() * 1000;
  }

  /** The day that clocks of an event's zone show, YYYY-MM-DD. */
  dayOf(ms: number, tzid: string | null): string {
    const zone = tzid === null ? this.own : this.named(tzid);
    if (typeof zone === 'string') return wallTimeOf(instantOf(ms), zone).slice(0, 10);
    const utc = ICAL.Time.fromJSDate(new Date(ms), true);
    return utc.convertToZone(zone).toString().slice(0, 10);
  }

  /** The last moment that a rule's end takes in: a day is meant with all of it. */
  endOf(until: ICAL.Time, tzid: string | null): number {
    return this.msOf(until, null, tzid) + (until.isDate ? 86_400_000 - 1 : 0);
  }

  private named(tzid: string): ICAL.Timezone | string {
    const known = this.common.get(tzid) ?? this.byName.get(tzid);
    if (known !== undefined) return known;
    // Names such as /example.org/Europe/Oslo end in the common one.
    const common = [tzid, tzid.split('/').slice(-2).join('/')].find((name) => isZone(name));
    if (common !== undefined) {
      this.common.set(tzid, common);
      return common;
    }
    throw new BadEvent('unknown zone', tzid);
  }
}

function isZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch (error) {
    if (error instanceof RangeError) return false;
    throw error;
  }
}

interface ReadEvent {
  readonly uid: string;
  readonly title: string;
  readonly start: ICAL.Time;
  readonly tzid: string | null;
  readonly lengthMs: number;
  readonly isWholeDay: boolean;
  /** It says by itself that one is busy. */
  readonly isOpaque: boolean;
  readonly takesTime: boolean;
  /** The start of the occurrence of another event that it stands for; null for one of its own. */
  readonly replaces: number | null;
  readonly component: ICAL.Component;
}

function tzidOf(property: ICAL.Property): string | null {
  const tzid = property.getParameter('tzid');
  return typeof tzid === 'string' ? tzid : null;
}

function timeOf(property: ICAL.Property | null): ICAL.Time | null {
  const value: unknown = property?.getFirstValue() ?? null;
  return value instanceof ICAL.Time ? value : null;
}

function eventOf(piece: Piece, zones: Zones): ReadEvent {
  const component = parsed(piece);
  const property = component.getFirstProperty('dtstart');
  const start = timeOf(property);
  if (property === null || start === null) throw new BadEvent('no start', String(piece.line));
  const tzid = tzidOf(property);
  const from = zones.msOf(start, tzid);
  const text = (name: string) => {
    const value: unknown = component.getFirstPropertyValue(name);
    return typeof value === 'string' ? value : '';
  };
  const isOpaque = text('transp').toUpperCase() === 'OPAQUE';
  const recurrence = component.getFirstProperty('recurrence-id');
  const replaced = timeOf(recurrence);
  return {
    uid: text('uid') || `line ${piece.line}`,
    title: text('summary'),
    start,
    tzid,
    lengthMs: lengthOf(component, start, from, zones),
    isWholeDay: start.isDate,
    isOpaque,
    takesTime: text('transp').toUpperCase() !== 'TRANSPARENT' && text('status').toUpperCase() !== 'CANCELLED',
    replaces:
      recurrence === null || replaced === null ? null : zones.msOf(replaced, tzidOf(recurrence), tzid),
    component,
  };
}

function lengthOf(component: ICAL.Component, start: ICAL.Time, from: number, zones: Zones): number {
  const end = component.getFirstProperty('dtend');
  const endTime = timeOf(end);
  if (end !== null && endTime !== null) return Math.max(0, zones.msOf(endTime, tzidOf(end)) - from);
  const duration: unknown = component.getFirstPropertyValue('duration');
  if (duration instanceof ICAL.Duration) return Math.max(0, duration.toSeconds() * 1000);
  return start.isDate ? 86_400_000 : 0;
}

/** When an event begins, each time that it may reach into a span; ms since 1970. */
function startsOf(event: ReadEvent, within: Span, zones: Zones): Set<number> {
  const { component, start, tzid } = event;
  const starts = new Set([zones.msOf(start, tzid)]);
  if (event.replaces !== null) return starts;
  for (const property of component.getAllProperties('rrule')) repeat(event, property, within, zones, starts);
  for (const property of component.getAllProperties('rdate'))
    for (const value of property.getValues() as unknown[]) {
      const time = value instanceof ICAL.Period ? value.start : value;
      if (time instanceof ICAL.Time) starts.add(zones.msOf(time, tzidOf(property), tzid));
    }
  const days = new Set<string>();
  for (const property of component.getAllProperties('exdate'))
    for (const value of property.getValues() as unknown[]) {
      if (!(value instanceof ICAL.Time)) continue;
      if (value.isDate && !start.isDate) days.add(value.toString());
      else starts.delete(zones.msOf(value, tzidOf(property), tzid));
    }
  if (days.size > 0) for (const ms of starts) if (days.has(zones.dayOf(ms, tzid))) starts.delete(ms);
  return starts;
}

function repeat(
  { start, tzid, lengthMs, title }: ReadEvent,
  property: ICAL.Property,
  within: Span,
  zones: Zones,
  starts: Set<number>,
): void {
  const rule: unknown = property.getFirstValue();
  if (!(rule instanceof ICAL.Recur)) throw new BadEvent('broken', property.toICALString());
  // The end is told in the world's time, and the clock that the rule goes by is another one.
  const until = rule.until === null ? Infinity : zones.endOf(rule.until, tzid);
  const open = rule.clone();
  open.until = null;
  const wall = start.clone();
  wall.zone = ICAL.Timezone.localTimezone;
  const times = open.iterator(wall);
  for (let n = 0; ; n++) {
    if (n > MOST_REPEATS) throw new BadEvent('repeats too often', title);
    const next = times.next() as ICAL.Time | null;
    if (next === null) return;
    const time = next.clone();
    if (start.zone === ICAL.Timezone.utcTimezone) time.zone = ICAL.Timezone.utcTimezone;
    const ms = zones.msOf(time, tzid);
    if (ms > until || ms >= within.to) return;
    if (ms + lengthMs > within.from) starts.add(ms);
  }
}

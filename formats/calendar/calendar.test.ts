import ICAL from 'ical.js';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import * as v from 'valibot';
import { asId, Instant } from '#core/model/ids.ts';
import type { GivenBlock } from '#core/plan/given.ts';
import { UnreadableFile } from '../unreadable.ts';
import { readBusyTimes } from './read-calendar.ts';
import { writeCalendar } from './write-calendar.ts';

const sample = (name: string) => readFileSync(new URL(`./samples/${name}`, import.meta.url), 'utf8');
const Truth = v.object({
  from: v.number(),
  to: v.number(),
  zone: v.string(),
  occurrences: v.record(v.string(), v.array(v.tuple([v.number(), v.number(), v.string()]))),
});
const truth = v.parse(v.pipe(v.string(), v.parseJson(), Truth), sample('occurrences.json'));
const within = { from: truth.from, to: truth.to };
const ZONE = truth.zone;

const calendarOf = (...lines: string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR'].join('\r\n');
const eventOf = (...lines: string[]) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT'];
const shown = (text: string) =>
  readBusyTimes(text, within, ZONE).spans.map(({ from, to, title }) => [
    new Date(from).toISOString().slice(0, 16),
    (to - from) / 60_000,
    title,
  ]);

describe('calendars made by other programs', () => {
  for (const [name, occurrences] of Object.entries(truth.occurrences))
    it(`takes the times of a year that an independent reader finds in one of ${name}`, () => {
      const { spans, faults } = readBusyTimes(sample(`${name}.ics`), within, ZONE);
      expect(faults).toEqual([]);
      const rows = spans.map(({ from, to, title }) => [from, to, title] as const);
      const key = ([from, to, title]: readonly [number, number, string]) => `${from} ${to} ${title}`;
      expect(rows.map(key).sort()).toEqual(occurrences.map(key).sort());
    });
});

describe('a calendar', () => {
  it('is read with times of no zone, of another zone, in the world’s, and told by how long', () => {
    expect(
      shown(
        calendarOf(
          ...eventOf('UID:1', 'SUMMARY:here', 'DTSTART:20270601T100000', 'DTEND:20270601T110000'),
          ...eventOf('UID:2', 'SUMMARY:there', 'DTSTART;TZID=Asia/Tokyo:20270602T100000', 'DURATION:PT90M'),
          ...eventOf('UID:3', 'SUMMARY:all', 'DTSTART:20270603T100000Z', 'DTEND:20270603T100500Z'),
          ...eventOf(
            'UID:4',
            'SUMMARY:named long',
            'DTSTART;TZID=/maker/Europe/Oslo:20270604T100000',
            'DURATION:PT1H',
          ),
        ),
      ),
    ).toEqual([
      ['2027-06-01T09:00', 60, 'here'],
      ['2027-06-02T01:00', 90, 'there'],
      ['2027-06-03T10:00', 5, 'all'],
      ['2027-06-04T08:00', 60, 'named long'],
    ]);
  });

  it('leaves out a time that is taken out by its day or in another zone', () => {
    const lines = ['DTSTART;TZID=Europe/London:20270601T100000', 'DURATION:PT1H', 'RRULE:FREQ=DAILY;COUNT=4'];
    const without = (exdate: string) =>
      shown(calendarOf(...eventOf('UID:1', 'SUMMARY:x', ...lines, exdate))).map(([from]) => from);
    const left = ['2027-06-01T09:00', '2027-06-03T09:00', '2027-06-04T09:00'];
    expect(without('EXDATE;VALUE=DATE:20270602')).toEqual(left);
    expect(without('EXDATE:20270602T090000Z')).toEqual(left);
    expect(without('EXDATE;TZID=Europe/Oslo:20270602T110000')).toEqual(left);
  });

  it('names bad events and uses the rest', () => {
    const { spans, faults, events, wholeDays } = readBusyTimes(
      calendarOf(
        ...eventOf('UID:1', 'SUMMARY:Good', 'DTSTART:20270601T100000', 'DTEND:20270601T110000'),
        ...eventOf('UID:2', 'SUMMARY:Torn', 'DTSTART:20270601T1000', 'this line has lost what it was'),
        ...eventOf(
          'UID:3',
          'SUMMARY:Nowhere\\, really',
          'DTSTART;TZID=Moon/Sea of Rain:20270601T100000',
          'DURATION:PT1H',
        ),
        ...eventOf('UID:4', 'SUMMARY:Whenever'),
        ...eventOf(
          'UID:5',
          'SUMMARY:Always',
          'DTSTART:20200601T100000',
          'DURATION:PT1S',
          'RRULE:FREQ=SECONDLY',
        ),
        'BEGIN:VEVENT',
        'UID:6',
        'SUMMARY:Never closed',
        'DTSTART:20270605T100000',
        'DTEND:20270605T110000',
        ...eventOf('UID:7', 'SUMMARY:A day', 'DTSTART;VALUE=DATE:20270607'),
        ...eventOf(
          'UID:8',
          'SUMMARY:Folded so that it',
          ' goes on',
          'DTSTART:20270608T100000',
          'DTEND:20270608T110000',
        ),
      ),
      within,
      ZONE,
    );
    expect(events).toBe(8);
    expect(wholeDays).toBe(1);
    expect(spans.map(({ title }) => title)).toEqual(['Good', 'Never closed', 'Folded so that itgoes on']);
    expect(faults.map(({ event, problem }) => [event, problem])).toEqual([
      ['Torn', 'broken'],
      ['Nowhere, really', 'unknown zone'],
      ['Whenever', 'no start'],
      ['Always', 'repeats too often'],
    ]);
  });

  it('of 50,000 events is read', () => {
    const many = Array.from({ length: 50_000 }, (_, n) =>
      eventOf(
        `UID:${n}`,
        `SUMMARY:No ${n}`,
        `DTSTART:2027${String((n % 12) + 1).padStart(2, '0')}${String((n % 28) + 1).padStart(2, '0')}T100000Z`,
        'DURATION:PT15M',
      ),
    );
    const { events, spans, faults } = readBusyTimes(calendarOf(many.flat().join('\r\n')), within, ZONE);
    expect([events, faults.length]).toEqual([50_000, 0]);
    expect(spans.length).toBeGreaterThan(30_000);
  });

  it('that is none is refused', () => {
    expect(() => readBusyTimes('Dear Ines,', within, ZONE)).toThrow(UnreadableFile);
  });
});

describe('the blocks of a plan as a calendar', () => {
  const given = (uid: string, title: string, sequence = 0): GivenBlock => ({
    uid,
    title,
    from: asId(Instant, '2027-06-01T16:00:00.000Z'),
    to: asId(Instant, '2027-06-01T16:45:00.000Z'),
    sequence,
    gone: false,
  });
  const text = writeCalendar(
    'Work on feedback',
    [
      given(
        'a/0',
        'Say which way it is likely to be wrong; give the two rises, and how far they reach – with their errors',
        2,
      ),
    ],
    [given('b/0', 'Gone', 1)],
    ({ title }) => `${title}\nand more`,
    asId(Instant, '2027-05-30T10:00:00.000Z'),
  );

  it('is read back by another library as it was written', () => {
    const events = new ICAL.Component(ICAL.parse(text) as unknown[])
      .getAllSubcomponents('vevent')
      .map((component) => ({ event: new ICAL.Event(component), component }));
    expect(
      events.map(({ event: { uid, summary, sequence, startDate, endDate }, component }) => [
        uid,
        summary,
        sequence,
        startDate.toJSDate().toISOString(),
        endDate.toJSDate().toISOString(),
        component.getFirstPropertyValue('status'),
        component.getAllSubcomponents('valarm').length,
      ]),
    ).toEqual([
      [
        'a/0',
        'Say which way it is likely to be wrong; give the two rises, and how far they reach – with their errors',
        2,
        '2027-06-01T16:00:00.000Z',
        '2027-06-01T16:45:00.000Z',
        'CONFIRMED',
        1,
      ],
      ['b/0', 'Gone', 1, '2027-06-01T16:00:00.000Z', '2027-06-01T16:45:00.000Z', 'CANCELLED', 0],
    ]);
    expect(events[0].event.description).toContain('errors\nand more');
    const alarm = events[0].component.getFirstSubcomponent('valarm');
    expect(String(alarm?.getFirstPropertyValue('trigger'))).toBe('-PT10M');
  });

  it('folds its lines at 75 octets and escapes what it must (RFC 5545, 3.1 and 3.3.11)', () => {
    const lines = text.split('\r\n');
    expect(Math.max(...lines.map((line) => new TextEncoder().encode(line).length))).toBeLessThanOrEqual(75);
    expect(text).not.toMatch(/[^\r]\n/);
    expect(text.replaceAll(/\r\n[ \t]/g, '')).toContain('wrong\\; give the two rises\\, and');
  });

  it('is taken for busy times as any other', () => {
    expect(shown(text).map(([from, minutes]) => [from, minutes])).toEqual([['2027-06-01T16:00', 45]]);
  });
});

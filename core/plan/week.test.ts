import { describe, expect, it } from 'vitest';
import { blocksToGive, type GivenBlock } from './given.ts';
import { clockOf, hoursShown, hoursTyped, minuteOfDay } from './hours-typed.ts';
import type { PlacedBlock } from './place.ts';
import { daysFrom, hoursDrawn, minuteIn, mondayOf } from './week-days.ts';
import { placeWeek, type WeekJob } from './week.ts';
import { whyNotThen } from './by-hand.ts';
import { momentOf } from './free-hours.ts';

const ZONE = 'Europe/London';
const at = (clock: string, day = '2026-11-09') => momentOf(day, clock, ZONE);
const free = [{ from: at('17:00'), to: at('20:00') }];
const task = (id: string, minutes: number, gain = 1) => ({ id, minutes, gain, needs: [], must: false });
const job = (tasks: WeekJob['tasks'], more: Partial<WeekJob> = {}): WeekJob => ({
  assignmentId: 'a',
  by: Infinity,
  tasks,
  spent: new Map(),
  minutes: null,
  ...more,
});
const dayStart = at('00:00');
const times = (blocks: readonly PlacedBlock[]) =>
  blocks.map(({ taskIds, from, to }) => [
    taskIds.join('+'),
    clockOf(minuteIn(from, '2026-11-09', ZONE)),
    clockOf(minuteIn(to, '2026-11-09', ZONE)),
  ]);

describe('the week', () => {
  it('stays as it is until a block was missed, and is placed anew from its end', () => {
    const jobs = [job([task('a', 30), task('b', 30)])];
    const on = (clock: string) => times(placeWeek(jobs, free, [], dayStart, at(clock)).blocks);
    const planned = [
      ['a', '17:00', '17:30'],
      ['b', '17:30', '18:00'],
    ];
    expect(on('08:00')).toEqual(planned);
    expect(on('17:29')).toEqual(planned);
    expect(on('17:30')).toEqual([
      ['a', '17:30', '18:00'],
      ['b', '18:00', '18:30'],
    ]);
    expect(on('19:10').map(([, from]) => from)).toEqual(['19:00', '19:30']);
  });

  it('places what the minutes there are buy, less what was spent', () => {
    const jobs = [job([task('a', 30, 1), task('b', 40, 9)], { minutes: 45, spent: new Map([['b', 20]]) })];
    expect(times(placeWeek(jobs, free, [], dayStart, at('08:00')).blocks)).toEqual([['b', '17:00', '17:20']]);
  });

  it('holds a block by hand until it is over', () => {
    const pinned = [{ id: 'p', assignmentId: 'a', taskIds: ['a'], from: at('19:00'), to: at('19:30') }];
    const on = (clock: string) =>
      times(placeWeek([job([task('a', 30)])], free, pinned, dayStart, at(clock)).blocks);
    expect(on('08:00')).toEqual([['a', '19:00', '19:30']]);
    expect(on('19:30')).toEqual([['a', '19:30', '20:00']]);
  });

  it('says why a block can’t be set to a time', () => {
    const block = (id: string, from: string, to: string, pinned: boolean): PlacedBlock => ({
      id,
      assignmentId: 'a',
      taskIds: [id],
      from: at(from),
      to: at(to),
      pinned,
    });
    const own = block('own', '17:00', '17:30', true);
    const set = block('set', '18:00', '18:30', true);
    const placed = block('placed', '18:30', '19:00', false);
    const why = (from: string, to: string) =>
      whyNotThen(
        own,
        { from: at(from), to: at(to) },
        [own, set, placed],
        [{ from: at('19:30'), to: at('20:00'), title: 'Choir' }],
        at('12:00'),
      );
    expect(why('11:00', '11:30')).toEqual({ kind: 'over' });
    expect(why('17:15', '18:15')).toEqual({ kind: 'taken', by: set });
    expect(why('19:45', '20:15')).toEqual({ kind: 'busy', title: 'Choir' });
    expect(why('17:10', '17:40')).toBeNull();
    expect(why('18:30', '19:00')).toBeNull();
  });

  it('is drawn by the hours that anything is at, on a day that clocks are put back on too', () => {
    const night = { from: at('00:30', '2026-10-25'), to: at('03:00', '2026-10-25') };
    const days = daysFrom(mondayOf('2026-10-25'), 7, ZONE, { blocks: [], free: [night], busy: [] });
    expect(days.map(({ day }) => day).at(0)).toBe('2026-10-19');
    expect(days.map((one) => one.free.length)).toEqual([0, 0, 0, 0, 0, 0, 1]);
    expect(days[6].span.to - days[6].span.from).toBe(25 * 3_600_000);
    expect(hoursDrawn(days, ZONE)).toEqual([0, 20]);
    expect(minuteIn(days[6].span.to, '2026-10-25', ZONE)).toBe(1440);
  });
});

describe('what a calendar is given', () => {
  const block = (taskIds: string[], from: string): PlacedBlock => ({
    id: from,
    assignmentId: 'a',
    taskIds,
    from: at(from),
    to: at(from) + 1_800_000,
    pinned: false,
  });
  it('keeps its ids, counts what changed, and cancels what is no more', () => {
    const title = ({ taskIds }: PlacedBlock) => taskIds.join();
    const give = (known: readonly GivenBlock[], blocks: readonly PlacedBlock[], clock: string) =>
      blocksToGive(known, blocks, title, at(clock));
    const told = (list: readonly GivenBlock[]) => list.map(({ uid, sequence }) => [uid, sequence]);
    const all = [block(['a'], '17:00'), block(['a'], '18:00'), block(['b'], '19:00')];
    const first = give([], all, '08:00');
    expect(told(first.blocks)).toEqual([
      ['a/0', 0],
      ['a/1', 0],
      ['b/0', 0],
    ]);
    const second = give(first.known, [block(['a'], '17:00'), block(['b'], '19:30')], '08:00');
    expect(told(second.blocks)).toEqual([
      ['a/0', 0],
      ['b/0', 1],
    ]);
    expect(told(second.gone)).toEqual([['a/1', 1]]);
    // Cancelled once; and when it comes again it counts on.
    const third = give(second.known, [block(['a'], '17:00')], '08:00');
    expect(told(third.gone)).toEqual([['b/0', 2]]);
    expect(told(give(third.known, all, '08:00').blocks)).toEqual([
      ['a/0', 0],
      ['a/1', 2],
      ['b/0', 3],
    ]);
    // What is over stays in the calendar as it was.
    expect(told(give(first.known, [], '18:45').gone)).toEqual([['b/0', 1]]);
  });
});

describe('hours as they are typed', () => {
  it('are read in the ways that people type them', () => {
    expect(hoursTyped('17:00-20:00')).toEqual([{ from: '17:00', to: '20:00' }]);
    expect(hoursTyped(' 14 – 16.30 , 9-12;')).toEqual([
      { from: '09:00', to: '12:00' },
      { from: '14:00', to: '16:30' },
    ]);
    expect(hoursTyped('22-24')).toEqual([{ from: '22:00', to: '24:00' }]);
    expect(hoursTyped('9-11, 10 to 12')).toEqual([{ from: '09:00', to: '12:00' }]);
    expect(hoursTyped('')).toEqual([]);
    expect(hoursShown(hoursTyped('9-12, 14-16') ?? [])).toBe('09:00-12:00, 14:00-16:00');
  });
  it('are refused where they make no sense', () => {
    for (const text of ['evenings', '20-17', '9', '9-25', '9:70-10', '24:30-25', '9-10-11'])
      expect([text, hoursTyped(text)]).toEqual([text, null]);
    expect(minuteOfDay('7')).toBe(420);
  });
});

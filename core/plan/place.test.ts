import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { freeSpans, FREE_WEEK, momentOf } from './free-hours.ts';
import { LEAST_MINUTES, place, type Job, type TaskBlock } from './place.ts';
import { merged, minutesIn, without, type Span } from './spans.ts';

const ZONE = 'Europe/London';
const at = (wall: string) => momentOf(wall.slice(0, 10), wall.slice(11), ZONE);
const MINUTE = 60_000;
const job = (tasks: readonly [string, number, string[]?][], by: number, assignmentId = 'a'): Job => ({
  assignmentId,
  by,
  tasks: tasks.map(([id, minutes, needs = []]) => ({ id, minutes, needs })),
});
const shown = ({ blocks }: ReturnType<typeof place>) =>
  blocks.map(({ taskIds, from, to }) => `${taskIds.join('+')} ${(to - from) / MINUTE}`);

describe('stretches of time', () => {
  const spans = fc.array(
    fc
      .tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 20 }))
      .map(([from, long]) => ({ from, to: from + long })),
    { maxLength: 12 },
  );
  const holds = (list: readonly Span[], t: number) => list.some(({ from, to }) => from <= t && t < to);

  it('are what each moment says, with none twice', () => {
    fc.assert(
      fc.property(spans, spans, (some, taken) => {
        const left = without(some, taken);
        for (let t = 0; t < 81; t++) expect(holds(left, t)).toBe(holds(some, t) && !holds(taken, t));
        for (const list of [left, merged(some)])
          for (const [index, { from, to }] of list.entries()) {
            expect(from).toBeLessThan(to);
            if (index > 0) expect(list[index - 1].to).toBeLessThan(from);
          }
      }),
    );
  });
});

describe('free hours', () => {
  it('are those of the clock on the wall when clocks are put back or forward', () => {
    // Put back on the last Sunday of October, forward on that of March: both nights have the hour.
    const night = [...FREE_WEEK.slice(0, 6), [{ from: '00:00', to: '03:00' }]];
    const day = (date: string) => ({ from: at(`${date}T00:00`), to: at(`${date}T23:59`) });
    expect(minutesIn(freeSpans(night, ZONE, day('2026-10-25'), []))).toBe(240);
    expect(minutesIn(freeSpans(night, ZONE, day('2027-03-28'), []))).toBe(120);
  });

  it('leave out when one is busy, and reach to the end of a day', () => {
    const late = FREE_WEEK.map(() => [{ from: '22:00', to: '24:00' }]);
    const within = { from: at('2026-11-09T00:00'), to: at('2026-11-11T00:00') };
    const busy = [{ from: at('2026-11-09T22:30'), to: at('2026-11-10T01:00') }];
    expect(freeSpans(late, ZONE, within, busy)).toEqual([
      { from: at('2026-11-09T22:00'), to: at('2026-11-09T22:30') },
      { from: at('2026-11-10T22:00'), to: at('2026-11-11T00:00') },
    ]);
  });
});

describe('placing tasks', () => {
  const evening = { from: at('2026-11-09T17:00'), to: at('2026-11-09T20:00') };

  it('fills free time in the order given, in blocks that are neither short nor long', () => {
    const placed = place(
      [
        job(
          [
            ['a', 200],
            ['b', 5],
            ['c', 10],
            ['d', 30],
          ],
          at('2026-11-12T00:00'),
        ),
      ],
      [evening, { from: at('2026-11-10T17:00'), to: at('2026-11-10T20:00') }],
      [],
      evening.from,
    );
    expect(shown(placed)).toEqual(['a 67', 'a 67', 'a 46', 'a 20', 'b+c+d 45']);
    expect(placed.unplaced).toEqual([]);
  });

  it('says what does not fit, and when it would', () => {
    const next = { from: at('2026-11-10T17:00'), to: at('2026-11-10T20:00') };
    const placed = place(
      [
        job(
          [
            ['a', 120],
            ['b', 90, ['a']],
            ['c', 60],
          ],
          evening.to,
        ),
      ],
      [evening, next],
      [],
      evening.from,
    );
    expect(shown(placed)).toEqual(['a 60', 'a 60', 'c 60']);
    expect(placed.unplaced).toEqual([
      { assignmentId: 'a', taskId: 'b', minutes: 90, fits: next.from + 90 * MINUTE },
    ]);
    const alone = place([job([['a', 500]], evening.to)], [evening], [], evening.from);
    expect(alone.unplaced.map(({ fits }) => fits)).toEqual([null]);
  });

  it('goes by what is due first, over assignments', () => {
    const later = job([['late', 60]], at('2026-11-20T00:00'), 'later');
    const sooner = job([['soon', 60]], evening.to, 'sooner');
    expect(shown(place([later, sooner], [evening], [], evening.from))).toEqual(['soon 60', 'late 60']);
  });

  it('starts late when one starts late', () => {
    const placed = place([job([['a', 30]], evening.to)], [evening], [], at('2026-11-09T18:07'));
    expect(placed.blocks[0].from).toBe(at('2026-11-09T18:07'));
  });

  const START = at('2026-10-23T00:00');
  const DAY = 86_400_000;
  const tasks = fc.array(
    fc.record({ minutes: fc.integer({ min: 1, max: 300 }), needs: fc.array(fc.nat(8), { maxLength: 2 }) }),
    { maxLength: 9 },
  );
  const plans = fc.record({
    jobs: fc.array(fc.record({ tasks, days: fc.integer({ min: 0, max: 9 }) }), {
      minLength: 1,
      maxLength: 4,
    }),
    pins: fc.array(fc.tuple(fc.nat(9 * 24), fc.integer({ min: 15, max: 90 }), fc.nat(3), fc.nat(8)), {
      maxLength: 5,
    }),
    busy: fc.array(fc.tuple(fc.nat(9 * 24), fc.integer({ min: 10, max: 600 })), { maxLength: 8 }),
    late: fc.nat(3 * 24 * 60),
  });

  it('never overlaps, never leaves the free time, keeps what is needed first and what was pinned, and is the same again', () => {
    fc.assert(
      fc.property(plans, ({ jobs: given, pins, busy, late }) => {
        const jobs = given.map(({ tasks: own, days }, j) => ({
          assignmentId: `a${j}`,
          by: START + days * DAY + 20 * 3_600_000,
          tasks: own.map(({ minutes, needs }, t) => ({
            id: `${j}-${t}`,
            minutes,
            // What it needs comes anywhere in the list, but never in a circle.
            needs: needs.filter((n) => n < own.length && (n * 5) % 9 < (t * 5) % 9).map((n) => `${j}-${n}`),
          })),
        }));
        const pinned: TaskBlock[] = [];
        for (const [hour, long, j, t] of pins) {
          const from = START + hour * 3_600_000;
          const to = from + long * MINUTE;
          if (
            j < jobs.length &&
            t < jobs[j].tasks.length &&
            pinned.every((p) => p.to <= from || to <= p.from)
          )
            pinned.push({
              id: `pin ${pinned.length}`,
              assignmentId: `a${j}`,
              taskIds: [`${j}-${t}`],
              from,
              to,
            });
        }
        const within = { from: START, to: START + 12 * DAY };
        const spans = busy.map(([hour, long]) => ({
          from: START + hour * 3_600_000,
          to: START + hour * 3_600_000 + long * MINUTE,
        }));
        const free = freeSpans(FREE_WEEK, ZONE, within, spans);
        const from = START + late * MINUTE;
        const { blocks, unplaced } = place(jobs, free, pinned, from);
        expect(place(jobs, free, pinned, from)).toEqual({ blocks, unplaced });
        expect(blocks.filter((one) => one.pinned).map(({ id, from: f, to }) => [id, f, to])).toEqual(
          pinned.toSorted((x, y) => x.from - y.from).map(({ id, from: f, to }) => [id, f, to]),
        );
        for (const [index, block] of blocks.entries()) {
          if (index > 0) expect(blocks[index - 1].to).toBeLessThanOrEqual(block.from);
          if (block.pinned) continue;
          expect(free.some((span) => span.from <= block.from && block.to <= span.to)).toBe(true);
          expect(block.from).toBeGreaterThanOrEqual(from);
          const minutes = (block.to - block.from) / MINUTE;
          expect(minutes).toBeGreaterThanOrEqual(LEAST_MINUTES);
          expect(minutes).toBeLessThanOrEqual(90);
        }
        for (const { assignmentId, by, tasks: own } of jobs)
          for (const { id, minutes, needs } of own) {
            const mine = blocks.filter(({ taskIds }) => taskIds.includes(id));
            const isUnplaced = unplaced.some(({ taskId }) => taskId === id);
            const held = mine
              .filter(({ taskIds }) => taskIds.length === 1)
              .reduce((sum, { from: f, to }) => sum + (to - f) / MINUTE, 0);
            // Small tasks share a block, which is at least as long as they are together.
            if (!isUnplaced && mine.every(({ taskIds }) => taskIds.length === 1))
              expect(held).toBeGreaterThanOrEqual(minutes);
            for (const block of mine.filter((one) => !one.pinned)) {
              expect(block.assignmentId).toBe(assignmentId);
              expect(block.to).toBeLessThanOrEqual(by);
              for (const needed of needs) {
                expect(unplaced.some(({ taskId }) => taskId === needed)).toBe(false);
                for (const other of blocks)
                  if (other.taskIds.includes(needed) && other.id !== block.id)
                    expect(other.to).toBeLessThanOrEqual(block.from);
              }
            }
          }
      }),
      { numRuns: 1000 },
    );
  });
});

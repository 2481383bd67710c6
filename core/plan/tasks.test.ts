import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lineOf, type LineInput } from '../line/stations.ts';
import { exampleTask } from '../model/example.ts';
import type { RemarkRef, Task } from '../model/work.ts';
import { planOrder, planTotals } from './tasks.ts';

const task = fc.record({
  minutes: fc.integer({ min: 1, max: 120 }),
  remark: fc.integer({ min: 0, max: 5 }),
  done: fc.boolean(),
  rank: fc.option(fc.integer({ min: 0, max: 50 }), { nil: null }),
});
const tasks = fc
  .uniqueArray(fc.tuple(fc.integer({ min: 0, max: 99 }), task), { selector: ([key]) => key })
  .map((list) =>
    list.map(([key, { minutes, remark, done, rank }]) =>
      exampleTask(`task ${key}`, { minutes, about: [{ remarkId: `r${remark}`, partId: null }], done, rank }),
    ),
  );
const points = new Map(Array.from({ length: 5 }, (_, i) => [`r${i}`, i * 40]));
const behind = ({ remarkId }: RemarkRef) => ({ points: points.get(remarkId) ?? null, importance: 0 });

describe('the order of tasks', () => {
  it('loses none and invents none', () => {
    fc.assert(
      fc.property(tasks, (given) => {
        const ids = (list: readonly Task[]) => list.map((t) => t.id as string).sort();
        expect(ids(planOrder(given, behind).map((p) => p.task))).toEqual(ids(given));
      }),
    );
  });

  it('puts what the student placed first, then the best gain per minute', () => {
    fc.assert(
      fc.property(tasks, (given) => {
        const planned = planOrder(given, behind);
        const firstFree = planned.findIndex((p) => p.task.rank === null);
        const placed = firstFree < 0 ? planned : planned.slice(0, firstFree);
        const free = firstFree < 0 ? [] : planned.slice(firstFree);
        const ranks = placed.map((p) => p.task.rank ?? NaN);
        expect(ranks).toEqual(ranks.toSorted((x, y) => x - y));
        const worth = free.map((p) => (p.gain ?? 0) / p.task.minutes);
        expect(free.every((p) => p.task.rank === null)).toBe(true);
        expect(worth).toEqual(worth.toSorted((x, y) => y - x));
      }),
    );
  });

  it('puts structure before wording, and each task after what it needs', () => {
    const given = [
      exampleTask('b', { needs: ['d'] }),
      exampleTask('a', { about: [{ remarkId: 'r1', partId: null }] }),
      exampleTask('c', { kind: 'structure' }),
      exampleTask('d'),
    ];
    expect(planOrder(given, behind).map(({ task: { id } }) => id)).toEqual(['c', 'a', 'd', 'b']);
  });

  it('counts what lies behind a remark once, however many tasks answer it', () => {
    fc.assert(
      fc.property(tasks, (given) => {
        const sum = planOrder(given, behind).reduce((all, one) => all + (one.behind ?? 0), 0);
        const remarks = new Set(
          given.flatMap(({ about }) => about.map(({ remarkId }) => remarkId as string)),
        );
        expect(sum).toBe([...remarks].reduce((all, id) => all + (points.get(id) ?? 0), 0));
      }),
    );
  });

  it('is the same whatever order the tasks came in', () => {
    fc.assert(
      fc.property(tasks, (given) => {
        const free = given.map((t) => ({ ...t, rank: null }));
        expect(planOrder(free.toReversed(), behind)).toEqual(planOrder(free, behind));
      }),
    );
  });

  it('adds up minutes and gains', () => {
    fc.assert(
      fc.property(tasks, (given) => {
        const totals = planTotals(planOrder(given, behind));
        expect(totals.minutes).toBe(given.reduce((sum, t) => sum + t.minutes, 0));
        expect(totals.minutesLeft).toBe(given.filter((t) => !t.done).reduce((sum, t) => sum + t.minutes, 0));
        expect(totals.done).toBe(given.filter((t) => t.done).length);
        expect(totals.gain).toBeGreaterThanOrEqual(0);
      }),
    );
  });
});

describe('the stations', () => {
  const input: fc.Arbitrary<LineInput> = fc.record({
    received: fc.nat({ max: 5 }),
    read: fc.nat({ max: 5 }),
    decided: fc.nat({ max: 5 }),
    countByDecision: fc.constant({ act: 0, ask: 0, keep: 0, decline: 0, carry: 0 }),
    tasks: fc.nat({ max: 5 }),
    tasksDone: fc.nat({ max: 5 }),
    draftBegun: fc.boolean(),
    unanswered: fc.nat({ max: 5 }),
    sent: fc.boolean(),
    resubmittable: fc.boolean(),
  });

  it('never ask for work that can’t be handed in', () => {
    fc.assert(
      fc.property(input, (given) => {
        const states = lineOf({ ...given, resubmittable: false, sent: false });
        for (const { progress } of states.slice(2)) expect(progress).not.toBe('not begun');
      }),
    );
  });

  it('are done from Revise on once it was sent', () => {
    fc.assert(
      fc.property(input, (given) => {
        const states = lineOf({ ...given, sent: true });
        expect(states.slice(3).map((s) => s.progress)).toEqual(['done', 'done', 'done']);
      }),
    );
  });
});

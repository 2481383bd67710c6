import { describe, expect, it } from 'vitest';
import type { Task } from '../model/work.ts';
import { bought, circleThrough, gainAt, heldAs, nextStep, openTasks, parted, pointsCurve } from './time.ts';
import type { PlannedTask } from './tasks.ts';

const planned = (
  id: string,
  minutes: number,
  gain: number | null,
  more: { done?: boolean; importance?: number; needs?: string[]; pin?: Task['pin'] } = {},
) =>
  ({
    task: {
      id,
      minutes,
      done: more.done ?? false,
      needs: more.needs ?? [],
      pin: more.pin ?? null,
    } as unknown as Task,
    behind: gain,
    gain,
    importance: more.importance ?? 0,
  }) satisfies PlannedTask;

describe('the time there is', () => {
  const tasks = openTasks([
    planned('long', 60, 90),
    planned('short', 20, 40),
    planned('other', 20, 35),
    planned('asked', 10, null, { importance: 2 }),
    planned('own', 10, null),
    planned('done', 5, 70, { done: true }),
  ]);

  it('buys the tasks that gain most together', () => {
    expect([...bought(tasks, 40).chosen]).toEqual(['short', 'other']);
    expect([...bought(tasks, 80).chosen]).toEqual(['long', 'short']);
    expect(bought(tasks, 0)).toEqual({ chosen: new Set(), minutes: 0, proven: true, short: null });
  });

  it('buys what has no points where it costs none, the more important first', () => {
    expect([...bought(tasks, 50).chosen]).toEqual(['short', 'other', 'asked']);
    expect([...bought(tasks, 15).chosen]).toEqual(['asked']);
    expect([...bought(tasks, 120).chosen]).toHaveLength(5);
  });

  it('leaves out what takes more than is left, and says by how much', () => {
    const all = [planned('long', 60, 90), planned('short', 20, 40), planned('done', 5, 70, { done: true })];
    const { inPlan, left } = parted(all, 50, bought(openTasks(all), 50));
    expect(inPlan.map(({ task }) => task.id)).toEqual(['short', 'done']);
    expect([...left].map(([{ task }, why]) => [task.id, why])).toEqual([
      ['long', { kind: 'short', minutes: 30 }],
    ]);
  });

  it('gains in steps, and tells the next one', () => {
    const curve = pointsCurve(tasks);
    expect(curve).toEqual([
      [0, 0],
      [20, 40],
      [40, 75],
      [60, 90],
      [80, 130],
      [100, 165],
    ]);
    expect(gainAt(curve, 59)).toBe(75);
    expect(nextStep(curve, 45)).toEqual({ minutes: 15, gain: 15 });
    expect(nextStep(curve, 100)).toBeNull();
  });

  it('has in it what is in by hand with what that needs, and none of what is left out by hand', () => {
    const by = openTasks([
      planned('wanted', 10, 1, { pin: 'in', needs: ['before', 'done'] }),
      planned('before', 30, 0, { pin: 'out' }),
      planned('out', 5, 90, { pin: 'out' }),
      planned('behind it', 5, 80, { needs: ['out'] }),
      planned('best', 20, 50),
      planned('done', 5, 70, { done: true }),
    ]);
    expect([...bought(by, 40).chosen]).toEqual(['wanted', 'before']);
    expect([...bought(by, 60).chosen]).toEqual(['wanted', 'before', 'best']);
    expect([...bought(by, 999).chosen]).toEqual(['wanted', 'before', 'best']);
    // What takes more than there is is said with how much would do.
    expect(bought(by, 25)).toMatchObject({ minutes: 40, short: 40 });
  });

  it('says what is left out by hand, and what needs that', () => {
    const all = [
      planned('out', 5, 90, { pin: 'out' }),
      planned('behind it', 5, 80, { needs: ['out'] }),
      planned('far', 30, 9, { needs: ['near'] }),
      planned('near', 20, 1),
    ];
    const now = bought(openTasks(all), 25);
    const { inPlan, left } = parted(all, 25, now);
    expect(inPlan.map(({ task }) => task.id)).toEqual(['near']);
    expect([...left.values()]).toEqual([
      { kind: 'by hand' },
      { kind: 'needs', title: undefined },
      { kind: 'short', minutes: 25 },
    ]);
    // Held: nothing changes its list or its place, whatever the time buys now.
    const held = { inPlan: ['near'], left: ['far', 'out', 'behind it'] };
    const later = heldAs(held, parted(all, 100, bought(openTasks(all), 100)));
    expect(later.inPlan.map(({ task }) => task.id)).toEqual(['near']);
    expect([...later.left.keys()].map(({ task }) => task.id)).toEqual(['far', 'out', 'behind it']);
  });

  it('names the circle in which tasks would need each other', () => {
    const all = [
      planned('a', 1, 1, { needs: ['b'] }),
      planned('b', 1, 1, { needs: ['c'] }),
      planned('c', 1, 1),
    ].map(({ task }) => task);
    expect(circleThrough(all, 'c', 'a')).toEqual(['c', 'a', 'b', 'c']);
    expect(circleThrough(all, 'c', 'c')).toEqual(['c', 'c']);
    expect(circleThrough(all, 'a', 'c')).toBeNull();
  });
});

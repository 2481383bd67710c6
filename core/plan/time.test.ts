import { describe, expect, it } from 'vitest';
import type { Task } from '../model/work.ts';
import { bought, gainAt, nextStep, openTasks, parted, pointsCurve } from './time.ts';
import type { PlannedTask } from './tasks.ts';

const planned = (
  id: string,
  minutes: number,
  gain: number | null,
  more: { done?: boolean; importance?: number } = {},
) =>
  ({
    task: { id, minutes, done: more.done ?? false } as Task,
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
    expect(bought(tasks, 0)).toEqual({ chosen: new Set(), minutes: 0, proven: true });
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
    expect([...left].map(([{ task }, more]) => [task.id, more])).toEqual([['long', 30]]);
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
});

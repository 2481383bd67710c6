import { gainAt, nextStep, openTasks, type TimeBought } from '#core/plan/time.ts';
import type { PlannedTask } from '#core/plan/tasks.ts';
import { planner } from '../../workers/clients.ts';
import { useAnswer } from '../../shared/page/answer.ts';

export type Curve = readonly (readonly [minutes: number, hundredths: number])[];

export const CURVE_HEIGHT_PX = 190;

/** What the minutes there are buy. */
export interface TimePlan {
  readonly bought: TimeBought;
  /** Hundredths of a point. */
  readonly gain: number;
  readonly curve: Curve;
  readonly next: ReturnType<typeof nextStep>;
}

/** The best use of the minutes there are; null until it was first worked out. What it was before stands until the next comes. */
export function useTimePlan(planned: readonly PlannedTask[], minutes: number): TimePlan | null {
  const tasks = openTasks(planned);
  const key = JSON.stringify(tasks);
  const curve = useAnswer<Curve>(key, () =>
    planner.ask((worker) => worker.pointsCurve(tasks), { latestOf: 'curve' }),
  );
  const bought = useAnswer<TimeBought>(`${minutes} ${key}`, () =>
    planner.ask((worker) => worker.bought(tasks, minutes), { latestOf: 'bought' }),
  );
  if (curve === null || bought === null) return null;
  return { bought, gain: gainAt(curve, minutes), curve, next: nextStep(curve, minutes) };
}

import { sharedGain } from '../plan/estimates.ts';
import { changeKinds, type ChangeKind } from '../model/work.ts';
import type { AssignmentView } from '../assignment/view.ts';
import type { EstimateOf } from '../plan/tasks.ts';
import { gainsOf, plannedOf, type Gains } from './gains.ts';

/** Points in hundredths. */
interface Sums {
  readonly made: number;
  readonly planned: number;
  /** null where it isn't known. */
  readonly real: number | null;
  readonly minutesPlanned: number;
  readonly minutesSpent: number;
}

/** What came of the changes that were made for an assignment's next attempt. */
export interface WorkedRow extends Sums {
  readonly view: AssignmentView;
}

/** The same by kind of change. */
export interface KindRow extends Sums {
  readonly kind: ChangeKind;
}

/** What came of changes, by assignment and by kind. */
export interface DidItWork {
  readonly rows: readonly WorkedRow[];
  readonly kinds: readonly KindRow[];
}

/** A change that was made, with what it was to win and what is reckoned to have come back by it. */
interface Case {
  readonly kind: ChangeKind;
  readonly planned: number;
  readonly real: number | null;
  readonly minutes: number;
  readonly spent: number;
}

/**
 * Planned and real gain and minutes, over all assignments that were marked again. What came back in one place is shared over
 * the changes that were made for it as their gain was planned, to none more than these: the rest came of something else.
 * @param spent minutes by task
 * @param knownThen what changes were taken to be good for when those of an assignment were planned
 */
export function didItWork(
  views: readonly AssignmentView[],
  spent: ReadonlyMap<string, number>,
  knownThen: (view: AssignmentView) => EstimateOf,
): DidItWork {
  const worked = views.flatMap((view) => {
    const gains = gainsOf(view);
    const cases = gains === null ? [] : casesOf(view, gains, spent, knownThen(view));
    return cases.length === 0 ? [] : [{ view, cases }];
  });
  const all = worked.flatMap(({ cases }) => cases);
  return {
    rows: worked.map(({ view, cases }) => ({ view, ...sumsOf(cases) })),
    kinds: changeKinds.flatMap((kind) => {
      const own = all.filter((one) => one.kind === kind);
      return own.length === 0 ? [] : [{ kind, ...sumsOf(own) }];
    }),
  };
}

function casesOf(
  view: AssignmentView,
  { places }: Gains,
  spent: ReadonlyMap<string, number>,
  estimateOf: EstimateOf,
): Case[] {
  return view.tasks.flatMap(({ task }): Case[] => {
    const own = places.flatMap(({ made, real }) => {
      const at = made.findIndex((one) => one.task.id === task.id);
      if (at < 0) return [];
      const shares = made.map((one) => ({ kind: one.task.kind, points: one.points }));
      const won = real === null ? null : sharedGain(real, shares, (kind) => estimateOf(kind).chance)[at];
      return [{ planned: plannedOf([made[at]], estimateOf), won }];
    });
    if (own.length === 0) return [];
    const known = own.flatMap(({ won }) => won ?? []);
    return [
      {
        kind: task.kind,
        planned: own.reduce((sum, one) => sum + one.planned, 0),
        real: known.length === own.length ? known.reduce((x, y) => x + y, 0) : null,
        minutes: task.minutes,
        spent: spent.get(task.id) ?? 0,
      },
    ];
  });
}

function sumsOf(cases: readonly Case[]): Sums {
  const sum = (of: (one: Case) => number) => cases.reduce((all, one) => all + of(one), 0);
  return {
    made: cases.length,
    planned: sum(({ planned }) => planned),
    real: cases.every(({ real }) => real === null) ? null : Math.round(sum(({ real }) => real ?? 0)),
    minutesPlanned: sum(({ minutes }) => minutes),
    minutesSpent: sum(({ spent }) => spent),
  };
}

import type { Instant } from '../model/ids.ts';
import type { Spell, Task } from '../model/work.ts';
import type { PastLoss, TimedChange } from '../plan/estimates.ts';
import { sharedOver, type EstimateOf } from '../plan/tasks.ts';
import { criterionLosses, wholeLoss, type Loss } from '../rubric/behind.ts';
import { scaledResults } from '../rubric/result.ts';
import { fromDecimal, toHundredths } from '../scores/fraction.ts';
import { criteriaGiven, standing, type MarkedAttempt } from '../assignment/attempts.ts';
import { minutesSpent } from '../assignment/jobs.ts';
import { givenFor, workedOn } from '../assignment/points.ts';
import { behindPart, type AssignmentView } from '../assignment/view.ts';

/** What another attempt brought back beside what was planned. Points in hundredths of the assignment's. */

/** A change that was made, with the points that lay behind it in one place. */
interface MadeChange {
  readonly task: Task;
  readonly points: number;
}

/** What was lost in one place, and what of it came back. */
interface PlaceGain {
  readonly loss: Loss;
  /** The changes that were made for it, and what was behind them together. */
  readonly made: readonly MadeChange[];
  /** What came back, less than 0 where more was lost; null where it isn't known. */
  readonly real: number | null;
}

/** What came of another attempt. */
export interface Gains {
  readonly before: MarkedAttempt;
  readonly after: MarkedAttempt;
  readonly at: Instant;
  readonly places: readonly PlaceGain[];
}

/** The last attempt that was marked, and the one before it that tasks were made from; null where there are no two. */
function markedAgain(
  attempts: readonly MarkedAttempt[],
): { readonly before: MarkedAttempt; readonly after: MarkedAttempt } | null {
  const after = standing(attempts).findLast(({ marking }) => marking !== null && marking.complete);
  if (after === undefined) return null;
  const before = workedOn(attempts.filter(({ attempt }) => attempt.number < after.attempt.number));
  return before === null ? null : { before, after };
}

/** Where points were lost in the attempt that was worked on: work without a marked paper is worked on from its latest by now. */
function lossesOf(view: AssignmentView, before: MarkedAttempt): readonly Loss[] {
  const { assignment, course, rubric, attempts, about } = view;
  if (workedOn(attempts) === before) return about.losses;
  const own = about.remarks.filter(({ attemptId }) => attemptId === before.attempt.id);
  const losses =
    rubric === null ? [] : criterionLosses(rubric, criteriaGiven(before), assignment.possible, own, about);
  const given = givenFor(before, assignment, course);
  if (losses.length > 0 || assignment.possible === null || given === null) return losses;
  return [wholeLoss(fromDecimal(assignment.possible), given, own, about)];
}

/** What came back place by place since the attempt that was worked on; null while no later one is marked. */
export function gainsOf(view: AssignmentView): Gains | null {
  const { assignment, course, rubric, attempts, about } = view;
  const again = markedAgain(attempts);
  const marking = again?.after.marking ?? null;
  if (again === null || marking === null) return null;
  const { before, after } = again;
  const results = rubric === null ? [] : scaledResults(rubric, criteriaGiven(after), assignment.possible);
  const given = givenFor(after, assignment, course);
  const gotAfter = ({ criterionId }: Loss): number | null => {
    const got =
      criterionId === null
        ? given
        : (results.find(({ criterion }) => criterion.id === criterionId)?.got ?? null);
    return got === null ? null : toHundredths(got);
  };
  const tasks = view.tasks.map(({ task }) => task);
  const remarks = new Map(about.remarks.map((remark) => [remark.id as string, remark]));
  const losses = lossesOf(view, before);
  const places = losses.map((loss): PlaceGain => {
    const behind = sharedOver(tasks, ({ remarkId, partId }) => {
      const remark = remarks.get(remarkId);
      return remark === undefined ? null : behindPart(remark, partId, { ...about, losses: [loss] }).points;
    });
    const got = loss.atStake ? null : gotAfter(loss);
    return {
      loss,
      made: tasks.flatMap((task) => {
        const points = task.done ? behind(task) : null;
        return points === null ? [] : [{ task, points }];
      }),
      real: got === null ? null : got - loss.got,
    };
  });
  return { before, after, at: marking.at, places };
}

/** What changes were expected to win together. @param estimateOf what they were taken to be good for when they were planned */
export function plannedOf(made: readonly MadeChange[], estimateOf: EstimateOf): number {
  return made.reduce((sum, { task, points }) => sum + Math.round(points * estimateOf(task.kind).chance), 0);
}

/** What there is to learn chances from, in the order in which it was marked again. */
export function pastLosses(gains: readonly Gains[]): PastLoss[] {
  return gains
    .toSorted((x, y) => (x.at < y.at ? -1 : 1))
    .flatMap(({ places }) =>
      places.flatMap(({ real, made }) =>
        real === null || made.length === 0
          ? []
          : [{ real, shares: made.map(({ task, points }) => ({ kind: task.kind, points })) }],
      ),
    );
}

/** How long changes took that were done and timed. */
export function timedChanges(tasks: readonly Task[], spells: Iterable<Spell>, nowMs: number): TimedChange[] {
  const spent = minutesSpent(spells, nowMs);
  return tasks.flatMap(({ id, kind, done }) => {
    const minutes = spent.get(id) ?? 0;
    return done && minutes > 0 ? [{ kind, minutes }] : [];
  });
}

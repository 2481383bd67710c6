import { takenUntil } from '#core/assignment/jobs.ts';
import { instantOf } from '#core/model/ids.ts';
import type { Unplaced as UnplacedTask } from '#core/plan/place.ts';
import { ownZone } from '../../shared/shown/own-zone.ts';
import { shownDay, shownMoment } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { useTimeSettings } from '../../workspace/state/week.ts';
import type { Names } from './block-words.ts';

/** The tasks that don't fit into the time before they are wanted, with what would help. */
export function Unplaced({ unplaced, names }: { unplaced: readonly UnplacedTask[]; names: Names }) {
  const { marginHours } = useTimeSettings();
  if (unplaced.length === 0) return null;
  return (
    <section
      aria-label={words.week.unplaced}
      className="mb-4 rounded-lg border border-dashed border-rule-strong p-3 text-sm"
    >
      <ul>
        {unplaced.map(({ taskId, minutes, fits }) => {
          const found = names.viewByTask.get(taskId);
          const until = found === undefined ? null : takenUntil(found.view);
          if (found === undefined || until === null) return null;
          const by = instantOf(until - marginHours * 3_600_000);
          return (
            <li key={taskId} className="py-0.5">
              <b>
                {words.week.unplacedTask(
                  found.task.title,
                  words.plan.hours(minutes),
                  shownMoment(by, ownZone()),
                )}
              </b>{' '}
              {fits === null ? words.week.fitsNever : words.week.fits(shownDay(instantOf(fits), ownZone()))}
            </li>
          );
        })}
      </ul>
      <p className="mt-1 text-quiet">{words.week.unplacedHelp}</p>
    </section>
  );
}

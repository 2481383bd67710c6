import { useMemo } from 'react';
import { Link } from 'react-router';
import { asId, TaskId } from '#core/model/ids.ts';
import { tasksAcross } from '#core/assignment/grade-gain.ts';
import { isOver } from '#core/assignment/jobs.ts';
import type { TimeBought } from '#core/plan/time.ts';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { Select } from '../../shared/controls/Select.tsx';
import { assignmentAddress } from '../../shared/page/addresses.ts';
import { useAnswer } from '../../shared/page/answer.ts';
import * as words from '../../words/en.ts';
import { planner } from '../../workers/clients.ts';
import { startSpell } from '../../workspace/commands/week.ts';
import { useAllViews } from '../../workspace/state/use-views.ts';
import { useNow, useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import type { Names } from './block-words.ts';

const TIMES = [10, 20, 45, 90];
const DEFAULT_MINUTES = 20;

/** A little time: what first, over all assignments. */
export function FirstThing({
  names,
  minutes: asked,
  onMinutes,
}: {
  names: Names;
  /** As the address has it. */
  minutes: number;
  onMinutes: (minutes: number) => void;
}) {
  const workspace = useWorkspace();
  const atMs = useNow();
  const views = useAllViews();
  const records = useWorkspaceState((state) => state.records);
  const minutes = TIMES.includes(asked) ? asked : DEFAULT_MINUTES;
  const tasks = useMemo(
    () =>
      tasksAcross(
        views.filter((view) => !isOver(view, atMs)),
        ({ course, assignment }) =>
          course === null
            ? null
            : (workspace.views.weightsOf(records, course.id)?.get(assignment.id) ?? null),
      ),
    [views, atMs, workspace, records],
  );
  const question = useMemo(() => [tasks, minutes] as const, [tasks, minutes]);
  const bought = useAnswer<TimeBought>(question, () =>
    planner.ask((worker) => worker.bought(...question), { latestOf: 'first' }),
  );
  const chosen = tasks
    .filter(({ id }) => bought?.short === null && bought.chosen.has(id))
    .toSorted((x, y) => y.gain / Math.max(1, y.minutes) - x.gain / Math.max(1, x.minutes));
  return (
    <section>
      <SectionTitle>{words.week.first}</SectionTitle>
      <div className="mt-1 flex flex-wrap items-center gap-2 text-sm">
        <Select
          look="tool"
          label={words.week.first}
          value={String(minutes)}
          options={TIMES.map((one) => [String(one), words.week.firstTimes(one)] as const)}
          onChange={(next) => onMinutes(Number(next))}
        />
        <span className="text-quiet">{words.week.firstLead}</span>
      </div>
      {bought !== null && chosen.length === 0 && (
        <p className="mt-1 text-sm text-quiet">
          {tasks.length === 0 ? words.week.firstNoTask : words.week.firstNone}
        </p>
      )}
      <ol className="mt-1">
        {chosen.map(({ id, minutes: long }) => {
          const found = names.viewByTask.get(id);
          return found === undefined ? null : (
            <li key={id} className="flex items-start gap-2 border-t border-rule py-2 text-sm">
              <div className="min-w-0 flex-1">
                <Link
                  to={assignmentAddress(found.view.assignment.id, 'revise')}
                  className="font-semibold hover:underline"
                >
                  {found.task.title}
                </Link>
                <p className="text-quiet">
                  {words.week.firstLine(words.plan.hours(long), found.view.assignment.title)}
                </p>
              </div>
              <Button
                look="quiet"
                className="min-h-0 shrink-0 py-0"
                onClick={() => void startSpell(workspace, asId(TaskId, id))}
              >
                {words.plan.start}
              </Button>
            </li>
          );
        })}
      </ol>
    </section>
  );
}

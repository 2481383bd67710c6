import { CheckBox } from '../../../shared/controls/CheckBox.tsx';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { useMemo } from 'react';
import { useAssignment } from '../../../shared/page/assignment-outlet.ts';
import type { Criterion } from '#core/model/facts.ts';
import type { Aim } from '#core/model/work.ts';
import { paperOfDraft } from '#core/paper/draft.ts';
import { aimItems, measuredIn } from '#core/rubric/aim.ts';
import * as words from '../../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { tickAim } from '../../../workspace/commands/by-hand.ts';

/** What is to be done for the level that is aimed at: ticked by hand, or by what the draft has. */
export function AimList({ view, criterion, aim }: { view: AssignmentView; criterion: Criterion; aim: Aim }) {
  const workspace = useWorkspace();
  const { assignment } = view;
  const { content } = useAssignment();
  const measured = useMemo(() => (content === null ? null : measuredIn(paperOfDraft(content))), [content]);
  const items = aimItems(criterion, aim.level, aim.ticked, measured);
  const level = criterion.levels.at(aim.level);
  if (level === undefined) return null;
  const title = words.rubric.listTitle(level.title);
  return (
    <section
      aria-label={`${criterion.title}: ${title}`}
      className="mt-3 rounded-lg border border-dashed border-accent p-3"
      data-aim={criterion.id}
    >
      <p className="flex flex-wrap justify-between gap-x-4 text-sm">
        <b>{title}</b>
        <span role="status" className="text-quiet">
          {words.rubric.listCount(items.filter(({ done }) => done).length, items.length)}
        </span>
      </p>
      <ul className="mt-1.5 grid gap-1.5">
        {items.map(({ text, counted, done }) => (
          <li key={text}>
            <label className="flex items-start gap-2.5">
              <CheckBox
                large
                className="mt-0.5"
                checked={done}
                disabled={counted !== null}
                onChange={(on) => void tickAim(workspace, assignment.id, criterion.id, text, on)}
              />
              <span>
                {text}
                {counted !== null && (
                  <span className="text-quiet">
                    {' '}
                    (
                    {counted.met
                      ? words.rubric.counted(counted.found)
                      : words.rubric.countedNotMet(counted.found)}
                    )
                  </span>
                )}
              </span>
            </label>
          </li>
        ))}
      </ul>
    </section>
  );
}

import { useMemo } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import { together, togetherKey, type Together as Group } from '#core/plan/together.ts';
import { blockAt } from '#core/paper/paper.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { Fold } from '../../shared/controls/Fold.tsx';
import * as words from '../../words/en.ts';
import { joinGroups } from '../../workspace/commands/plan.ts';
import { putSetting } from '../../workspace/commands/settings.ts';
import { useSetting } from '../../workspace/state/settings.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import type { ReadPaper } from '../../workspace/storage/records.ts';

/** Tasks that ask for one thing, to be joined where the student agrees. */
export function Together({ view, marked }: { view: AssignmentView; marked: ReadPaper | null }) {
  const workspace = useWorkspace();
  const apart = useSetting('leftApart');
  const groups = useMemo(() => {
    const left = new Set(apart?.groups);
    const remarks = new Map(view.about.remarks.map((remark) => [remark.id as string, remark]));
    return together(
      view.tasks.map(({ task }) => task),
      remarks,
      ({ textAt, paperHash }) =>
        textAt === null || marked === null || paperHash !== marked.hash
          ? null
          : blockAt(marked.paper, textAt),
    ).filter((group) => !left.has(togetherKey(group)));
  }, [view, marked, apart]);
  if (groups.length === 0) return null;
  const join = (which: readonly Group[]) =>
    void joinGroups(
      workspace,
      view.assignment.id,
      which.map(({ tasks, reason }) => ({ tasks, once: reason === 'rule' || reason === 'theme' })),
    );
  const numbersOf = ({ tasks }: Group) =>
    [
      ...new Set(
        tasks.flatMap(({ about }) =>
          about.flatMap(({ remarkId }) => view.about.numberByRemark.get(remarkId) ?? []),
        ),
      ),
    ]
      .toSorted((x, y) => x - y)
      .join(', ');
  return (
    <Fold
      className="mb-3 rounded-lg border border-dashed border-rule-strong p-3 text-sm"
      label={`${words.plan.together} (${groups.length})`}
    >
      <ul className="mt-1">
        {groups.map((group) => (
          <li key={togetherKey(group)} className="border-t border-rule py-2">
            <p>{words.plan.togetherLead(numbersOf(group), words.plan.togetherWhy[group.reason])}</p>
            <ul className="list-disc pl-5 text-quiet">
              {group.tasks.map((task) => (
                <li key={task.id}>{task.title}</li>
              ))}
            </ul>
            <div className="flex gap-4">
              <Button look="quiet" onClick={() => join([group])}>
                {words.plan.join}
              </Button>
              <Button
                look="quiet"
                onClick={() =>
                  void putSetting(
                    workspace,
                    { name: 'leftApart', groups: [...(apart?.groups ?? []), togetherKey(group)] },
                    view.assignment.id,
                  )
                }
              >
                {words.plan.apart}
              </Button>
            </div>
          </li>
        ))}
      </ul>
      {groups.length > 1 && <Button onClick={() => join(groups)}>{words.plan.joinAll(groups.length)}</Button>}
    </Fold>
  );
}

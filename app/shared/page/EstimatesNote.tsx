import { learnedKinds } from '#core/plan/estimates.ts';
import { MINUTES_BY_KIND } from '#core/plan/tasks.ts';
import { Button } from '../controls/Controls.tsx';
import * as words from '../../words/en.ts';
import { putSetting } from '../../workspace/commands/settings.ts';
import { useSetting } from '../../workspace/state/settings.ts';
import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';

/** What plans go by where there is a record of earlier changes, and what of it differs from the standard; it can be set back. */
export function EstimatesNote() {
  const workspace = useWorkspace();
  const record = useWorkspaceState(({ records, atMs }) => workspace.views.recordOf(records, atMs));
  const isStandard = useSetting('estimates')?.by === 'standard';
  const kinds = learnedKinds(record);
  if (kinds.length === 0) return null;
  return (
    <div className="my-3 text-sm">
      <p>{isStandard ? words.learn.standardLead : words.learn.recordLead}</p>
      <ul className="text-quiet">
        {kinds.map((kind) => (
          <li key={kind}>
            {words.learn.recordKind(
              words.changeKinds[kind],
              record[kind].chance,
              record[kind].minutes,
              MINUTES_BY_KIND[kind],
            )}
          </li>
        ))}
      </ul>
      <Button
        look="quiet"
        className="-ml-1 min-h-0 py-0"
        onClick={() =>
          void putSetting(workspace, { name: 'estimates', by: isStandard ? 'record' : 'standard' })
        }
      >
        {isStandard ? words.learn.toRecord : words.learn.toStandard}
      </Button>
    </div>
  );
}

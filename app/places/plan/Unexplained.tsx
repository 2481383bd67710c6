import { hundredths, type AssignmentView } from '#core/assignment/view.ts';
import { unexplainedQueryId } from '#core/model/own-ids.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import * as words from '../../words/en.ts';
import { proposedQueries, takeUpQuery } from '../../workspace/commands/queries.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';

/** Points that no remark explains, each with a question to ask about them. */
export function Unexplained({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  const proposed = new Map(proposedQueries(view).map((query) => [query.id, query]));
  const asked = new Set(view.queries.map(({ id }) => id));
  return view.losses
    .filter((loss) => loss.unexplained > 0)
    .map((loss) => {
      const id = unexplainedQueryId(view.assignment.id, loss.criterionId);
      const query = proposed.get(id);
      return (
        <div
          key={loss.criterionId ?? ''}
          className="mb-4 rounded-lg border border-dashed border-rule-strong p-3 text-sm"
        >
          <p className="font-semibold">
            {loss.criterionId === null
              ? words.plan.unexplainedWhole(hundredths(loss.unexplained))
              : words.plan.unexplained(hundredths(loss.unexplained), loss.title)}
          </p>
          {asked.has(id) ? (
            <p className="text-quiet">{words.plan.asked}</p>
          ) : (
            query !== undefined && (
              <div className="flex flex-wrap items-baseline gap-x-4">
                <p className="text-quiet">“{query.text}”</p>
                <Button
                  look="quiet"
                  className="min-h-0 py-0"
                  onClick={() => void takeUpQuery(workspace, view.assignment.id, query)}
                >
                  {words.plan.ask}
                </Button>
              </div>
            )
          )}
        </div>
      );
    });
}

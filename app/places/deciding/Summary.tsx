import { Link } from 'react-router';
import type { Remark } from '#core/model/remark.ts';
import type { Decision } from '#core/model/work.ts';
import { isDecided } from '#core/tally/tally.ts';
import { decisionLook } from '../../shared/decision-look.ts';
import { saidBy } from '../../shared/said.ts';
import { words } from '../../words/en.ts';
import type { AssignmentView } from '../../workspace/assignment-view.ts';

const GROUPS: readonly (Decision | 'carry')[] = ['act', 'ask', 'keep', 'carry', 'decline'];

/** What was decided, by decision; each remark opens from here. */
export function Summary({ view, onOpen }: { view: AssignmentView; onOpen: (remark: Remark) => void }) {
  const undecided = view.remarks.filter((remark) => !isDecided(view.judgements.get(remark.id)));
  const inGroup = (group: Decision | 'carry') =>
    view.remarks.filter((remark) => {
      const judgement = view.judgements.get(remark.id);
      return group === 'carry' ? judgement?.carry === true : judgement?.decision === group;
    });
  return (
    <div className="mx-auto max-w-4xl p-6 max-md:p-4">
      <h2 className="font-serif text-lg font-semibold">{words.deciding.summary}</h2>
      <p className="mb-5 text-quiet">{words.deciding.left(undecided.length)}</p>
      <div className="grid gap-6">
        {undecided.length > 0 && (
          <Group title={<b>{words.deciding.undecided}</b>} remarks={undecided} view={view} onOpen={onOpen} />
        )}
        {GROUPS.map((group) => {
          const { icon: Icon, text } = decisionLook[group];
          const title = (
            <b className={`inline-flex items-center gap-1.5 ${text}`}>
              <Icon size="1em" aria-hidden />
              {words.decisions[group]}
            </b>
          );
          return <Group key={group} title={title} remarks={inGroup(group)} view={view} onOpen={onOpen} />;
        })}
      </div>
      <Link
        to={`/a/${encodeURIComponent(view.assignment.id)}/plan`}
        className="mt-6 inline-flex min-h-9 items-center rounded-md bg-accent px-3 font-semibold text-on-accent hover:opacity-90"
      >
        {words.deciding.toPlan}
      </Link>
    </div>
  );
}

function Group({
  title,
  remarks,
  view,
  onOpen,
}: {
  title: React.ReactNode;
  remarks: readonly Remark[];
  view: AssignmentView;
  onOpen: (remark: Remark) => void;
}) {
  return (
    <section>
      <h3>
        {title}{' '}
        <span className="text-quiet">
          {remarks.length === 0 ? words.deciding.groupEmpty : remarks.length}
        </span>
      </h3>
      <ul>
        {remarks.map((remark) => (
          <li key={remark.id} className="border-t border-rule">
            <button
              type="button"
              className="flex w-full gap-3 py-2 text-left hover:underline"
              onClick={() => onOpen(remark)}
            >
              <span className="w-6 shrink-0 text-right text-quiet">{view.numberByRemark.get(remark.id)}</span>
              <span className="line-clamp-2">{saidBy(remark)}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

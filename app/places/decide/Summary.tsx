import { ToggleButton } from '../../shared/controls/Toggles.tsx';
import { CheckBox } from '../../shared/controls/CheckBox.tsx';
import { passes, type Filter } from '../../shared/remark/filter.ts';
import { FilterRow } from '../../shared/remark/FilterRow.tsx';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Remark } from '#core/model/remark.ts';
import { decisions, type Decision } from '#core/model/work.ts';
import { decisionsIn, isDecided } from '#core/tally/decided.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { decisionLook } from '../../shared/remark/decision-look.ts';
import { DecisionSign } from '../../shared/remark/Decisions.tsx';
import { RemarkFacts } from '../../shared/remark/RemarkFacts.tsx';
import { saidBy } from '../../shared/remark/said.ts';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { decideMany } from '../../workspace/commands/decide.ts';
import { assignmentAddress } from '../../shared/page/addresses.ts';

const GROUPS: readonly (Decision | 'carry')[] = ['act', 'ask', 'keep', 'carry', 'decline'];

interface ListProps {
  readonly view: AssignmentView;
  readonly onOpen: (remark: Remark) => void;
}

/** What was decided, by decision, each remark opening from here; and deciding for many at once. */
export function Summary({ view, onOpen }: ListProps) {
  const [choosing, setChoosing] = useState(false);
  const undecided = view.remarks.filter((remark) => !isDecided(view.judgements.get(remark.id)));
  return (
    <div className="mx-auto max-w-4xl p-6 max-md:p-4">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div>
          <h2 className="font-serif text-lg font-semibold">{words.deciding.summary}</h2>
          <p className="mb-5 text-quiet">{words.deciding.left(undecided.length)}</p>
        </div>
        <ToggleButton pressed={choosing} onToggle={() => setChoosing(!choosing)}>
          {choosing ? words.deciding.done : words.deciding.choose}
        </ToggleButton>
      </div>
      {choosing ? <ManyAtOnce view={view} onOpen={onOpen} /> : <ByDecision view={view} onOpen={onOpen} />}
      <Link
        to={assignmentAddress(view.assignment.id, 'plan')}
        className="mt-6 inline-flex min-h-9 items-center rounded-md bg-accent px-3 font-semibold text-on-accent hover:opacity-90"
      >
        {words.deciding.toPlan}
      </Link>
    </div>
  );
}

function ByDecision({ view, onOpen }: ListProps) {
  const undecided = view.remarks.filter((remark) => !isDecided(view.judgements.get(remark.id)));
  const inGroup = (group: Decision | 'carry') =>
    view.remarks.filter(({ id }) => decisionsIn(view.judgements.get(id)).includes(group));
  return (
    <div className="grid grid-cols-1 gap-6">
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
      {undecided.length > 0 && (
        <Group title={<b>{words.deciding.undecided}</b>} remarks={undecided} view={view} onOpen={onOpen} />
      )}
    </div>
  );
}

function Group({
  title,
  remarks,
  view,
  onOpen,
}: ListProps & { title: React.ReactNode; remarks: readonly Remark[] }) {
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
              className="flex w-full gap-3 pt-2 text-left hover:underline"
              onClick={() => onOpen(remark)}
            >
              <span className="w-6 shrink-0 text-right text-quiet">{view.numberByRemark.get(remark.id)}</span>
              <span className="line-clamp-2">{saidBy(remark)}</span>
            </button>
            <div className="pb-2 pl-9">
              <RemarkFacts view={view} remark={remark} />
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A list to choose remarks from, and one decision for all that are chosen. */
function ManyAtOnce({ view, onOpen }: ListProps) {
  const workspace = useWorkspace();
  const [filter, setFilter] = useState<Filter>({ decision: '' });
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const listed = view.remarks.filter((remark) => chosen.has(remark.id) || passes(view, remark, filter));
  const picked = listed.filter(({ id }) => chosen.has(id));
  const all = picked.length === listed.length && listed.length > 0;
  const choose = (id: string, on: boolean) => {
    const next = new Set(chosen);
    if (on) next.add(id);
    else next.delete(id);
    setChosen(next);
  };
  const decide = (decision: Decision | 'carry') => {
    void decideMany(workspace, view.assignment.id, picked, decision).then(() => setChosen(new Set()));
  };
  return (
    <section>
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <label className="inline-flex items-center gap-2 font-semibold">
          <CheckBox
            checked={all}
            onChange={() => setChosen(new Set(all ? [] : listed.map(({ id }) => id as string)))}
          />
          {words.deciding.chooseAll}
        </label>
        <FilterRow
          view={view}
          remarks={view.remarks}
          filter={filter}
          asked={false}
          onChange={setFilter}
          onClose={null}
          className=""
        />
      </div>
      <div className="sticky top-0 z-10 flex flex-wrap items-center gap-2 border-y border-rule bg-paper py-2">
        <span role="status" className="mr-2 font-semibold">
          {words.deciding.chosen(picked.length)}
        </span>
        <div role="group" aria-label={words.deciding.decideAll} className="flex flex-wrap gap-1">
          {[...decisions, 'carry' as const].map((decision) => {
            const { icon: Icon } = decisionLook[decision];
            return (
              <Button
                key={decision}
                disabled={picked.length === 0}
                className="min-h-8 px-2 text-sm"
                onClick={() => decide(decision)}
              >
                <Icon size="1em" aria-hidden />
                {words.decisions[decision]}
              </Button>
            );
          })}
        </div>
      </div>
      <ul>
        {listed.map((remark) => {
          const number = view.numberByRemark.get(remark.id) ?? 0;
          return (
            <li key={remark.id} className="flex items-start gap-3 border-b border-rule py-2">
              <CheckBox
                label={words.deciding.chooseRemark(number)}
                className="mt-1"
                checked={chosen.has(remark.id)}
                onChange={(on) => choose(remark.id, on)}
              />
              <span className="w-6 shrink-0 text-right text-quiet">{number}</span>
              <div className="min-w-0 flex-1">
                <button
                  type="button"
                  className="line-clamp-2 text-left hover:underline"
                  onClick={() => onOpen(remark)}
                >
                  {saidBy(remark)}
                </button>
                <RemarkFacts view={view} remark={remark} />
              </div>
              <span className="shrink-0 text-sm">
                <DecisionSign judgement={view.judgements.get(remark.id)} />
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

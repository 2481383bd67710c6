import { Fold } from '../../shared/controls/Fold.tsx';
import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { useState } from 'react';
import { Link } from 'react-router';
import { promisePlaces } from '#core/model/promises.ts';
import type { Promised } from '#core/tally/promises.ts';
import { Choice } from '../../shared/controls/Choice.tsx';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import {
  dismissPromise,
  notePromise,
  proposedQueries,
  takeUpQuery,
  type ProposedQuery,
} from '../../workspace/commands/queries.ts';
import { remarkAddress } from '../../shared/page/addresses.ts';
import { queryIdOf } from '#core/model/own-ids.ts';

/** What was promised elsewhere than where it was said: kept, missing, or set aside; and what could be asked. */
export function Promises({ view }: { view: AssignmentView }) {
  const queries = useWorkspaceState((state) => state.records.queries);
  const proposed = proposedQueries(view);
  const forPromise = (promised: Promised) => proposed.find(({ id }) => id === queryIdOf(promised.id));
  const points = proposed.filter((query) => view.promised.every((one) => forPromise(one)?.id !== query.id));
  if (view.promised.length + points.length === 0 && view.latestMarking === null) return null;
  return (
    <section>
      {view.promised.length + points.length > 0 && (
        <SectionTitle>
          {view.promised.length > 0 ? words.assignment.promised : words.assignment.proposedQueries}
        </SectionTitle>
      )}
      <ul className="mt-1">
        {view.promised.map((promised) => (
          <Row
            key={promised.id}
            view={view}
            promised={promised}
            query={forPromise(promised)}
            asked={queries.has(queryIdOf(promised.id))}
          />
        ))}
        {points.map((query) => (
          <li
            key={query.id}
            className="flex flex-wrap items-baseline justify-between gap-3 border-t border-rule py-2"
          >
            <span className="min-w-0 flex-1">{query.text}</span>
            <AskButton view={view} query={query} asked={queries.has(query.id)} />
          </li>
        ))}
      </ul>
      {view.latestMarking !== null && <AddPromise view={view} />}
    </section>
  );
}

function stateOf({ state, place, kept }: Promised): string {
  switch (state) {
    case 'kept':
      return words.assignment.promiseKept(kept.length);
    case 'missing':
      return words.assignment.promiseMissing(words.promisePlaces[place]);
    case 'coming':
      return words.assignment.promiseComing;
    case 'in person':
      return words.assignment.promiseInPerson;
    case 'dismissed':
      return words.assignment.promiseDismissed;
  }
}

function Row({
  view,
  promised,
  query,
  asked,
}: {
  view: AssignmentView;
  promised: Promised;
  query: ProposedQuery | undefined;
  asked: boolean;
}) {
  const workspace = useWorkspace();
  const { said, remark, state, kept } = promised;
  const first = kept.at(0);
  const dismissed = state === 'dismissed';
  return (
    <li className="flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1 border-t border-rule py-2">
      <div className="min-w-0 flex-1">
        <p>
          “{said}”{' '}
          {remark === null && <span className="text-sm text-quiet">{words.assignment.promiseByHand}</span>}
        </p>
        <p className="text-sm">
          {state === 'kept' && first !== undefined ? (
            <Link to={remarkAddress(first)} className="font-semibold text-accent hover:underline">
              {stateOf(promised)}
            </Link>
          ) : (
            <span className={state === 'missing' ? 'font-semibold' : 'text-quiet'}>{stateOf(promised)}</span>
          )}
        </p>
      </div>
      <span className="flex flex-wrap gap-2">
        {query !== undefined && <AskButton view={view} query={query} asked={asked} />}
        {state !== 'kept' && (
          <Button
            look="quiet"
            className="min-h-8 text-sm"
            onClick={() => void dismissPromise(workspace, view.assignment.id, promised, !dismissed)}
          >
            {dismissed ? words.assignment.promiseAgain : words.assignment.promiseDismiss}
            <span className="sr-only">: {said}</span>
          </Button>
        )}
      </span>
    </li>
  );
}

function AskButton({ view, query, asked }: { view: AssignmentView; query: ProposedQuery; asked: boolean }) {
  const workspace = useWorkspace();
  if (asked)
    return (
      <Link to="/ask" className="text-sm font-semibold text-accent hover:underline">
        {words.assignment.promiseAsked}
      </Link>
    );
  return (
    <Button
      className="min-h-8 text-sm"
      onClick={() => void takeUpQuery(workspace, view.assignment.id, query)}
    >
      {words.assignment.promiseAsk}
      <span className="sr-only">: {query.text}</span>
    </Button>
  );
}

/** A promise that was made elsewhere, put in by hand. */
function AddPromise({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  const [said, setSaid] = useState('');
  const [place, setPlace] = useState<(typeof promisePlaces)[number]>('paper');
  const add = () => {
    if (said.trim() === '') return;
    void notePromise(workspace, view.assignment.id, said.trim(), place).then(() => setSaid(''));
  };
  return (
    <Fold className="mt-2 border-t border-rule pt-2 text-sm" label={words.assignment.promiseAdd}>
      <p className="mt-1 text-quiet">{words.assignment.promiseAddLead}</p>
      <form
        className="mt-2 flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <label className="block min-w-56 flex-1 font-semibold">
          {words.assignment.promiseSaid}
          <input
            value={said}
            onChange={(event) => setSaid(event.target.value)}
            className="mt-1 block w-full rounded-md border border-rule-strong/60 bg-paper px-2 py-1.5 font-normal"
          />
        </label>
        <Choice
          label={words.assignment.promiseWhere}
          value={place}
          options={promisePlaces.map((one) => [one, words.promisePlaces[one]] as const)}
          onChange={(next) => setPlace(promisePlaces.find((one) => one === next) ?? 'paper')}
        />
        <Button type="submit" disabled={said.trim() === ''}>
          {words.assignment.outsideSave}
        </Button>
      </form>
    </Fold>
  );
}

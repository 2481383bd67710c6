import { lazy, Suspense, useMemo } from 'react';
import { Link } from 'react-router';
import { didItWork, type KindRow, type WorkedRow } from '#core/marked-again/did-it-work.ts';
import { hundredths } from '#core/assignment/view.ts';
import type { Estimates } from '#core/plan/estimates.ts';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { EstimatesNote } from '../../shared/page/EstimatesNote.tsx';
import { assignmentAddress } from '../../shared/page/addresses.ts';
import { usePlaceTitle } from '../../shared/page/place-title.ts';
import * as words from '../../words/en.ts';
import { useAllViews } from '../../workspace/state/use-views.ts';
import { useSpent } from '../../workspace/state/week.ts';
import { useNow, useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';

const GainBars = lazy(async () => ({ default: (await import('./GainBars.tsx')).GainBars }));

/** What changes were expected to win and to take, beside what came of them, over all assignments. */
export function Learning() {
  usePlaceTitle(words.learn.title);
  const workspace = useWorkspace();
  const records = useWorkspaceState((state) => state.records);
  const atMs = useNow();
  const views = useAllViews();
  const spent = useSpent();
  const record = useWorkspaceState(({ records, atMs }) => workspace.views.recordOf(records, atMs));
  const { rows, kinds } = useMemo(
    () =>
      didItWork(views, spent, ({ assignment }) => {
        const known = workspace.views.knownBefore(records, atMs, assignment.id);
        return (kind) => known[kind];
      }),
    [views, spent, workspace, records, atMs],
  );
  return (
    <div className="mx-auto grid max-w-4xl grid-cols-1 gap-7 p-6 max-md:p-4">
      <div>
        <h1 className="text-2xl font-bold">{words.learn.title}</h1>
        <p className="max-w-prose text-quiet">{rows.length === 0 ? words.learn.none : words.learn.lead}</p>
        {rows.length === 0 && (
          <Link to="/" className="mt-2 inline-block font-semibold text-accent hover:underline">
            {words.learn.seeOpen}
          </Link>
        )}
      </div>
      {rows.length > 0 && (
        <>
          <section>
            <SectionTitle>{words.learn.byAssignment}</SectionTitle>
            <Suspense fallback={null}>
              <GainBars rows={rows} />
            </Suspense>
            <ByAssignment rows={rows} />
          </section>
          <section>
            <SectionTitle>{words.learn.byKind}</SectionTitle>
            <ByKind kinds={kinds} record={record} />
          </section>
        </>
      )}
      <EstimatesNote />
    </div>
  );
}

function ByAssignment({ rows }: { rows: readonly WorkedRow[] }) {
  return (
    <ul className="mt-2">
      {rows.map((row) => (
        <li key={row.view.assignment.id} className="border-t border-rule py-2.5">
          <Link
            to={assignmentAddress(row.view.assignment.id, 'send')}
            className="font-semibold text-accent hover:underline"
          >
            {row.view.assignment.title}
          </Link>
          <Figures row={row} />
        </li>
      ))}
    </ul>
  );
}

function ByKind({ kinds, record }: { kinds: readonly KindRow[]; record: Estimates }) {
  return (
    <ul className="mt-2">
      {kinds.map((row) => (
        <li key={row.kind} className="border-t border-rule py-2.5">
          <b>{words.changeKinds[row.kind]}</b>
          <Figures row={row} />
          <p className="text-sm text-quiet">
            {words.learn.nowTaken(record[row.kind].chance, record[row.kind].minutes)}
          </p>
        </li>
      ))}
    </ul>
  );
}

function Figures({ row }: { row: WorkedRow | KindRow }) {
  const figures = [
    [words.learn.made, String(row.made)],
    [words.learn.plannedHead, hundredths(row.planned)],
    [words.learn.realHead, row.real === null ? words.learn.notKnown : hundredths(row.real)],
    [words.learn.minutesPlanned, String(row.minutesPlanned)],
    [words.learn.minutesSpent, row.minutesSpent === 0 ? words.learn.notKnown : String(row.minutesSpent)],
  ] as const;
  return (
    <dl className="mt-0.5 grid grid-cols-[repeat(5,minmax(0,1fr))] gap-x-4 text-sm max-md:grid-cols-2">
      {figures.map(([name, value]) => (
        <div key={name} className="flex flex-wrap gap-x-1.5">
          <dt className="text-quiet">{name}</dt>
          <dd className="font-semibold tabular-nums">{value}</dd>
        </div>
      ))}
    </dl>
  );
}

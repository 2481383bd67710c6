import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { SectionTitle } from '../../shared/Controls.tsx';
import { daysUntil, shownMoment } from '../../shared/shown.ts';
import { words } from '../../words/en.ts';
import type { AssignmentView } from '../../workspace/assignment-view.ts';
import { nowMs } from '../../workspace/workspace.ts';

interface Views {
  readonly views: readonly AssignmentView[];
}

function List({
  title,
  none,
  rows,
}: {
  title: string;
  none: string;
  rows: readonly { view: AssignmentView; facts: ReactNode }[];
}) {
  return (
    <section>
      <SectionTitle>{title}</SectionTitle>
      {rows.length === 0 ? (
        <p className="mt-1 border-t border-rule pt-2 text-sm text-quiet">{none}</p>
      ) : (
        <ul className="mt-1">
          {rows.map(({ view, facts }) => (
            <li key={view.assignment.id} className="border-t border-rule py-2.5 text-sm">
              <Link
                to={`/a/${encodeURIComponent(view.assignment.id)}`}
                className="text-base font-semibold hover:underline"
              >
                {view.assignment.title}
              </Link>
              {facts}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** Open resubmissions: days left, and what the points could still become. */
export function OpenAgain({ views }: Views) {
  const rows = views
    .filter((view) => view.state.kind === 'open for another attempt')
    .map((view) => ({ view, facts: <OpenFacts view={view} /> }));
  return <List title={words.arrivals.openAgain} none={words.arrivals.noneOpen} rows={rows} />;
}

function OpenFacts({ view: { assignment, course, reachable, score } }: { view: AssignmentView }) {
  const { closesAt, possible } = assignment;
  return (
    <>
      {closesAt !== null && (
        <p className="text-quiet">
          {words.assignment.rule.daysLeft(daysUntil(closesAt, nowMs()))},{' '}
          {shownMoment(closesAt, course?.zone)}
        </p>
      )}
      {reachable !== null && possible !== null && score !== null && (
        <p className="font-semibold">{words.arrivals.couldReach(reachable, possible, score)}</p>
      )}
    </>
  );
}

export function Waiting({ views }: Views) {
  const rows = views
    .filter(
      (v) =>
        v.state.kind === 'waiting to be marked' ||
        v.state.kind === 'waiting again' ||
        v.submission?.state.kind === 'waiting to go',
    )
    .map((view) => ({ view, facts: <WaitingFacts view={view} /> }));
  return <List title={words.arrivals.waiting} none={words.arrivals.noneWaiting} rows={rows} />;
}

function WaitingFacts({ view: { attempts, course, submission } }: { view: AssignmentView }) {
  if (submission?.state.kind === 'waiting to go')
    return <p className="text-quiet">{words.arrivals.waitingToGo}</p>;
  const last = attempts.at(-1)?.attempt;
  if (last === undefined) return null;
  const when = shownMoment(last.at, course?.zone);
  return (
    <p className="text-quiet">
      {last.number > 1 ? words.arrivals.sentAgain(when) : words.arrivals.sentOn(when)}
    </p>
  );
}

export function DueNext({ views }: Views) {
  const rows = views
    .filter((view) => view.state.kind === 'open, nothing sent' || view.state.kind === 'not open yet')
    .filter((view) => view.assignment.dueAt !== null)
    .sort((x, y) => (x.assignment.dueAt ?? '').localeCompare(y.assignment.dueAt ?? ''))
    .map((view) => ({ view, facts: <DueFacts view={view} carried={carriedIn(views, view)} /> }));
  return <List title={words.arrivals.dueNext} none={words.arrivals.noneDue} rows={rows} />;
}

function carriedIn(views: readonly AssignmentView[], { assignment }: AssignmentView): number {
  return views
    .filter((view) => view.assignment.courseId === assignment.courseId)
    .reduce((sum, view) => sum + view.countByDecision.carry, 0);
}

function DueFacts({
  view: { assignment, course, state },
  carried,
}: {
  view: AssignmentView;
  carried: number;
}) {
  const { dueAt, opensAt } = assignment;
  return (
    <>
      <p className="text-quiet">
        {state.kind === 'not open yet' && opensAt !== null
          ? words.arrivals.opens(shownMoment(opensAt, course?.zone))
          : dueAt !== null && words.arrivals.due(shownMoment(dueAt, course?.zone))}
      </p>
      {carried > 0 && <p>{words.arrivals.carried(carried)}</p>}
    </>
  );
}

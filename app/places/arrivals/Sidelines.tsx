import { compare } from '#core/scores/fraction.ts';
import { shownPoints, shownShare } from '../../shared/shown/figures.ts';
import { useWorth } from '../../workspace/state/use-standing.ts';
import { useNow } from '../../workspace/use-workspace.ts';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { Carried } from '../../shared/remark/Carried.tsx';
import { daysUntil, shownMoment } from '../../shared/shown/shown.ts';
import { latenessSentence, stateSentence } from '../../shared/line/state-words.ts';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { standing } from '#core/assignment/attempts.ts';
import { assignmentAddress } from '../../shared/page/addresses.ts';

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
                to={assignmentAddress(view.assignment.id)}
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

/** Open resubmissions: days and attempts left, and what the points could still become. */
export function OpenAgain({ views }: Views) {
  const rows = views
    .filter((view) => view.state.kind === 'open for another attempt')
    .sort((x, y) => (x.assignment.closesAt ?? '').localeCompare(y.assignment.closesAt ?? ''))
    .map((view) => ({ view, facts: <OpenFacts view={view} /> }));
  return <List title={words.arrivals.openAgain} none={words.arrivals.noneOpen} rows={rows} />;
}

function OpenFacts({ view }: { view: AssignmentView }) {
  const atMs = useNow();
  const { assignment, course, reachable, score, attempts } = view;
  const { closesAt, possible } = assignment;
  const worth = useWorth(assignment.id);
  const left = assignment.attemptsAllowed - standing(attempts).length;
  return (
    <>
      {closesAt !== null && (
        <p className="text-quiet">
          {words.assignment.rule.daysLeft(daysUntil(closesAt, atMs))}, {shownMoment(closesAt, course?.zone)} ·{' '}
          {words.arrivals.attemptsLeft(left)}
        </p>
      )}
      {reachable !== null && possible !== null && score !== null && compare(reachable, score) !== 0 ? (
        <p className="font-semibold">
          {words.arrivals.couldReach(shownPoints(reachable), possible, shownPoints(score))}
        </p>
      ) : (
        <p className="text-quiet">{words.arrivals.nothingToWin}</p>
      )}
      {worth !== null && (
        <p>
          {words.arrivals.couldMove(shownShare(worth.gain), shownShare(worth.now), shownShare(worth.most))}
        </p>
      )}
    </>
  );
}

export function Waiting({ views }: Views) {
  const waits = ['waiting to be marked', 'waiting again', 'part marked'];
  const rows = views
    .filter((v) => waits.includes(v.state.kind) || v.submission?.state.kind === 'waiting to go')
    .map((view) => ({ view, facts: <WaitingFacts view={view} /> }));
  return <List title={words.arrivals.waiting} none={words.arrivals.noneWaiting} rows={rows} />;
}

function WaitingFacts({ view }: { view: AssignmentView }) {
  const { attempts, course, submission, state } = view;
  if (submission?.state.kind === 'waiting to go')
    return <p className="text-quiet">{words.arrivals.waitingToGo}</p>;
  const last = standing(attempts).at(-1)?.attempt;
  if (last === undefined) return null;
  const when = shownMoment(last.at, course?.zone);
  const said =
    state.kind === 'part marked'
      ? words.arrivals.sentPart(when)
      : state.kind === 'waiting again'
        ? words.arrivals.sentAgain(when)
        : words.arrivals.sentOn(when);
  return <p className="text-quiet">{[said, latenessSentence(view)].filter(Boolean).join(' · ')}</p>;
}

function nextDue({ assignment }: AssignmentView): string {
  return assignment.extendedTo ?? assignment.dueAt ?? '';
}

export function DueNext({ views }: Views) {
  const due = ['open, nothing sent', 'draft begun', 'not open yet'];
  const rows = views
    .filter((view) => due.includes(view.state.kind) && view.assignment.dueAt !== null)
    .sort((x, y) => nextDue(x).localeCompare(nextDue(y)))
    .map((view) => ({ view, facts: <DueFacts view={view} all={views} /> }));
  return <List title={words.arrivals.dueNext} none={words.arrivals.noneDue} rows={rows} />;
}

function DueFacts({ view, all }: { view: AssignmentView; all: readonly AssignmentView[] }) {
  const { assignment, course, state, stages } = view;
  const { dueAt, opensAt, extendedTo, closesAt, late } = assignment;
  const shown = (at: typeof dueAt) => (at === null ? '' : shownMoment(at, course?.zone));
  const onDraft = all.find((one) => one.assignment.id === stages.draft?.id);
  return (
    <>
      <p className="text-quiet">
        {state.kind === 'not open yet' && opensAt !== null
          ? words.arrivals.opens(shown(opensAt))
          : state.kind === 'draft begun'
            ? words.arrivals.dueDraft(shown(extendedTo ?? dueAt))
            : extendedTo !== null
              ? words.arrivals.dueExtended(shown(dueAt), shown(extendedTo))
              : words.arrivals.due(shown(dueAt))}
      </p>
      {late !== null && closesAt !== null && (
        <p className="text-quiet">{words.arrivals.late(shown(closesAt))}</p>
      )}
      {onDraft !== undefined && onDraft.remarks.length > 0 && (
        <p>
          <Link
            to={assignmentAddress(onDraft.assignment.id, 'read')}
            className="font-semibold text-accent hover:underline"
          >
            {words.arrivals.adviceOnDraft(onDraft.remarks.length)}
          </Link>
        </p>
      )}
      <Carried view={view} all={all} />
    </>
  );
}

/** Assignments that ask nothing: closed without anything sent, and excused. */
export function Idle({ views }: Views) {
  const atMs = useNow();
  const rows = views
    .filter((view) => view.state.kind === 'closed' || view.state.kind === 'excused')
    .map((view) => ({ view, facts: <p className="text-quiet">{stateSentence(view, atMs)}</p> }));
  return rows.length === 0 ? null : (
    <List title={words.arrivals.nothingToDo} none={words.arrivals.noneIdle} rows={rows} />
  );
}

import clsx from 'clsx';
import { Link } from 'react-router';
import { shownMoment } from '../../shared/shown.ts';
import { channelAddress, TallyChips } from '../../shared/TallyChips.tsx';
import { words } from '../../words/en.ts';
import type { AssignmentView } from '../../workspace/assignment-view.ts';

/** One assignment that came back: what, from whom, when, the score, and the tally in small. */
export function CameBackCard({ view, unread }: { view: AssignmentView; unread: number }) {
  const { assignment, course, latestMarking, attempts, score, tally } = view;
  if (latestMarking === null) return null;
  const address = `/a/${encodeURIComponent(assignment.id)}`;
  const marked = attempts.find(({ attempt }) => attempt.id === latestMarking.attemptId)?.attempt;
  const first = tally.byChannel.find((c) => c.received > c.read);
  const facts = [
    course?.title ?? words.arrivals.noCourse,
    latestMarking.marker.name,
    shownMoment(latestMarking.at, course?.zone),
    ...(marked === undefined || course === null
      ? []
      : [words.arrivals.attempt(marked.number, assignment.attemptsAllowed)]),
  ];
  return (
    <li
      className={clsx(
        'relative rounded-lg border border-rule bg-surface px-4 py-3',
        unread > 0 &&
          'before:absolute before:inset-y-3 before:-left-px before:w-[3px] before:rounded before:bg-accent',
      )}
    >
      <div className="flex items-baseline justify-between gap-4">
        <h2 className="min-w-0 font-serif text-[1.12rem] leading-snug font-semibold">
          <Link to={address} className="hover:underline">
            {assignment.title}
          </Link>
        </h2>
        {score !== null && assignment.possible !== null && (
          <p className="whitespace-nowrap">
            <b>{score}</b> <span className="text-quiet">of {assignment.possible}</span>
          </p>
        )}
      </div>
      <div className="flex flex-wrap justify-between gap-x-6 text-sm text-quiet">
        <p>
          {facts.join(' · ')}
          {unread === 0 && ` · ${words.arrivals.allRead(tally.received)}`}
          {unread === 0 && view.state.kind === 'finished' && ` · ${words.arrivals.finished}`}
        </p>
        {assignment.counts !== null && unread > 0 && <p>{assignment.counts}</p>}
      </div>
      {unread > 0 && (
        <div className="mt-2.5 flex flex-wrap items-center justify-between gap-3">
          <TallyChips view={view} />
          <Link
            to={first === undefined ? `${address}/read` : channelAddress(view, first.channel)}
            className="rounded-md px-2 py-0.5 font-semibold text-accent hover:underline"
          >
            {words.arrivals.read}
            <span className="sr-only"> {assignment.title}</span>
          </Link>
        </div>
      )}
    </li>
  );
}

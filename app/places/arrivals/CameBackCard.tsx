import { shownPoints, shownShare } from '../../shared/shown/figures.ts';
import { useWeight } from '../../workspace/state/use-views.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import clsx from 'clsx';
import { memo } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../shared/controls/Controls.tsx';
import { undoAndTell } from '../../shared/page/notify.ts';
import { shownMoment } from '../../shared/shown/shown.ts';
import { latenessSentence, markerShown, scoreChangeTold } from '../../shared/line/state-words.ts';
import { channelAddress, TallyChips } from '../../shared/line/TallyChips.tsx';
import * as words from '../../words/en.ts';
import { changedUnread, isGoneThrough, type AssignmentView } from '#core/assignment/view.ts';
import { markAllRead, markScoreSeen } from '../../workspace/commands/reading.ts';
import { useVisits } from '../../workspace/state/visits.ts';
import { assignmentAddress } from '../../shared/page/addresses.ts';

/** What, from whom and when, and which attempt. */
export function factsOf(view: AssignmentView): string {
  const { assignment, course, latestMarking, attempts } = view;
  if (latestMarking === null) return '';
  const marked = attempts.find(({ attempt }) => attempt.id === latestMarking.attemptId);
  return [
    course?.title ?? words.arrivals.noCourse,
    markerShown(latestMarking.marker.name),
    shownMoment(latestMarking.at, course?.zone),
    ...(marked === undefined || marked.missing || course === null
      ? []
      : [words.arrivals.attempt(marked.attempt.number, assignment.attemptsAllowed)]),
    latenessSentence(view) ?? '',
  ]
    .filter(Boolean)
    .join(' · ');
}

/** The score as far as it goes. */
export function ScoreShown({ view }: { view: AssignmentView }) {
  const { assignment, score, state, stages } = view;
  if (score === null || assignment.possible === null)
    return state.kind === 'part marked' ? (
      <p className="text-sm whitespace-nowrap text-quiet">{words.arrivals.partMarked}</p>
    ) : null;
  return (
    <p className="whitespace-nowrap">
      {stages.final !== null && <span className="text-quiet">{words.arrivals.draftStage}, </span>}
      <b>{shownPoints(score)}</b> <span className="text-quiet">of {assignment.possible}</span>
      {state.kind === 'part marked' && <span className="text-quiet"> {words.arrivals.soFar}</span>}
    </p>
  );
}

/** One assignment that came back: what, from whom, when, the score, the tally in small, and what is missing. */
export const CameBackCard = memo(function CameBackCard({
  view,
  onMarked,
}: {
  view: AssignmentView;
  onMarked: (id: string) => void;
}) {
  const workspace = useWorkspace();
  const { assignment, latestMarking, tally, arrivedAt } = view;
  const lastVisitMs = useVisits((state) => state.lastVisitMs);
  if (latestMarking === null) return null;
  const done = isGoneThrough(view);
  const address = assignmentAddress(assignment.id);
  const first = tally.byChannel.find((c) => c.received > c.read);
  const isNew = lastVisitMs !== null && arrivedAt !== null && Date.parse(arrivedAt) > lastVisitMs;
  const markRead = () => {
    onMarked(assignment.id);
    void markAllRead(workspace, view).then(() =>
      toast(words.undo.markedAllRead, {
        action: { label: words.undo.undo, onClick: () => void undoAndTell(workspace, assignment.id) },
      }),
    );
  };
  return (
    <li
      className={clsx(
        'relative rounded-lg border border-rule bg-surface px-4 py-3',
        !done &&
          'before:absolute before:inset-y-3 before:-left-px before:w-[3px] before:rounded before:bg-accent',
      )}
    >
      <div className="flex items-baseline justify-between gap-4">
        <h2 className="min-w-0 font-serif text-[1.12rem] leading-snug font-semibold">
          <Link to={address} className="hover:underline">
            {assignment.title}
          </Link>
          {isNew && (
            <span className="ml-2 rounded border border-accent px-1 font-sans text-xs font-semibold text-accent">
              {words.arrivals.newHere}
            </span>
          )}
        </h2>
        <ScoreShown view={view} />
      </div>
      <div className="flex flex-wrap justify-between gap-x-6 text-sm text-quiet">
        <p>
          {factsOf(view)}
          {done && ` · ${words.arrivals.allRead(tally.received)}`}
        </p>
        <Counts view={view} />
      </div>
      <Remarkable view={view} />
      <div className="mt-2.5 flex flex-wrap items-center justify-between gap-x-4 gap-y-2">
        <TallyChips view={view} />
        {!done && (
          <span className="ml-auto flex items-center gap-2">
            <Button look="quiet" className="min-h-0 px-1 py-0.5 text-sm font-normal" onClick={markRead}>
              {words.arrivals.markRead}
              <span className="sr-only"> {assignment.title}</span>
            </Button>
            <Link
              to={first === undefined ? address : channelAddress(view, first.channel)}
              className="rounded-md px-2 py-0.5 font-semibold text-accent hover:underline"
            >
              {words.arrivals.read}
              <span className="sr-only"> {assignment.title}</span>
            </Link>
          </span>
        )}
      </div>
    </li>
  );
});

/** How much of the course grade it is: as the school says it, else as its rules make it. */
function Counts({ view }: { view: AssignmentView }) {
  const weight = useWeight(view);
  const told =
    view.assignment.counts ??
    (weight?.whole == null
      ? null
      : words.arrivals.weight(
          weight.soFar === null ? null : shownShare(weight.soFar),
          shownShare(weight.whole),
        ));
  return told === null ? null : <p>{told}</p>;
}

/** What is out of the ordinary: promises that nothing came of, changes after return, records that don't fit. */
function Remarkable({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  const { assignment, promised, scoreChange, contradictions } = view;
  const missing = promised.filter(({ state }) => state === 'missing');
  const changed = changedUnread(view);
  const address = assignmentAddress(assignment.id);
  const chip =
    'inline-flex items-baseline gap-2 rounded-md border border-dashed border-rule-strong px-2.5 py-0.5 text-sm hover:border-ink';
  if (missing.length + changed.length + contradictions.length === 0 && scoreChange === null) return null;
  return (
    <ul className="mt-2 flex flex-wrap gap-2 empty:hidden">
      {scoreChange !== null && !scoreChange.seen && (
        <li className={chip}>
          <b>{scoreChangeTold(view)}</b>
          <button
            type="button"
            className="font-semibold text-accent hover:underline"
            onClick={() => void markScoreSeen(workspace, assignment.id, scoreChange)}
          >
            {words.arrivals.seen}
          </button>
        </li>
      )}
      {changed.length > 0 && (
        <li>
          <Link to={address} className={chip}>
            {words.arrivals.changed(changed.length)}
          </Link>
        </li>
      )}
      {missing.map(({ id, said, place }) => (
        <li key={id}>
          <Link to={address} className={chip}>
            {words.arrivals.gap(said, words.promisePlaces[place])}
          </Link>
        </li>
      ))}
      {contradictions.length > 0 && (
        <li>
          <Link to={address} className={chip}>
            {words.arrivals.contradiction}
          </Link>
        </li>
      )}
    </ul>
  );
}

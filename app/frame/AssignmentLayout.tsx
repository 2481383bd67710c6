import { shownPoints } from '../shared/shown/figures.ts';
import { useNow, useWorkspace } from '../workspace/use-workspace.ts';
import clsx from 'clsx';
import { Redo2, Undo2 } from 'lucide-react';
import { useMemo, type ReactNode } from 'react';
import { Link, Outlet, useMatch, useParams } from 'react-router';
import { Button } from '../shared/controls/Controls.tsx';
import { Tooltip } from '../shared/controls/Tooltip.tsx';
import { useNarrow, useUndoKey } from '../shared/page/hooks.ts';
import { Line } from '../shared/line/Line.tsx';
import { StationElsewhere, StationNotice } from '../shared/line/StationNotice.tsx';
import { redoAndTell, undoAndTell } from '../shared/page/notify.ts';
import type { AssignmentOutlet } from '../shared/page/assignment-outlet.ts';
import { usePlaceTitle } from '../shared/page/place-title.ts';
import { latenessSentence, markerShown, stateSentence } from '../shared/line/state-words.ts';
import * as words from '../words/en.ts';
import { type AssignmentView } from '#core/assignment/view.ts';
import { useAssignmentView } from '../workspace/state/use-views.ts';
import { standing } from '#core/assignment/attempts.ts';
import { stationOf, worked } from '#core/assignment/line.ts';
import { stations, type Station } from '#core/line/stations.ts';
import { useDraftContent } from '../workspace/state/bodies.ts';
import { useDraftText } from '../workspace/state/draft-text.ts';
import { answersOf, useOutcomes } from '../workspace/state/outcomes.ts';
import { usePaper } from '../workspace/state/papers.ts';
import { assignmentAddress } from '../shared/page/addresses.ts';

/** Title, facts and the line of an assignment; the station's place below. */
export function AssignmentLayout() {
  const { assignmentId = '' } = useParams();
  const view = useAssignmentView(assignmentId);
  usePlaceTitle(view?.assignment.title ?? words.places.arrivals);
  if (view === null)
    return (
      <div className="mx-auto max-w-prose p-8">
        <h1 className="font-serif text-xl font-semibold">{words.assignment.missing}</h1>
        <p className="my-3 text-quiet">{words.assignment.missingLead}</p>
        <Link to="/" className="font-semibold text-accent hover:underline">
          {words.assignment.toArrivals}
        </Link>
      </div>
    );
  return <Stations view={view} />;
}

function Stations({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  const final = useAssignmentView(view.stages.final?.id ?? '');
  const work = useMemo(() => worked(view), [view]);
  const marked = usePaper(work.markedFile?.hash ?? null);
  const stored = useDraftContent(view.draft);
  const text = useDraftText(view.draft, stored);
  const live = useOutcomes(work, marked, work.markedFile !== null, view.draft?.id ?? null, text);
  const answers = useMemo(() => answersOf(work, live), [work, live]);
  const unanswered = useMemo(
    () => unansweredOf(final === null ? answers : answersOf(worked(final), null)),
    [final, answers],
  );
  const undo = () => void undoAndTell(workspace, view.assignment.id);
  const redo = () => void redoAndTell(workspace, view.assignment.id);
  useUndoKey(undo, redo);
  const content = stored?.content ?? null;
  const outlet: AssignmentOutlet = { view, work, marked, content, text, live, answers };
  const station = useStation();
  const low = station === 'read';
  const narrow = useNarrow();
  const undoButtons = <UndoButtons onUndo={undo} onRedo={redo} />;
  const title = (
    <Link to={assignmentAddress(view.assignment.id)} className="hover:underline">
      {view.assignment.title}
    </Link>
  );
  if (low)
    return (
      <div className="flex h-full flex-col">
        {/* While one reads, the height belongs to the paper. */}
        <div
          className={clsx(
            'flex items-baseline gap-x-5 border-b border-rule',
            narrow ? 'flex-wrap' : 'px-5 py-1',
          )}
        >
          <div className="flex min-w-0 items-baseline gap-3 max-md:w-full max-md:px-4">
            <h1 className="max-w-[19rem] min-w-0 truncate font-serif text-[1.05rem] font-semibold max-md:max-w-none max-md:flex-1">
              {title}
            </h1>
            {narrow && undoButtons}
          </div>
          {/* The title gives way before the line does. */}
          <div className="min-w-0 max-md:w-full md:max-w-[calc(100%-15rem)] md:flex-[1_0_auto]">
            <Line view={view} final={final} unanswered={unanswered} low />
          </div>
          {!narrow && undoButtons}
        </div>
        <div className="min-h-0 flex-1">
          <Outlet context={outlet} />
        </div>
      </div>
    );
  return (
    <div className="flex h-full flex-col">
      <div className="border-b border-rule px-5 pt-3 pb-1.5 max-md:px-0">
        <div className="flex flex-wrap items-baseline gap-x-4 max-md:px-4">
          <h1 className="font-serif text-[1.3rem] leading-tight font-semibold max-md:w-full max-md:truncate max-md:text-lg">
            {title}
          </h1>
          <Facts view={view} />
          <span className="ml-auto flex items-center gap-2">
            <Rule view={view} />
            {undoButtons}
          </span>
        </div>
        <Line view={view} final={final} unanswered={unanswered} />
      </div>
      <div className="min-h-0 flex-1">
        <StationPlace view={view} station={station}>
          <Outlet context={outlet} />
        </StationPlace>
      </div>
    </div>
  );
}

/** A station's place, or in its stead where it happens and why. What was begun here before is never put away. */
function StationPlace({
  view,
  station,
  children,
}: {
  view: AssignmentView;
  station: Station | null;
  children: ReactNode;
}) {
  if (station === null) return children;
  const { is } = stationOf(view, station);
  const isEmpty = is === 'nothing' || (is === 'elsewhere' && (view.draft === null || station === 'decide'));
  if (isEmpty) return <StationElsewhere view={view} station={station} />;
  if (is !== 'elsewhere') return children;
  return (
    <div className="flex h-full flex-col">
      <div className="p-4 pb-2">
        <StationNotice view={view} station={station} />
      </div>
      <div className="min-h-0 flex-1">{children}</div>
    </div>
  );
}

/** The station that the address is of; null on other pages of an assignment. */
function useStation(): Station | null {
  const place = useMatch('/a/:assignmentId/:place')?.params.place;
  return stations.find((station) => station === place) ?? null;
}

function unansweredOf(answers: AssignmentOutlet['answers']): number {
  return [...answers.values()].filter((answer) => !answer.answered).length;
}

function UndoButtons({ onUndo, onRedo }: { onUndo: () => void; onRedo: () => void }) {
  return (
    <span className="inline-flex">
      <Tooltip text={words.undo.undo}>
        <Button look="quiet" className="min-h-0 px-1 py-0" aria-label={words.undo.undo} onClick={onUndo}>
          <Undo2 size={17} aria-hidden />
        </Button>
      </Tooltip>
      <Tooltip text={words.undo.redo}>
        <Button look="quiet" className="min-h-0 px-1 py-0" aria-label={words.undo.redo} onClick={onRedo}>
          <Redo2 size={17} aria-hidden />
        </Button>
      </Tooltip>
    </span>
  );
}

function Facts({ view }: { view: AssignmentView }) {
  const { assignment, course, latestMarking, score, attempts, state } = view;
  const last = standing(attempts).at(-1)?.attempt.number;
  const late = latenessSentence(view);
  return (
    <p className="text-sm text-quiet">
      {[
        course?.title,
        latestMarking === null ? course?.instructor.name : markerShown(latestMarking.marker.name),
      ]
        .filter(Boolean)
        .join(' · ')}
      {score !== null && assignment.possible !== null && (
        <>
          {' · '}
          <b className="text-ink">{words.assignment.of(shownPoints(score), assignment.possible)}</b>
        </>
      )}
      {late !== null && ` · ${late}`}
      {course !== null &&
        last !== undefined &&
        state.kind === 'finished' &&
        ` · ${words.arrivals.attempt(last, assignment.attemptsAllowed)}`}
    </p>
  );
}

/** What the rules say now, in one phrase. */
function Rule({ view }: { view: AssignmentView }) {
  const atMs = useNow();
  return <p className="text-sm text-quiet">{stateSentence(view, atMs)}</p>;
}

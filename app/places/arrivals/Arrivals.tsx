import { useNow, useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { Button, Empty } from '../../shared/controls/Controls.tsx';
import { useGrowing } from '../../shared/page/growing.ts';
import { useKeys, useUndoKey } from '../../shared/page/hooks.ts';
import { nextUnreadAnywhere } from '../../shared/remark/next-unread.ts';
import { redoAndTell, undoAndTell } from '../../shared/page/notify.ts';
import { isPastTerm } from '../../shared/page/past-term.ts';
import { usePlaceTitle } from '../../shared/page/place-title.ts';
import { useTakeIn } from '../../frame/taking-in/use-take-in.ts';
import * as words from '../../words/en.ts';
import { isGoneThrough, unreadIn, type AssignmentView } from '#core/assignment/view.ts';
import { useAllViews } from '../../workspace/state/use-views.ts';
import { useVisits } from '../../workspace/state/visits.ts';
import { CameBackCard } from './CameBackCard.tsx';
import { useFrozenOrder } from './frozen-order.ts';
import { PastTerms } from './PastTerms.tsx';
import { ReadRow } from './ReadRow.tsx';
import { DueNext, Idle, OpenAgain, Waiting } from './Sidelines.tsx';
import { remarkAddress } from '../../shared/page/addresses.ts';

/** Unread first, then the newest. */
function cameBack(views: readonly AssignmentView[]): AssignmentView[] {
  return views
    .filter((view) => view.latestMarking !== null)
    .sort(
      (x, y) =>
        Number(isGoneThrough(x)) - Number(isGoneThrough(y)) ||
        (y.latestMarking?.at ?? '').localeCompare(x.latestMarking?.at ?? ''),
    );
}

/** The first screen: what came back, what is open for another attempt, waiting, and due. */
export function Arrivals() {
  const atMs = useNow();
  const workspace = useWorkspace();
  usePlaceTitle(words.places.arrivals);
  const all = useAllViews();
  const connection = useWorkspaceState((state) => state.connection);
  const views = all.filter((view) => !isPastTerm(view, atMs));
  const past = all.filter((view) => isPastTerm(view, atMs));
  const justArrived = useVisits((state) => state.justArrived);
  const shown = useFrozenOrder(
    cameBack(views).map((view) => ({
      id: view.assignment.id,
      group: isGoneThrough(view) ? 'read' : 'unread',
    })),
    justArrived,
  );
  const byId = new Map(all.map((view) => [view.assignment.id as string, view]));
  const inGroup = (group: string) =>
    shown.rows.flatMap((row) => (row.group === group ? (byId.get(row.id) ?? []) : []));
  const [unread, unreadEnd] = useGrowing(inGroup('unread'));
  const [read, readEnd] = useGrowing(inGroup('read'));
  useEffect(() => () => workspace.visits.forgetArrivals(), [workspace]);
  useNextUnreadKey(all);
  const [lastMarked, setLastMarked] = useState<string | null>(null);
  useUndoKey(
    () => {
      if (lastMarked !== null) void undoAndTell(workspace, lastMarked);
    },
    () => {
      if (lastMarked !== null) void redoAndTell(workspace, lastMarked);
    },
  );
  return (
    <div className="mx-auto grid grid-cols-1 max-w-[84rem] gap-8 p-7 max-md:p-4 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <section aria-labelledby="came-back">
        <Heading views={all} />
        <JustArrived count={shown.heldBack} onShow={shown.again} />
        {shown.rows.length === 0 && shown.heldBack === 0 ? (
          <div className="mt-4">
            <Empty>
              {workspace.identity.kind === 'files alone'
                ? words.arrivals.emptyAlone
                : connection === 'asking'
                  ? words.arrivals.asking
                  : words.arrivals.empty}
            </Empty>
          </div>
        ) : (
          <ul className="grid gap-2.5">
            {unread.map((view) => (
              <CameBackCard key={view.assignment.id} view={view} onMarked={setLastMarked} />
            ))}
            <li ref={unreadEnd} aria-hidden />
          </ul>
        )}
        {read.length > 0 && (
          <>
            <h2 className="mt-6 mb-1 font-serif text-[1.12rem] font-semibold">
              {words.arrivals.goneThrough}
            </h2>
            <ul>
              {read.map((view) => (
                <ReadRow key={view.assignment.id} view={view} />
              ))}
              <li ref={readEnd} aria-hidden />
            </ul>
          </>
        )}
        <PastTerms views={past} onMarked={setLastMarked} />
      </section>
      <aside className="grid grid-cols-1 content-start gap-8">
        <LittleTime views={views} />
        {workspace.identity.kind === 'student' && (
          <>
            <OpenAgain views={views} />
            <Waiting views={views} />
            <DueNext views={views} />
            <Idle views={views} />
          </>
        )}
        <ChooseFile />
      </aside>
    </div>
  );
}

/** How much is not read, since when, and the way to the next of it. */
function Heading({ views }: { views: readonly AssignmentView[] }) {
  const lastVisitMs = useVisits((state) => state.lastVisitMs);
  const navigate = useNavigate();
  const back = views.filter((view) => view.latestMarking !== null);
  const notRead = back.filter((view) => unreadIn(view) > 0);
  const isNew = back.filter(
    ({ arrivedAt }) => lastVisitMs !== null && arrivedAt !== null && Date.parse(arrivedAt) > lastVisitMs,
  );
  const next = nextUnreadAnywhere(views, null);
  return (
    <div className="mb-3 flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
      <div>
        <h1 id="came-back" className="font-serif text-xl font-semibold">
          {words.arrivals.title}
        </h1>
        {back.length > 0 && (
          <p className="text-sm text-quiet">
            {words.arrivals.lead(
              notRead.length,
              notRead.reduce((sum, view) => sum + unreadIn(view), 0),
            )}
            {isNew.length > 0 && ` ${words.arrivals.newSince(isNew.length)}`}
          </p>
        )}
      </div>
      {next !== null && (
        <Button onClick={() => void navigate(remarkAddress(next.remark))}>{words.arrivals.nextUnread}</Button>
      )}
    </div>
  );
}

function useNextUnreadKey(views: readonly AssignmentView[]): void {
  const navigate = useNavigate();
  useKeys({
    '.': () => {
      const next = nextUnreadAnywhere(views, null);
      if (next !== null) void navigate(remarkAddress(next.remark));
    },
  });
}

/** What came back while one looks: it is shown when asked for, so that nothing jumps. */
function JustArrived({ count, onShow }: { count: number; onShow: () => void }) {
  const workspace = useWorkspace();
  const show = () => {
    workspace.visits.forgetArrivals();
    onShow();
  };
  return (
    <div role="status">
      {count > 0 && (
        <p className="mb-2.5 flex items-center justify-between gap-4 rounded-lg border border-accent px-4 py-2">
          <b>{words.arrivals.arrived(count)}</b>
          <Button look="quiet" className="min-h-0 py-0" onClick={show}>
            {words.arrivals.showNew}
          </Button>
        </p>
      )}
    </div>
  );
}

/** The way to what is best done in a little time. */
function LittleTime({ views }: { views: readonly AssignmentView[] }) {
  if (!views.some(({ tasks }) => tasks.some(({ task }) => !task.done))) return null;
  return (
    <Link to="/week?minutes=20" className="font-semibold text-accent hover:underline">
      {words.arrivals.littleTime}
    </Link>
  );
}

function ChooseFile() {
  const takeIn = useTakeIn();
  return (
    <label className="block rounded-lg border border-dashed border-rule-strong/70 p-4 text-center text-sm text-quiet focus-within:outline-2 focus-within:outline-accent hover:border-ink">
      {words.arrivals.drop}
      <span className="block font-semibold text-accent">{words.arrivals.choose}</span>
      <input
        type="file"
        multiple
        className="sr-only"
        onChange={(event) => {
          takeIn([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
    </label>
  );
}

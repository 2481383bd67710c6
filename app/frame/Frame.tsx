import { useWorkspace, useWorkspaceState, WorkspaceContext } from '../workspace/use-workspace.ts';
import clsx from 'clsx';
import {
  CalendarDays,
  Hourglass,
  Inbox,
  MessagesSquare,
  Scale,
  Settings2,
  SquareLibrary,
  type LucideIcon,
} from 'lucide-react';
import { lazy, Suspense, useEffect, type ReactNode } from 'react';
import { NavLink, Outlet, useNavigate } from 'react-router';
import { toast, Toaster } from 'sonner';
import { useNarrow } from '../shared/page/hooks.ts';
import * as words from '../words/en.ts';
import { useOpenWorkspace, useSession, useWayIn } from '../workspace/state/use-session.ts';
import { SignIn } from '../places/signing-in/SignIn.tsx';
import { DropTarget } from './taking-in/DropTarget.tsx';
import { Sign } from './Sign.tsx';
import { useTakingIn } from './taking-in/use-take-in.ts';
import { assignmentAddress } from '../shared/page/addresses.ts';

const PLACES: readonly { to: string; label: string; icon: LucideIcon }[] = [
  { to: '/', label: words.places.arrivals, icon: Inbox },
  { to: '/standing', label: words.places.standing, icon: Scale },
  { to: '/week', label: words.places.week, icon: CalendarDays },
  { to: '/ask', label: words.places.asks, icon: MessagesSquare },
  { to: '/shelf', label: words.places.shelf, icon: SquareLibrary },
  { to: '/settings', label: words.places.settings, icon: Settings2 },
];

/** The others stand at its end. */
const IN_BAR = new Set(['/', '/standing', '/week', '/shelf']);

const TOAST = {
  fontFamily: '"Atkinson Hyperlegible Next Variable", sans-serif',
  fontSize: '0.9rem',
  background: 'var(--surface)',
  color: 'var(--ink)',
  borderColor: 'var(--rule-strong)',
};

const TOAST_CANCEL = { background: 'var(--rule)', color: 'var(--ink)' };
const TOAST_ACTION = { background: 'var(--accent)', color: 'var(--on-accent)' };

/** The frame of every place: the bar on top, places at the bottom edge on a phone, notices, and the way in. */
export function Frame() {
  const workspace = useOpenWorkspace();
  const wayIn = useWayIn();
  const narrow = useNarrow();
  return (
    <div className="flex h-dvh flex-col">
      <a
        href="#content"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-surface focus:p-2"
      >
        {words.skip}
      </a>
      {workspace === null ? (
        <>
          <Bar />
          <Content>{wayIn !== 'asking' && <SignIn />}</Content>
        </>
      ) : (
        <WorkspaceContext key={workspace.name} value={workspace}>
          <OpenFrame />
        </WorkspaceContext>
      )}
      <Toaster
        // On a phone what is decided with stands at the bottom.
        position={narrow ? 'top-center' : 'bottom-left'}
        closeButton
        // Nothing turns while a file is read: drawing that would take from the reading, and the pages are counted.
        icons={{ loading: <Hourglass aria-hidden size={16} /> }}
        mobileOffset={{ top: 8 }}
        toastOptions={{
          duration: 6000,
          style: TOAST,
          actionButtonStyle: TOAST_ACTION,
          cancelButtonStyle: TOAST_CANCEL,
        }}
      />
    </div>
  );
}

function Content({ children }: { children: ReactNode }) {
  return (
    <main id="content" tabIndex={-1} className="relative min-h-0 flex-1 overflow-auto outline-none">
      {children}
    </main>
  );
}

// Comes when something is taken in: a first page doesn't need it.
const TakeInDialog = lazy(async () => ({
  default: (await import('./taking-in/TakeInDialog.tsx')).TakeInDialog,
}));

/** The frame around an open workspace. */
function OpenFrame() {
  useMarkingNotices();
  useReminder();
  const { isShown } = useWorkspace();
  const isAsked = useTakingIn(({ pending, question }) => pending.length > 0 || question !== null);
  return (
    <>
      <Bar>
        <PlacesInBar />
      </Bar>
      <Banner />
      {isShown && (
        <Suspense>
          <Shown />
        </Suspense>
      )}
      <Counted />
      <Content>
        <DropTarget>
          <Outlet />
          {isAsked && (
            <Suspense>
              <TakeInDialog />
            </Suspense>
          )}
        </DropTarget>
      </Content>
      <PhonePlaces />
    </>
  );
}

// Comes when somebody else's is looked at.
const Shown = lazy(async () => ({ default: (await import('./Shown.tsx')).Shown }));

// Comes when time is counted.
const Running = lazy(async () => ({ default: (await import('./Running.tsx')).Running }));

function Counted() {
  const isCounted = useWorkspaceState(({ records }) =>
    [...records.spells.values()].some(({ to }) => to === null),
  );
  return isCounted ? (
    <Suspense>
      <Running />
    </Suspense>
  ) : null;
}

function useMarkingNotices(): void {
  const workspace = useWorkspace();
  const session = useSession();
  const navigate = useNavigate();
  useEffect(
    () =>
      session.onNewMarking((marking) => {
        const assignment = workspace.records.assignments.get(marking.assignmentId);
        const { attempts, markings } = workspace.records;
        const again = (attempts.get(marking.attemptId)?.number ?? 1) > 1;
        const changed = [...markings.values()].some(
          (one) => one.attemptId === marking.attemptId && one.id !== marking.id,
        );
        const address = assignmentAddress(marking.assignmentId, again ? 'send' : '');
        // Where it is shown already, a notice would lie over what it is about.
        if (window.location.pathname === address) return;
        const said = changed ? words.notice.changed : words.notice.marked;
        toast(said(marking.marker.name, assignment?.title ?? ''), {
          duration: Infinity,
          action: {
            label: words.notice.look,
            onClick: () => void navigate(address),
          },
        });
      }),
    [navigate, session, workspace],
  );
}

/** Reminds of a backup that is old, once the page is at rest. */
function useReminder(): void {
  const workspace = useWorkspace();
  const navigate = useNavigate();
  useEffect(() => {
    const timer = setTimeout(() => {
      void import('../shared/files/backup-reminder.ts').then(({ remind }) =>
        remind(workspace, () => void navigate('/shelf')),
      );
    }, REMINDED_AFTER_MS);
    return () => clearTimeout(timer);
  }, [workspace, navigate]);
}

/** Whoever just came wants to see what came back. */
const REMINDED_AFTER_MS = 20_000;

function useToAsk(): number {
  const queries = useWorkspaceState((state) => state.records.queries);
  return [...queries.values()].filter((query) => query.putAt === null).length;
}

function Bar({ children }: { children?: ReactNode }) {
  return (
    <header className="flex items-center gap-6 border-b print:hidden border-rule px-5 max-md:px-4">
      <NavLink to="/" className="flex items-center gap-2 py-2.5 font-bold text-accent">
        <Sign />
        {words.name}
      </NavLink>
      {children}
    </header>
  );
}

function PlacesInBar() {
  const toAsk = useToAsk();
  const link = ({ isActive }: { isActive: boolean }) =>
    clsx(
      'border-b-2 px-0.5 pt-3 pb-2.5',
      isActive ? 'border-accent font-bold' : 'border-transparent text-quiet hover:text-ink',
    );
  return (
    <>
      <nav aria-label={words.frame.placesLabel} className="flex gap-5 max-md:hidden">
        {PLACES.filter(({ to }) => IN_BAR.has(to)).map(({ to, label }) => (
          <NavLink key={to} to={to} end={to === '/'} className={link}>
            {label}
          </NavLink>
        ))}
      </nav>
      <div className="ml-auto flex items-center gap-5">
        <NavLink to="/ask" className={({ isActive }) => clsx(link({ isActive }), 'max-md:hidden')}>
          {words.frame.toAsk(toAsk)}
        </NavLink>
        <Saving />
        <NavLink to="/settings" className={({ isActive }) => clsx(link({ isActive }), 'max-md:hidden')}>
          {words.places.settings}
        </NavLink>
      </div>
    </>
  );
}

function Saving() {
  const saving = useWorkspaceState((state) => state.saving);
  const connection = useWorkspaceState((state) => state.connection);
  return (
    <span role="status" className="text-sm text-quiet">
      <span className={clsx(saving === 'failed' && 'font-bold text-ink')}>{words.frame[saving]}</span>
      <span className={clsx(saving === 'failed' && 'max-md:hidden')}>
        {' '}
        · {words.frame.connection[connection]}
      </span>
    </span>
  );
}

/** What the student should know about the whole: nothing here bars the way. */
function Banner() {
  const { identity } = useWorkspace();
  const { connection, outdated, unreadFacts } = useWorkspaceState((state) => state);
  const text = outdated
    ? words.frame.outdated
    : identity.kind === 'student' && connection === 'not reached'
      ? words.frame.notReached
      : identity.kind === 'student' && connection === 'signed out'
        ? words.frame.signedOut
        : identity.kind === 'student' && connection === 'not understood'
          ? words.frame.notUnderstood
          : unreadFacts.length > 0
            ? words.frame.unreadFacts(
                unreadFacts.length,
                unreadFacts.map(({ kind, problem }) => words.frame.unreadKind(kind, problem)).join('; '),
              )
            : null;
  if (text === null) return null;
  return (
    <p role="alert" className="border-b border-rule bg-sunken px-5 py-2 text-sm">
      {text}
    </p>
  );
}

function PhonePlaces() {
  const toAsk = useToAsk();
  return (
    <nav aria-label={words.frame.placesLabel} className="flex border-t border-rule bg-paper md:hidden">
      {PLACES.map(({ to, label, icon: Icon }) => (
        <NavLink
          key={to}
          to={to}
          end
          className={({ isActive }) =>
            clsx(
              'flex flex-1 flex-col items-center gap-0.5 border-t-2 py-1.5 text-xs',
              isActive ? 'border-accent font-bold' : 'border-transparent',
            )
          }
        >
          <Icon size={18} aria-hidden />
          {to === '/ask' ? words.frame.toAsk(toAsk) : label}
        </NavLink>
      ))}
    </nav>
  );
}

import clsx from 'clsx';
import { useEffect } from 'react';
import { NavLink, useLocation } from 'react-router';
import { lineOfView, type LineStation } from '#core/assignment/line.ts';
import type { Station, StationState } from '#core/line/stations.ts';
import type { Decision } from '#core/model/work.ts';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { decisionLook } from '../remark/decision-look.ts';
import { useNarrow, useSize } from '../page/hooks.ts';
import { shownDay } from '../shown/shown.ts';
import { assignmentAddress } from '../page/addresses.ts';

const ORDER: readonly (Decision | 'carry')[] = ['act', 'ask', 'keep', 'carry', 'decline'];
const HEIGHT = 34;
const MIDDLE = HEIGHT / 2;
const STRAND_GAP = 4.5;

/** Where each station stands on the line, as a share of its width. */
const AT: Record<Station, number> = {
  read: 0.012,
  decide: 0.165,
  plan: 0.45,
  revise: 0.62,
  check: 0.765,
  send: 0.895,
};

function figureOf({ station, shows: view, progress }: LineStation, unanswered: number | null): string {
  const { about, tasks, draft, submission, assignment, course } = view;
  if (progress === 'not needed') return words.line.notNeeded;
  const until =
    view.attempts.length === 0
      ? (assignment.extendedTo ?? assignment.dueAt ?? assignment.closesAt)
      : assignment.closesAt;
  switch (station) {
    case 'read':
      return words.line.of(about.tally.read, about.tally.received);
    case 'decide':
      return words.line.of(about.tally.decided, about.tally.received);
    case 'plan':
      return words.line.tasks(tasks.filter((p) => p.task.done).length, tasks.length);
    case 'revise':
      return submission ? words.line.sent : draft ? words.line.begun : words.line.notBegun;
    case 'check':
      return unanswered !== null &&
        submission === null &&
        view.attempts.length < 2 &&
        about.tally.received > 0
        ? words.line.unanswered(unanswered)
        : '';
    case 'send':
      if (submission !== null)
        return view.state.kind === 'waiting again' ? words.line.waiting : words.line.sent;
      return until === null ? '' : words.line.by(shownDay(until, course?.zone));
  }
}

/** The six stations of an assignment; between Decide and Check the line forks into what was decided. */
export function Line({
  view,
  final,
  unanswered,
  low = false,
}: {
  view: AssignmentView;
  /** For a draft stage the final that it leads to. */
  final: AssignmentView | null;
  /** Remarks without an answer; of a draft stage those of its final. */
  unanswered: number;
  /** One row, as it stands while one reads. */
  low?: boolean;
}) {
  const [ref, { width }] = useSize<HTMLElement>();
  const narrow = useNarrow();
  const states = lineOfView(view, final, unanswered);
  const { pathname } = useLocation();
  useEffect(() => {
    // On a narrow screen the line is wider than the window: the station that is open comes into sight.
    const current = ref.current?.querySelector('[aria-current="page"]');
    if (narrow) current?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [ref, narrow, pathname]);
  return (
    <nav ref={ref} aria-label={words.line.label} className="relative">
      {!narrow && !low && width > 0 && (
        <LineDrawing width={width} states={states} counts={view.about.countByDecision} />
      )}
      <ol
        className={clsx(
          narrow && 'row-fades flex gap-5 overflow-x-auto pr-10 pl-4',
          narrow && (low ? 'pb-0.5' : 'py-1.5'),
          low && !narrow && 'flex items-baseline gap-2 overflow-x-auto text-sm',
          !narrow && !low && 'relative',
        )}
        style={narrow || low ? {} : { height: 26 }}
      >
        {states.map((one) => {
          const { station, opens } = one;
          return (
            <li
              key={station}
              className={clsx(
                'whitespace-nowrap',
                low &&
                  !narrow &&
                  'flex items-baseline gap-2 not-first:flex-1 not-first:before:min-w-2 not-first:before:flex-1 not-first:before:self-center not-first:before:border-t not-first:before:border-rule-strong',
              )}
              style={narrow || low ? {} : { position: 'absolute', left: width * AT[station] - 8 }}
            >
              <NavLink
                to={assignmentAddress(opens.assignmentId, opens.station)}
                className={({ isActive }) =>
                  clsx(
                    'inline-block py-0.5',
                    isActive &&
                      'text-accent [&_.station]:underline [&_.station]:decoration-2 [&_.station]:underline-offset-4',
                  )
                }
              >
                <b className="station">{words.line.stations[station]}</b>{' '}
                <span className="text-sm text-quiet">
                  {figureOf(one, one.shows === view ? unanswered : null)}
                  {one.shows !== view && <InFinal isFirst={station === 'plan'} />}
                </span>
              </NavLink>
              {station === 'decide' && !narrow && !low && (
                <DecisionCounts counts={view.about.countByDecision} />
              )}
            </li>
          );
        })}
      </ol>
    </nav>
  );
}

/** That a station is the final's: in sight at the first of them, where there is room for it. */
function InFinal({ isFirst }: { isFirst: boolean }) {
  return <span className={isFirst ? undefined : 'sr-only'}> · {words.stations.inFinal}</span>;
}

function DecisionCounts({ counts }: { counts: AssignmentView['countByDecision'] }) {
  return ORDER.filter((decision) => counts[decision] > 0).map((decision) => {
    const { icon: Icon, text } = decisionLook[decision];
    return (
      <span
        key={decision}
        className={clsx('ml-2 inline-flex items-center gap-0.5 text-sm font-semibold', text)}
      >
        <Icon size="0.95em" aria-hidden />
        <span className="sr-only">{words.decisions[decision]}</span>
        {counts[decision]}
      </span>
    );
  });
}

function LineDrawing({
  width,
  states,
  counts,
}: {
  width: number;
  states: readonly StationState[];
  counts: AssignmentView['countByDecision'];
}) {
  const x = (station: Station) => width * AT[station];
  const strands = ORDER.filter((decision) => counts[decision] > 0);
  const progressOf = (station: Station) => states.find((s) => s.station === station)?.progress ?? 'not begun';
  const straight = (from: Station, to: Station) => {
    const done =
      progressOf(to) === 'done' || (progressOf(from) === 'done' && progressOf(to) !== 'not needed');
    return (
      <path
        key={from}
        d={`M${x(from)} ${MIDDLE}H${x(to)}`}
        stroke={done ? 'var(--ink)' : 'var(--rule-strong)'}
        strokeDasharray={progressOf(to) === 'not needed' || to === 'send' ? '3 4' : undefined}
      />
    );
  };
  const fork = Math.min(80, (x('plan') - x('decide')) / 2);
  return (
    <svg aria-hidden width={width} height={HEIGHT} className="block" fill="none" strokeWidth={1.7}>
      {straight('read', 'decide')}
      {strands.length === 0
        ? [straight('decide', 'plan'), straight('plan', 'revise'), straight('revise', 'check')]
        : strands.map((decision, index) => {
            const y = MIDDLE + (index - (strands.length - 1) / 2) * STRAND_GAP;
            const [from, to] = [x('decide'), x('check')];
            const d = `M${from} ${MIDDLE}C${from + fork * 0.5} ${MIDDLE} ${from + fork * 0.5} ${y} ${from + fork} ${y}H${to - fork}C${to - fork * 0.5} ${y} ${to - fork * 0.5} ${MIDDLE} ${to} ${MIDDLE}`;
            return <path key={decision} d={d} stroke={decisionLook[decision].color} />;
          })}
      {straight('check', 'send')}
      {states.map(({ station, progress }) => (
        <circle
          key={station}
          cx={x(station)}
          cy={MIDDLE}
          r={progress === 'done' ? 6.5 : 6}
          fill={progress === 'done' ? 'var(--ink)' : 'var(--paper)'}
          stroke={progress === 'not begun' || progress === 'not needed' ? 'var(--rule-strong)' : 'var(--ink)'}
          strokeDasharray={progress === 'not needed' ? '2 2.5' : undefined}
        />
      ))}
    </svg>
  );
}

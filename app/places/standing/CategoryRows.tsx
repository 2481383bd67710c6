import { Explained } from '../../shared/controls/Explained.tsx';
import { useNow } from '../../workspace/use-workspace.ts';
import clsx from 'clsx';
import { ChevronDown } from 'lucide-react';
import { memo, useId, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { toShown } from '#core/scores/fraction.ts';
import { useGrowing } from '../../shared/page/growing.ts';
import { shownShare, shownShares } from '../../shared/shown/figures.ts';
import { stateSentence } from '../../shared/line/state-words.ts';
import { channelAddress } from '../../shared/line/TallyChips.tsx';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import {
  reachOf,
  type Ifs,
  type Standing,
  type StandingCategory,
  type StandingRow,
} from '#core/assignment/standing.ts';
import { IfField } from './IfField.tsx';
import { ScoreArithmetic } from './ScoreArithmetic.tsx';
import { assignmentAddress } from '../../shared/page/addresses.ts';

/** There may be several categories in sight, so that each begins with few. */
const ROWS_AT_ONCE = 6;

/** The assignments of a category, each with its state, score and what it is worth; a figure opens into its arithmetic. */
export function CategoryRows({
  standing,
  category,
  ifs,
}: {
  standing: Standing;
  category: StandingCategory;
  ifs: Ifs | null;
}) {
  const { part, drop } = category;
  const [rows, end] = useGrowing(category.rows, ROWS_AT_ONCE);
  const brings = shownShares(category.rows.map((row) => row.part.brings));
  const facts = [
    standing.graded.scheme === 'weighted' && category.id !== ''
      ? words.standing.weightOf(toShown(part.weight, 2))
      : '',
    drop > 0 ? words.standing.drops(drop) : '',
    category.extraCredit ? words.standing.extraCategory : '',
  ].filter(Boolean);
  return (
    <section aria-label={category.title === '' ? words.standing.noCategory : category.title}>
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2 className="font-serif text-[1.12rem] font-semibold">
          {category.title === '' ? words.standing.noCategory : category.title}
        </h2>
        <p className="text-sm text-quiet">{facts.join(' · ')}</p>
        {part.ratio !== null && (
          <p className="ml-auto text-sm">
            <b>{words.standing.percent(shownShare(part.ratio))}</b>{' '}
            <span className="text-quiet">
              {words.standing.ofCounted(toShown(part.earned, 2), toShown(part.possible, 2))}
            </span>
          </p>
        )}
      </div>
      {part.ratio === null && <p className="text-sm text-quiet">{words.standing.nothingCounted}</p>}
      <ul className="mt-1">
        {rows.map((row, i) => (
          <Row
            key={row.view.assignment.id}
            standing={standing}
            row={row}
            brings={brings[i]}
            ifScore={ifs?.scoreById.get(row.view.assignment.id) ?? null}
            ifCounts={ifCounts(ifs, row.view.assignment.id)}
          />
        ))}
        <li ref={end} aria-hidden />
      </ul>
    </section>
  );
}

/** What an "if" score would count by the policy, as shown; null where there is none. */
function ifCounts(ifs: Ifs | null, assignmentId: string): string | null {
  if (ifs?.scoreById.has(assignmentId) !== true) return null;
  const score = ifs.grade.scoreByAssignment.get(assignmentId) ?? null;
  return score === null ? null : toShown(score, 2);
}

interface RowProps {
  readonly standing: Standing;
  readonly row: StandingRow;
  readonly brings: string;
  readonly ifScore: string | null;
  readonly ifCounts: string | null;
}

/** A key in one row draws no other: there may be hundreds. */
const Row = memo(function Row({ standing, row, brings, ifScore, ifCounts: counts }: RowProps) {
  const atMs = useNow();
  const { view, part } = row;
  const { assignment } = view;
  const [open, setOpen] = useState(false);
  const id = useId();
  const counted = part.counting === 'counts' || part.counting === 'extra';
  // What was never sent and can't be any more counts once the school says so: what that would be.
  const ifZero = useMemo(
    () =>
      view.state.kind === 'closed' && part.counting === 'not marked'
        ? (reachOf(standing.graded, assignment.id)?.least ?? null)
        : null,
    [view.state.kind, part.counting, standing.graded, assignment.id],
  );
  return (
    <li
      className="border-t border-rule py-2.5 [contain-intrinsic-size:auto_5rem] [content-visibility:auto]"
      data-row={assignment.id}
    >
      <div className="grid grid-cols-[minmax(0,1fr)_auto] items-start gap-x-4 gap-y-1 sm:grid-cols-[minmax(0,1fr)_8.5rem_6.5rem_6rem]">
        <div className="min-w-0">
          <Link to={assignmentAddress(assignment.id)} className="font-semibold hover:underline">
            {assignment.title}
          </Link>
          <p className="text-sm text-quiet">
            {stateSentence(view, atMs)}
            {ifZero !== null && ` · ${words.standing.ifZero(shownShare(ifZero))}`}
          </p>
          <Channels view={view} />
        </div>
        <button
          type="button"
          aria-expanded={open}
          aria-controls={id}
          aria-label={words.standing.open(assignment.title)}
          onClick={() => setOpen(!open)}
          className="flex items-baseline justify-end gap-1 rounded px-1 text-right whitespace-nowrap hover:bg-sunken"
        >
          <b className={clsx(part.counting === 'dropped' && 'line-through')} data-score>
            {part.score === null ? '–' : toShown(part.score, 2)}
          </b>
          <span className="text-quiet">/ {toShown(part.possible, 2)}</span>
          <ChevronDown
            size={15}
            aria-hidden
            className={clsx('self-center text-quiet', open && 'rotate-180')}
          />
        </button>
        <p className="text-sm whitespace-nowrap text-quiet sm:text-right">
          {counted ? (
            <Explained text={words.standing.worthTitle}>{words.standing.ofGrade(brings)}</Explained>
          ) : (
            words.standing.counting[part.counting]
          )}
          {part.counting === 'extra' && ` (${words.standing.counting.extra})`}
        </p>
        <IfField
          assignment={assignment}
          again={view.state.kind === 'open for another attempt'}
          marked={part.score !== null}
          ifScore={ifScore}
          counts={counts}
        />
      </div>
      {open && (
        <div id={id} className="mt-2 border-l-2 border-rule pl-4 text-sm">
          <ScoreArithmetic standing={standing} row={row} brings={brings} />
        </div>
      )}
    </li>
  );
});

/** The channels that feedback came in; each leads to it. */
function Channels({ view }: { view: AssignmentView }) {
  if (view.tally.byChannel.length === 0) return null;
  return (
    <ul aria-label={words.standing.feedback} className="flex flex-wrap gap-x-3 text-sm">
      {view.tally.byChannel.map(({ channel, received, announced }) => (
        <li key={channel}>
          <Link to={channelAddress(view, channel)} className="text-quiet hover:text-ink hover:underline">
            {words.channels[channel]} {received + announced}
          </Link>
        </li>
      ))}
    </ul>
  );
}

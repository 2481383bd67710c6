import { useMemo } from 'react';
import { Link } from 'react-router';
import {
  beforeAndAfter,
  type BeforeAfter as Compared,
  type Changed,
  type CriterionChange,
} from '#core/marked-again/before-after.ts';
import { hundredths, type AssignmentView } from '#core/assignment/view.ts';
import type { Fraction } from '#core/scores/fraction.ts';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { Fold } from '../../shared/controls/Fold.tsx';
import { assignmentAddress, remarkAddress } from '../../shared/page/addresses.ts';
import { shownChange, shownPoints } from '../../shared/shown/figures.ts';
import * as words from '../../words/en.ts';
import { useNow, useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { useVisits } from '../../workspace/state/visits.ts';
import { CourseMoved } from './CourseMoved.tsx';
import { PostChanged } from './PostChanged.tsx';
import { QuestionsChanged } from './QuestionsChanged.tsx';

/** The first result and the newest, a row for each criterion, item or question, with what was changed for it. */
export function BeforeAfter({ view }: { view: AssignmentView }) {
  const { assignment, score } = view;
  const cameJustNow = useVisits(({ justArrived }) => justArrived.has(assignment.id));
  const { views } = useWorkspace();
  const records = useWorkspaceState((state) => state.records);
  const atMs = useNow();
  const compared = useMemo(() => {
    const known = views.knownBefore(records, atMs, assignment.id);
    return beforeAndAfter(view, (kind) => known[kind]);
  }, [views, records, atMs, view, assignment.id]);
  if (compared === null) return null;
  const { last, criteria } = compared;
  return (
    <section>
      <SectionTitle>{words.send.compareTitle}</SectionTitle>
      {cameJustNow && (
        <p role="status" className="mt-1 font-semibold">
          {words.notice.marked(last.marker.name, assignment.title)}
        </p>
      )}
      <Whole compared={compared} />
      {score !== null && assignment.possible !== null && (
        <p className="mt-1">{words.send.countsLine(shownPoints(score), assignment.possible)}</p>
      )}
      <CourseMoved view={view} />
      {last.overall !== '' && <p className="mt-3 max-w-prose font-serif">{last.overall}</p>}
      <ol className="mt-4 grid gap-0">
        {criteria.map((one) => (
          <Row key={one.criterion?.id ?? ''} row={one} hasCriteria={view.rubric !== null} />
        ))}
      </ol>
      <QuestionsChanged view={view} />
      {view.kind === 'posts' && <PostChanged view={view} />}
      <p className="mt-4 flex flex-wrap gap-x-5">
        <Link
          to={assignmentAddress(assignment.id, 'read', { material: 'overall' })}
          className="font-semibold text-accent hover:underline"
        >
          {words.send.readWhat}
        </Link>
        <Link to="/did-it-work" className="font-semibold text-accent hover:underline">
          {words.learn.title}
        </Link>
      </p>
    </section>
  );
}

/** The score before and after, and what was expected of the changes. */
function Whole({
  compared: { first, last, change, planned, answered, taken, again },
}: {
  compared: Compared;
}) {
  return (
    <>
      <p className="mt-2 flex flex-wrap items-baseline gap-x-3 text-lg">
        <Steps before={first.score} after={last.score} change={change} name={words.send.total} />
      </p>
      <p className="text-sm text-quiet">
        {planned !== null && `${words.learn.planned(hundredths(planned))} `}
        {words.learn.takenLine(answered, taken, again.size)}
      </p>
    </>
  );
}

function Steps({
  name,
  before,
  after,
  change,
}: {
  name: string;
  before: string | null;
  after: string | null;
  change: Fraction | null;
}) {
  return (
    <>
      <b>{name}</b>
      {before !== null && after !== null && (
        <span className="tabular-nums">{words.learn.fromTo(before, after)}</span>
      )}
      {change !== null && <b className="tabular-nums">{shownChange(change)}</b>}
    </>
  );
}

function Row({ row, hasCriteria }: { row: CriterionChange; hasCriteria: boolean }) {
  const { criterion, before, after, change, planned, changed } = row;
  return (
    <li className="border-t border-rule py-3">
      <h3 className="flex flex-wrap items-baseline gap-x-3">
        <Steps
          name={criterion?.title ?? (hasCriteria ? words.learn.noCriterion : words.learn.whole)}
          before={before?.points ?? null}
          after={after?.points ?? null}
          change={change}
        />
      </h3>
      <p className="text-sm text-quiet">
        {before?.level != null && after?.level != null && (
          <span className="mr-3">{words.send.levels(before.level, after.level)}</span>
        )}
        {planned !== null && <span>{words.learn.planned(hundredths(planned))}</span>}
      </p>
      {after !== null && after.comment !== '' && (
        <p className="mt-1 max-w-prose font-serif">{after.comment}</p>
      )}
      {changed.length > 0 && (
        <Fold label={words.learn.changedCount(changed.length)}>
          <ul className="grid gap-3">
            {changed.map((one) => (
              <ChangedRow key={one.remark?.id ?? 'item'} changed={one} />
            ))}
          </ul>
        </Fold>
      )}
    </li>
  );
}

/** One passage or answer, as it was and as it is, and whether the marker comes back to it. */
function ChangedRow({ changed: { remark, before, after, shown, again } }: { changed: Changed }) {
  return (
    <li className="max-w-prose border-l-2 border-rule-strong pl-3">
      {remark !== null && (
        <p className="text-sm">
          <Link to={remarkAddress(remark)} className="text-accent hover:underline">
            {remark.text === '' ? words.learn.unworded : remark.text}
          </Link>
        </p>
      )}
      {before !== '' && <p className="font-serif text-quiet">{words.learn.was(before)}</p>}
      {after.map((text) => (
        <p key={text} className="font-serif">
          {words.learn.is(text)}
        </p>
      ))}
      {shown > 0 && <p className="text-sm text-quiet">{words.learn.shown(shown)}</p>}
      {again !== null && (
        <p className="text-sm">
          <b>{words.learn.again}</b>{' '}
          <Link to={remarkAddress(again)} className="text-accent hover:underline">
            {again.text}
          </Link>
        </p>
      )}
    </li>
  );
}

import { Fragment } from 'react';
import { Link } from 'react-router';
import type { CriterionResult } from '#core/model/facts.ts';
import type { Fraction } from '#core/scores/fraction.ts';
import { beforeAndAfter } from '#core/assignment/before-after.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { shownPoints } from '../../shared/shown/figures.ts';
import { useNarrow } from '../../shared/page/hooks.ts';
import * as words from '../../words/en.ts';
import { useVisits } from '../../workspace/state/visits.ts';
import { assignmentAddress } from '../../shared/page/addresses.ts';

/** The first result and the newest, criterion by criterion. */
export function BeforeAfter({ view }: { view: AssignmentView }) {
  const narrow = useNarrow();
  const { assignment, score } = view;
  const cameJustNow = useVisits(({ justArrived }) => justArrived.has(assignment.id));
  const compared = beforeAndAfter(view);
  if (compared === null) return null;
  const { first, last, criteria, change } = compared;
  return (
    <section>
      <SectionTitle>{words.send.compareTitle}</SectionTitle>
      {cameJustNow && (
        <p role="status" className="mt-1 font-semibold">
          {words.notice.marked(last.marker.name, assignment.title)}
        </p>
      )}
      <table className="mt-2 w-full text-left">
        <thead className="text-sm text-quiet">
          <tr>
            <th scope="col" className="py-1 font-normal">
              {words.plan.criterion}
            </th>
            <th scope="col" className="px-2 font-normal">
              {words.send.before}
            </th>
            <th scope="col" className="px-2 font-normal">
              {words.send.after}
            </th>
            <th scope="col" className="text-right font-normal">
              {words.send.change}
            </th>
          </tr>
        </thead>
        <tbody>
          {criteria.map(({ criterion, before, after, change: own }) => (
            <Fragment key={criterion.id}>
              <tr className="border-t border-rule align-top">
                <th scope="row" className="py-2.5 pr-3 font-semibold">
                  {criterion.title}
                </th>
                <td className="px-2 py-2.5">
                  <Result result={before} comment={false} level={!narrow} />
                </td>
                <td className="px-2 py-2.5">
                  <Result result={after} comment={!narrow} level={!narrow} />
                </td>
                <td className="py-2.5 text-right font-semibold">{changeShown(own)}</td>
              </tr>
              {narrow && (
                // Beside one another the words would stand one in a line.
                <tr>
                  <td colSpan={4} className="pb-2.5 text-sm text-quiet">
                    {before?.level != null && after?.level != null && (
                      <p>{words.send.levels(before.level, after.level)}</p>
                    )}
                    <p>{after?.comment}</p>
                  </td>
                </tr>
              )}
            </Fragment>
          ))}
          <tr className="border-t-2 border-ink">
            <th scope="row" className="py-2.5">
              {words.send.total}
            </th>
            <td className="px-2 font-bold">{first.score}</td>
            <td className="px-2 font-bold">{last.score}</td>
            <td className="text-right font-bold">{changeShown(change)}</td>
          </tr>
        </tbody>
      </table>
      {score !== null && assignment.possible !== null && (
        <p className="mt-2">{words.send.countsLine(shownPoints(score), assignment.possible)}</p>
      )}
      <p className="mt-3 max-w-prose font-serif">{last.overall}</p>
      <Link
        to={assignmentAddress(assignment.id, 'read', { material: 'overall' })}
        className="mt-2 inline-block font-semibold text-accent hover:underline"
      >
        {words.send.readWhat}
      </Link>
    </section>
  );
}

function Result({
  result,
  comment,
  level,
}: {
  result: CriterionResult | null;
  comment: boolean;
  level: boolean;
}) {
  if (result === null) return null;
  return (
    <>
      <b>{result.points}</b>{' '}
      {level && result.level !== null && <span className="text-quiet">{words.send.level(result.level)}</span>}
      {comment && <p className="max-w-md text-sm text-quiet">{result.comment}</p>}
    </>
  );
}

function changeShown(change: Fraction | null): string {
  if (change === null) return '';
  return change.n > 0n ? `+${shownPoints(change)}` : change.n === 0n ? '±0' : shownPoints(change);
}

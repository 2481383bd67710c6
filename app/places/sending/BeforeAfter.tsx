import { shownPoints } from '../../shared/figures.ts';
import { Link } from 'react-router';
import type { CriterionResult, Marking } from '#core/model/facts.ts';
import { fromDecimal, subtract, toShown } from '#core/scores/fraction.ts';
import type { DecimalString } from '#core/model/ids.ts';
import { SectionTitle } from '../../shared/Controls.tsx';
import { words } from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';

/** The first result and the newest, criterion by criterion. */
export function BeforeAfter({ view }: { view: AssignmentView }) {
  const marked = view.attempts.flatMap(({ marking }) => (marking === null ? [] : [marking]));
  const first = marked[0];
  const last = marked[marked.length - 1];
  const { possible } = view.assignment;
  return (
    <section>
      <SectionTitle>{words.send.compareTitle}</SectionTitle>
      <div className="mt-2 overflow-x-auto">
        <table className="w-full text-left">
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
            {view.rubric?.criteria.map((criterion) => {
              const [before, after] = [resultOf(first, criterion.id), resultOf(last, criterion.id)];
              return (
                <tr key={criterion.id} className="border-t border-rule align-top">
                  <th scope="row" className="py-2.5 pr-3 font-semibold">
                    {criterion.title}
                  </th>
                  <td className="px-2 py-2.5">
                    <Result result={before} comment={false} />
                  </td>
                  <td className="px-2 py-2.5">
                    <Result result={after} comment />
                  </td>
                  <td className="py-2.5 text-right font-semibold">
                    {changeOf(before?.points ?? null, after?.points ?? null)}
                  </td>
                </tr>
              );
            })}
            <tr className="border-t-2 border-ink">
              <th scope="row" className="py-2.5">
                {words.send.total}
              </th>
              <td className="px-2 font-bold">{first.score}</td>
              <td className="px-2 font-bold">{last.score}</td>
              <td className="text-right font-bold">{changeOf(first.score, last.score)}</td>
            </tr>
          </tbody>
        </table>
      </div>
      {view.score !== null && possible !== null && (
        <p className="mt-2">{words.send.countsLine(shownPoints(view.score), possible)}</p>
      )}
      <p className="mt-3 max-w-prose font-serif">{last.overall}</p>
      <Link
        to={`/a/${encodeURIComponent(view.assignment.id)}/read?material=overall`}
        className="mt-2 inline-block font-semibold text-accent hover:underline"
      >
        {words.send.readWhat}
      </Link>
    </section>
  );
}

function resultOf(marking: Marking, criterionId: string): CriterionResult | undefined {
  return marking.criteria.find((result) => result.criterionId === criterionId);
}

function Result({ result, comment }: { result: CriterionResult | undefined; comment: boolean }) {
  if (result === undefined) return null;
  return (
    <>
      <b>{result.points}</b>{' '}
      {result.level !== null && <span className="text-quiet">{words.send.level(result.level)}</span>}
      {comment && <p className="max-w-md text-sm text-quiet">{result.comment}</p>}
    </>
  );
}

function changeOf(before: DecimalString | null, after: DecimalString | null): string {
  if (before === null || after === null) return '';
  const difference = subtract(fromDecimal(after), fromDecimal(before));
  return difference.n > 0n
    ? `+${toShown(difference, 2)}`
    : difference.n === 0n
      ? '±0'
      : toShown(difference, 2);
}

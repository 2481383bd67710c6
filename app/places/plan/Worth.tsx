import { hundredths, mostGain, type AssignmentView } from '#core/assignment/view.ts';
import { compare } from '#core/scores/fraction.ts';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { shownPoints, shownShare } from '../../shared/shown/figures.ts';
import * as words from '../../words/en.ts';
import { useGradeGain } from '../../workspace/state/use-grade-gain.ts';

/** Where the points went, and what the tasks could bring of them. */
export function Worth({
  view,
  gain,
  bought,
}: {
  view: AssignmentView;
  /** null: nothing can be won any more. */
  gain: number | null;
  /** What the tasks gain that the time is for; null until it is known. */
  bought: number | null;
}) {
  const gainOf = (ids: ReadonlyMap<string, number>) =>
    view.tasks
      .filter((planned) => planned.task.about.some(({ remarkId }) => ids.has(remarkId)))
      .reduce((sum, planned) => sum + (planned.gain ?? 0), 0);
  const stake = view.losses.some(({ atStake }) => atStake);
  if (view.losses.length === 0) return <p className="text-sm text-quiet">{words.plan.noPoints}</p>;
  return (
    <>
      <SectionTitle>{words.plan.total}</SectionTitle>
      {gain !== null && gain > 0 && stake && <p className="mt-2">{words.plan.stakeLine(hundredths(gain))}</p>}
      {gain !== null && gain > 0 && !stake && view.score !== null && (
        <p className="mt-2">{words.plan.totalLine(hundredths(gain), shownPoints(view.score))}</p>
      )}
      {gain !== null && !stake && view.reachable !== null && (
        <p className="text-quiet">{words.plan.capLine(shownPoints(view.reachable))}</p>
      )}
      {gain !== null && <OnGrade view={view} gain={bought ?? gain} />}
      <p className="mt-2 mb-6 text-sm text-quiet">
        {gain === null
          ? words.plan.nothingToWin
          : gain === 0 && view.tasks.length > 0
            ? words.plan.byImportance
            : words.plan.estimate}
      </p>
      <table className="w-full text-sm">
        <caption className="mb-1 text-left font-serif text-base font-semibold">
          {stake ? words.plan.stakeCaption : words.plan.byCriterion}
        </caption>
        <thead className="text-quiet">
          <tr>
            <th scope="col" className="py-1 text-left font-normal">
              {words.plan.criterion}
            </th>
            <th scope="col" className="text-right font-normal">
              {stake ? words.plan.stake : words.plan.lost}
            </th>
            <th scope="col" className="text-right font-normal">
              {words.plan.planned}
            </th>
          </tr>
        </thead>
        <tbody>
          {view.losses.map((loss) => (
            <tr key={loss.criterionId ?? ''} className="border-t border-rule">
              <th scope="row" className="py-1.5 text-left font-normal">
                {loss.criterionId === null ? words.plan.whole : loss.title}
              </th>
              <td className="text-right">{hundredths(loss.lost)}</td>
              <td className="text-right">{gain === null ? '–' : hundredths(gainOf(loss.shareByRemark))}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** What the chosen tasks do to the course grade, and plainly when another attempt does nothing. */
function OnGrade({ view, gain }: { view: AssignmentView; gain: number }) {
  const grade = useGradeGain(view, gain);
  const most = mostGain(view);
  if (view.state.kind === 'open for another attempt' && most === 0)
    return <p className="mt-1 font-semibold">{words.plan.notWorth}</p>;
  if (grade === null || gain === 0) return null;
  return (
    <p className="mt-1">
      {compare(grade.then, grade.now) === 0
        ? words.plan.gradeSame
        : words.plan.gradeLine(shownShare(grade.now), shownShare(grade.then))}
    </p>
  );
}

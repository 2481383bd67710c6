import { useMemo } from 'react';
import { Link } from 'react-router';
import { instantOf } from '#core/model/ids.ts';
import { explainScore } from '#core/scores/explain.ts';
import { compare, toShown, ZERO } from '#core/scores/fraction.ts';
import { scaleOf } from '#core/scores/rules.ts';
import { shownMoment, shownPercent } from '../../shared/shown/shown.ts';
import { shownShare } from '../../shared/shown/figures.ts';
import { policyTold } from '../../shared/line/rule-words.ts';
import * as words from '../../words/en.ts';
import { scoredMarking, standing as counting } from '#core/assignment/attempts.ts';
import { reachOf, type Standing, type StandingRow } from '#core/assignment/standing.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { assignmentAddress } from '../../shared/page/addresses.ts';

/** How a score is made: what each attempt was given, what came off, what the policy makes of them, and what it brings. */
export function ScoreArithmetic({
  standing,
  row: { view, part },
  brings,
}: {
  standing: Standing;
  row: StandingRow;
  brings: string;
}) {
  const { assignment, course } = view;
  const graded = standing.graded.assignments.find(({ id }) => id === assignment.id);
  const reach = useMemo(() => reachOf(standing.graded, assignment.id), [standing.graded, assignment.id]);
  if (graded === undefined) return null;
  const { attempts, score } = explainScore(graded);
  const attemptViews = counting(view.attempts).toSorted((x, y) => (x.attempt.at < y.attempt.at ? -1 : 1));
  const counted = part.counting === 'counts' || part.counting === 'extra';
  return (
    <div className="grid max-w-prose gap-1 pb-1" data-arithmetic>
      <Kind view={view} />
      {attempts.map((attempt, i) => (
        <p key={i}>
          <b>{words.standing.attemptGiven(i + 1, shownMoment(instantOf(attempt.atMs), course?.zone))}:</b>{' '}
          {attempt.given === null
            ? words.standing.attemptUnmarked
            : [
                words.standing.given(toShown(attempt.given, 2)),
                attempt.deduction.n > 0n &&
                  words.standing.lateOff(attempt.days, toShown(attempt.deduction, 2)),
                attempt.deduction.n > 0n &&
                  attempt.counted !== null &&
                  words.standing.leaves(toShown(attempt.counted, 2)),
              ]
                .filter(Boolean)
                .join(', ')}
          {'. '}
          <Beside view={view} index={i} attempts={attemptViews} />
        </p>
      ))}
      {attempts.filter(({ given }) => given !== null).length > 1 || assignment.attemptsAllowed > 1 ? (
        <p className="text-quiet">{policyTold(view)}</p>
      ) : null}
      {score !== null && (
        <p>
          {words.standing.result(toShown(score, 2), toShown(part.possible, 2))}{' '}
          {counted && words.standing.shareBrings(shownShare(part.share), brings)}
        </p>
      )}
      {part.counting === 'dropped' && <p>{words.standing.droppedWhy}</p>}
      {score !== null && compare(score, part.possible) > 0 && <p>{words.standing.overPossible}</p>}
      {score !== null && compare(score, ZERO) < 0 && <p>{words.standing.belowZero}</p>}
      {reach !== null && part.counting === 'not marked' && (
        <p>{words.standing.couldMove(shownShare(reach.least), shownShare(reach.most))}</p>
      )}
      {assignment.byHand && (
        <p className="mt-1 flex flex-wrap gap-x-4 font-semibold text-accent">
          <Link to={assignmentAddress(assignment.id, 'score')} className="hover:underline">
            {score === null ? words.standing.form.typeScore : words.standing.form.editScore}
          </Link>
          <Link to={assignmentAddress(assignment.id, 'edit')} className="hover:underline">
            {words.standing.form.edit}
          </Link>
        </p>
      )}
    </div>
  );
}

function Kind({ view: { assignment, course } }: { view: AssignmentView }) {
  const scale = scaleOf(assignment, course);
  const { group } = assignment;
  return (
    <>
      {group !== null && <p>{words.standing.group(group.name, group.members.join(', '))}.</p>}
      {scale !== null && <p>{words.standing.onScale(scale.title)}.</p>}
    </>
  );
}

/** What stands beside the points: the group's, or the step that they come from. */
function Beside({
  view: { assignment, course },
  index,
  attempts,
}: {
  view: AssignmentView;
  index: number;
  attempts: AssignmentView['attempts'];
}) {
  const each = attempts.at(index);
  const marking = each === undefined ? null : (scoredMarking(each, assignment, course) ?? each.marking);
  if (marking === null) return null;
  const { score, groupScore, result } = marking;
  if (groupScore !== null)
    return score === null
      ? words.standing.groupOnly(groupScore)
      : words.standing.ownAndGroup(score, groupScore);
  if (score !== null || result === null) return null;
  const worth = scaleOf(assignment, course)?.steps.find(({ name }) => name === result)?.worth ?? null;
  return worth === null
    ? words.standing.stepOnly(result)
    : words.standing.stepGiven(result, `${shownPercent(worth)} %`);
}

import { standing } from '#core/assignment/attempts.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { lateRuleOf } from '#core/scores/rules.ts';
import { policyTold } from '../../shared/line/rule-words.ts';
import { shownPoints, shownShare } from '../../shared/shown/figures.ts';
import { shownMoment } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { useWorth } from '../../workspace/state/use-standing.ts';

/** What the rules of this assignment say about another attempt, in plain words and in points. */
export function Rules({ view }: { view: AssignmentView }) {
  const worth = useWorth(view.assignment.id);
  const canMove = worth !== null && view.state.kind === 'open for another attempt';
  return (
    <ul className="mt-1 grid gap-0.5">
      {rulesOf(view).map((sentence) => (
        <li key={sentence}>{sentence}</li>
      ))}
      {canMove && (
        <li>
          {words.standing.againMoves(shownShare(worth.gain), shownShare(worth.now), shownShare(worth.most))}
        </li>
      )}
    </ul>
  );
}

function rulesOf(view: AssignmentView): string[] {
  const { assignment, course, attempts, state, score, reachable } = view;
  if (course === null) return [words.send.ruleAlone];
  const sent = standing(attempts).length;
  const isFirst = state.kind === 'draft begun' || state.kind === 'open, nothing sent';
  const due = assignment.extendedTo ?? assignment.dueAt;
  const until = isFirst ? (assignment.closesAt ?? due) : assignment.closesAt;
  if ((state.kind !== 'open for another attempt' && !isFirst) || until === null)
    return [words.send.ruleClosed];
  const number = words.send.ruleOpen(sent + 1, assignment.attemptsAllowed, shownMoment(until, course.zone));
  const late = lateRuleOf(assignment, course);
  if (isFirst)
    return [
      number,
      ...(due !== null && due !== until && late !== null
        ? [words.send.ruleLate(shownMoment(due, course.zone), late.pointsPerDay)]
        : []),
    ];
  return [
    number,
    policyTold(view),
    ...(score !== null && reachable !== null && assignment.possible !== null
      ? [words.send.rulePoints(shownPoints(score), shownPoints(reachable), assignment.possible)]
      : []),
  ];
}

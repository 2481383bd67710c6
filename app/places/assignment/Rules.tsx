import { fromDecimal, multiply, toShown } from '#core/scores/fraction.ts';
import type { Instant } from '#core/model/ids.ts';
import { SectionTitle } from '../../shared/Controls.tsx';
import { shownMoment, shownPercent } from '../../shared/shown.ts';
import { words } from '../../words/en.ts';
import type { AssignmentView } from '../../workspace/assignment-view.ts';

/** What the rules say: due time, own extension and closing time apart, attempts, lateness, what counts. */
export function Rules({ view }: { view: AssignmentView }) {
  const { course } = view;
  if (course === null)
    return (
      <p className="text-sm text-quiet">
        {words.assignment.rule.ownPaper}. {words.assignment.removed}
      </p>
    );
  return (
    <aside>
      <SectionTitle>{words.assignment.rules}</SectionTitle>
      <ul className="mt-2">
        {rulesOf(view).map((row) => (
          <li key={row} className="border-t border-rule py-2 text-sm">
            {row}
          </li>
        ))}
      </ul>
    </aside>
  );
}

function rulesOf({ assignment, course }: AssignmentView): string[] {
  const { requirements, counts, attemptsAllowed, dueAt, extendedTo, closesAt, late } = assignment;
  const shown = (at: Instant) => shownMoment(at, course?.zone);
  const again = attemptsAllowed > 1;
  return [
    dueAt === null ? '' : words.assignment.ruleDue(shown(dueAt)),
    extendedTo === null ? '' : words.assignment.ruleExtended(shown(extendedTo)),
    closesAt === null
      ? ''
      : again
        ? words.assignment.rule.openAgain(words.assignment.ordinals[1], shown(closesAt))
        : words.assignment.ruleCloses(shown(closesAt)),
    late === null ? '' : words.assignment.ruleLate(late.graceHours, late.pointsPerDay, late.maxPoints),
    words.assignment.ruleAttempts(attemptsAllowed),
    again ? policySentence(assignment) : '',
    assignment.extraCredit ? words.assignment.ruleExtra : '',
    requirements.wordsMin !== null && requirements.wordsMax !== null
      ? words.assignment.ruleWords(requirements.wordsMin, requirements.wordsMax)
      : '',
    again ? words.assignment.ruleFormat : '',
    counts === null ? '' : `${words.assignment.counts} ${counts}`,
  ].filter((row) => row !== '');
}

function policySentence({ policy, possible }: AssignmentView['assignment']): string {
  switch (policy.kind) {
    case 'capped':
      return possible === null
        ? ''
        : words.assignment.ruleCap(
            shownPercent(policy.cap),
            toShown(multiply(fromDecimal(policy.cap), fromDecimal(possible)), 2),
          );
    case 'recover':
      return words.assignment.ruleRecover(shownPercent(policy.share));
    case 'latest':
    case 'best':
    case 'mean':
      return words.assignment.rulePolicies[policy.kind];
  }
}

import type { AttemptPolicy } from '#core/model/facts.ts';
import type { DecimalString, Instant } from '#core/model/ids.ts';
import { fromDecimal, multiply, toShown } from '#core/scores/fraction.ts';
import { lateRuleOf, policyOf, scaleOf } from '#core/scores/rules.ts';
import { Link } from 'react-router';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { shownMoment, shownPercent } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { assignmentAddress } from '../../shared/page/addresses.ts';

/** What the rules say: due time, own extension and closing time apart, attempts, lateness, what counts. */
export function Rules({ view }: { view: AssignmentView }) {
  const { course } = view;
  if (course === null)
    return (
      <aside className="grid grid-cols-1 content-start gap-2 text-sm">
        <p className="text-quiet">
          {words.assignment.rule.ownPaper}. {words.assignment.removed}
        </p>
        <OwnLinks view={view} />
      </aside>
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
      <OwnLinks view={view} />
    </aside>
  );
}

/** What the student put in can be changed by them. */
function OwnLinks({ view: { assignment, course, score } }: { view: AssignmentView }) {
  if (!assignment.byHand && course !== null) return null;
  const link = 'font-semibold text-accent hover:underline';
  return (
    <p className="mt-2 flex flex-wrap gap-x-4 text-sm">
      <Link to={assignmentAddress(assignment.id, 'edit')} className={link}>
        {course === null ? words.assignment.intoCourse : words.standing.form.edit}
      </Link>
      <Link to={assignmentAddress(assignment.id, 'score')} className={link}>
        {score === null ? words.standing.form.typeScore : words.standing.form.editScore}
      </Link>
    </p>
  );
}

function rulesOf({ assignment, course }: AssignmentView): string[] {
  const { requirements, counts, attemptsAllowed, dueAt, extendedTo, closesAt } = assignment;
  const late = lateRuleOf(assignment, course);
  const scale = scaleOf(assignment, course);
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
    again ? policySentence(policyOf(assignment, course), assignment.possible) : '',
    assignment.extraCredit ? words.assignment.ruleExtra : '',
    assignment.group === null
      ? ''
      : words.standing.group(assignment.group.name, assignment.group.members.join(', ')),
    scale === null ? '' : words.standing.onScale(scale.title),
    requirements.wordsMin !== null && requirements.wordsMax !== null
      ? words.assignment.ruleWords(requirements.wordsMin, requirements.wordsMax)
      : '',
    again ? words.assignment.ruleFormat : '',
    counts === null ? '' : `${words.assignment.counts} ${counts}`,
  ].filter((row) => row !== '');
}

function policySentence(policy: AttemptPolicy, possible: DecimalString | null): string {
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

import { shownPoints } from '../shown/figures.ts';
import type { Instant } from '#core/model/ids.ts';
import { lateRuleOf, policyOf } from '#core/scores/rules.ts';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { standing } from '#core/assignment/attempts.ts';
import { daysUntil, shownMoment, shownPercent } from '../shown/shown.ts';

/** Where an assignment stands, told by its facts. */
export function stateSentence(view: AssignmentView, atMs: number): string {
  const { assignment, course, state, attempts } = view;
  const { rule } = words.assignment;
  const policy = policyOf(assignment, course);
  if (course === null) return rule.ownPaper;
  const shown = (at: Instant | null | undefined) => (at ? shownMoment(at, course.zone) : '');
  const last = standing(attempts).findLast(({ missing }) => !missing);
  const sent = shown(last?.attempt.at);
  const due = shown(assignment.extendedTo ?? assignment.dueAt);
  switch (state.kind) {
    case 'open for another attempt': {
      if (assignment.closesAt === null) return '';
      const count = standing(attempts).length;
      const number = words.assignment.ordinals.at(count) ?? String(count + 1);
      const cap = policy.kind === 'capped' ? ` · ${rule.cap(shownPercent(policy.cap))}` : '';
      const open = rule.openFor(number, daysUntil(assignment.closesAt, atMs));
      return `${open}, ${rule.until(shown(assignment.closesAt))}${cap}`;
    }
    case 'finished':
      return last === undefined ? rule.unsent : rule.finished;
    case 'waiting to be marked':
      return rule.waiting(sent);
    case 'waiting again':
      return rule.waitingAgain(sent);
    case 'part marked':
      return rule.partMarked(sent);
    case 'open, nothing sent':
      return rule.open(due);
    case 'draft begun':
      return rule.draftBegun(due);
    case 'not open yet':
      return rule.opens(shown(assignment.opensAt));
    case 'closed':
      return rule.closed(shown(assignment.closesAt ?? assignment.extendedTo ?? assignment.dueAt));
    case 'excused':
      return rule.excused;
  }
}

/** How late the latest attempt was and what came off; null: in time. */
export function latenessSentence({ lateness, assignment, course }: AssignmentView): string | null {
  if (lateness === null) return null;
  const off =
    lateRuleOf(assignment, course) === null
      ? ''
      : `, ${words.assignment.pointsOff(shownPoints(lateness.deduction))}`;
  return words.assignment.lateBy(lateness.hours) + off;
}

/**
 * That a score was changed, and what it counts where that is another figure than the one it was marked with; null where
 * none was.
 */
export function scoreChangeTold({ scoreChange, lateness, score }: AssignmentView): string | null {
  if (scoreChange === null) return null;
  const told = words.arrivals.scoreChanged(scoreChange.before.score ?? '', scoreChange.after.score ?? '');
  const isLess = lateness !== null && lateness.deduction.n > 0n && score !== null;
  return isLess
    ? `${told}. ${words.arrivals.countsLess(shownPoints(lateness.deduction), shownPoints(score))}`
    : told;
}

/** A marker by name; '' for one that nobody named. */
export function markerShown(name: string): string {
  return name === words.takeIn.unnamedMarker ? '' : name;
}

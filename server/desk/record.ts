import type { Assignment, Attempt, Course, Marking } from '#core/model/facts.ts';
import { asId, AssignmentId } from '#core/model/ids.ts';
import type { DeskState } from './desk-state.ts';

/** What the desk's record says of an assignment by now: its last line for each thing holds. */

export function assignmentIn({ facts }: DeskState, id: string): Assignment | undefined {
  const wanted = asId(AssignmentId, id);
  return facts.flatMap((f) => (f.kind === 'assignment' && f.value.id === wanted ? [f.value] : [])).at(-1);
}

export function courseOf({ facts }: DeskState, { courseId }: Assignment): Course | undefined {
  return facts.flatMap((f) => (f.kind === 'course' && f.value.id === courseId ? [f.value] : [])).at(-1);
}

/** The zone in which an assignment's times are told. */
export function zoneOf(state: DeskState, assignment: Assignment): string {
  return courseOf(state, assignment)?.zone ?? 'UTC';
}

export function attemptsIn({ facts }: DeskState): Attempt[] {
  return facts.flatMap((fact) => (fact.kind === 'attempt' ? [fact.value] : []));
}

export function allMarkings({ facts }: DeskState): Marking[] {
  return facts.flatMap((fact) => (fact.kind === 'marking' ? [fact.value] : []));
}

/** The markings of an assignment, in the order in which they were given. */
export function markingsIn(state: DeskState, { id }: Pick<Assignment, 'id'>): Marking[] {
  return allMarkings(state).filter(({ assignmentId }) => assignmentId === id);
}

export function withdrawnIn({ facts }: DeskState): Set<string> {
  return new Set(facts.flatMap((fact) => (fact.kind === 'withdrawal' ? [fact.value.attemptId] : [])));
}

export function ownAttempts(state: DeskState, { id }: Assignment): Attempt[] {
  return attemptsIn(state).filter((attempt) => attempt.assignmentId === id);
}

/** Attempts that use up one of those allowed: not those that were taken back. */
export function countingAttempts(state: DeskState, assignment: Assignment): Attempt[] {
  const takenBack = withdrawnIn(state);
  return ownAttempts(state, assignment).filter(({ id }) => !takenBack.has(id));
}

/** Why the rules bar another attempt; null where they don't. */
export function ruleAgainst(assignment: Assignment, sent: number, nowMs: number): string | null {
  if (sent >= assignment.attemptsAllowed)
    return `All ${assignment.attemptsAllowed} attempts at this assignment have been used.`;
  if (assignment.excused) return 'You are excused from this assignment.';
  const closes = closingFor(assignment, sent);
  if (closes === null) return 'This assignment takes no other attempt.';
  return nowMs > Date.parse(closes) ? 'The closing time has passed; no attempt is taken any more.' : null;
}

/** Until when the next attempt is taken, after so many that count; null: there is none. */
export function closingFor({ closesAt, extendedTo, dueAt }: Assignment, sent: number): string | null {
  return sent === 0 ? (closesAt ?? extendedTo ?? dueAt) : closesAt;
}

import type { Course } from '#core/model/facts.ts';
import type { AssignmentView } from '../workspace/assignment-view.ts';
import { nowMs } from '../workspace/workspace.ts';

/** Whether a course's term is over. */
export function isPast({ termEndsAt }: Course): boolean {
  return termEndsAt !== null && Date.parse(termEndsAt) < nowMs();
}

/** Whether an assignment belongs to a term that is over. */
export function isPastTerm({ course }: AssignmentView): boolean {
  return course !== null && isPast(course);
}

import type { AssignmentView } from '../workspace/assignment-view.ts';
import { nowMs } from '../workspace/workspace.ts';

/** Whether an assignment belongs to a term that is over. */
export function isPastTerm({ course }: AssignmentView): boolean {
  return course !== null && course.termEndsAt !== null && Date.parse(course.termEndsAt) < nowMs();
}

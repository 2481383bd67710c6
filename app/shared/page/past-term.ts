import type { Course } from '#core/model/facts.ts';
import type { AssignmentView } from '#core/assignment/view.ts';

/** Whether a course's term is over. */
export function isPast({ termEndsAt }: Course, atMs: number): boolean {
  return termEndsAt !== null && Date.parse(termEndsAt) < atMs;
}

/** Whether an assignment belongs to a term that is over. */
export function isPastTerm({ course }: AssignmentView, atMs: number): boolean {
  return course !== null && isPast(course, atMs);
}

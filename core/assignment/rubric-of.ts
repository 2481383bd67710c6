import type { Assignment, Rubric } from '../model/facts.ts';
import { ownRubricId } from '../model/own-ids.ts';
import type { AssignmentRecords } from './records.ts';

/** The school's rubric, else the one that the student put to the assignment. */
export function rubricOf(records: AssignmentRecords, { id, rubricId }: Assignment): Rubric | null {
  return records.find('rubrics', rubricId ?? '') ?? records.find('rubrics', ownRubricId(id));
}

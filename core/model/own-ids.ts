import {
  asId,
  AssignmentId,
  AttemptId,
  CategoryId,
  CourseId,
  DraftId,
  LONGEST_ID,
  MarkingId,
  PromiseId,
  QueryId,
  RemarkId,
  RubricId,
  TaskId,
  type CriterionId,
  type FileHash,
  type PartId,
} from './ids.ts';
import { shortMark } from './short-mark.ts';
import type { MarkSign, RemarkRef } from './work.ts';

/*
 * Ids of what Juncture makes itself, each from what it is about: made again it is the same, so that nothing is there twice.
 * Ids of the school may be as long as an id may be; what is made from them is then cut, and told apart by a mark.
 */

function idText(...parts: readonly (string | number)[]): string {
  const whole = parts.join('/');
  if (whole.length <= LONGEST_ID) return whole;
  const mark = `~${shortMark(whole)}`;
  return whole.slice(0, LONGEST_ID - mark.length) + mark;
}

/** The remark that a marking's overall words are. */
export const overallRemarkId = (marking: MarkingId): RemarkId => asId(RemarkId, idText(marking, 'overall'));

/** The remark that a marking's comment beside a criterion is. */
export const criterionRemarkId = (marking: MarkingId, criterion: CriterionId): RemarkId =>
  asId(RemarkId, idText(marking, 'criterion', criterion));

/** Under which reading it is kept that a change of the score was seen. */
export const scoreReadingId = (marking: MarkingId): RemarkId => asId(RemarkId, idText('score', marking));

/** What a remark promises elsewhere. */
export const promiseIdOf = (remark: RemarkId): PromiseId => asId(PromiseId, idText('promise', remark));

/** A match that was found here by comparing, once it is decided about: by its source and its place there. */
export const matchRemarkId = (assignment: AssignmentId, source: string, at: number): RemarkId =>
  asId(RemarkId, idText('match', assignment, source, at));

/** The task that deciding to act on a remark makes, or on a part of it. */
export const taskIdOf = (remark: RemarkId, part: PartId | null): TaskId =>
  asId(TaskId, idText('task', remark, ...(part === null ? [] : [part])));

/** What was done about a remark, or a part of it. */
export const answerKey = ({ remarkId, partId }: RemarkRef): string =>
  partId === null ? remarkId : idText('answer', remarkId, partId);

/** The question that a remark gives reason for, or a part of it, or a promise that nothing came of. */
export const queryIdOf = (about: RemarkId | PromiseId, part: PartId | null = null): QueryId =>
  asId(QueryId, idText('query', about, ...(part === null ? [] : [part])));

/** The question why the criteria of an assignment don't add up to its score. */
export const addsUpQueryId = (assignment: AssignmentId): QueryId =>
  asId(QueryId, idText('query', assignment, 'adds-up'));

/** The question where points went that nobody explained; null: of the work as a whole. */
export const unexplainedQueryId = (assignment: AssignmentId, criterion: string | null): QueryId =>
  asId(QueryId, idText('query', assignment, 'unexplained', criterion ?? 'whole'));

/** A message about an attempt's handing-in. */
export const handingInQueryId = (attempt: AttemptId): QueryId =>
  asId(QueryId, idText('query', attempt, 'handing-in'));

/** The rubric that the student put to an assignment. */
export const ownRubricId = (assignment: AssignmentId): RubricId => asId(RubricId, idText('own', assignment));

/** What a sign means in an author's hand. */
export const markKeyId = (author: string, { kind, name }: MarkSign): string =>
  idText('key', author, kind, name);

/** The draft of an attempt. */
export const draftIdOf = (assignment: AssignmentId, attemptNumber: number): DraftId =>
  asId(DraftId, idText('draft', assignment, attemptNumber));

/** An assignment that a file makes which belongs to none. */
export const assignmentIdOfFile = (hash: FileHash): AssignmentId =>
  asId(AssignmentId, idText('own', hash.slice(0, 24)));

/** The one attempt of an assignment of which nothing but its files or its score is known. */
export const onlyAttemptId = (assignment: AssignmentId): AttemptId =>
  asId(AttemptId, idText(assignment, 'attempt-1'));

/** The marking that files make which came from nowhere. */
export const fileMarkingId = (assignment: AssignmentId): MarkingId =>
  asId(MarkingId, idText(assignment, 'marking-1'));

/** The marking that the student typed in for an attempt. */
export const typedMarkingId = (attempt: AttemptId): MarkingId => asId(MarkingId, idText(attempt, 'by-hand'));

/** A course that the student put in. @param own what no other has: a random text, or its key in the file it came from */
export const ownCourseId = (own: string): CourseId => asId(CourseId, idText('hand', own));

/** A category that the student put in. @param own as above, with the course where it is a key */
export const ownCategoryId = (...own: readonly string[]): CategoryId =>
  asId(CategoryId, idText('hand', ...own));

/** An assignment that the student put in. @param own as above, with the course where it is a key */
export const ownAssignmentId = (...own: readonly string[]): AssignmentId =>
  asId(AssignmentId, idText('hand', ...own));

/** An attempt that was handed in elsewhere. @param own a text that no other has */
export const outsideAttemptId = (own: string): AttemptId => asId(AttemptId, idText('outside', own));

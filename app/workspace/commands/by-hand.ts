import type { Workspace } from '../workspace.ts';
import { blankAttempt, blankMarking } from '#core/model/blank.ts';
import type { Assignment, Attempt, Course, CriterionResult, Marking, Rubric } from '#core/model/facts.ts';
import type { AttemptId, AssignmentId, CriterionId, DecimalString, Instant } from '#core/model/ids.ts';
import type { Remark } from '#core/model/remark.ts';
import { rubricOfDraft, type RubricDraft } from '#core/rubric/draft.ts';
import { aimId } from '#core/rubric/aim.ts';
import { wordingMark } from '#core/reading/need.ts';
import * as words from '../../words/en.ts';
import { rubricOf } from '#core/assignment/rubric-of.ts';
import { recordsIn } from '#core/assignment/records.ts';
import { remarksOfMarking } from '../desk/facts.ts';
import type { Writing } from '../storage/transact.ts';
import { settleTasks } from './stages.ts';
import { onlyAttemptId, ownRubricId, typedMarkingId } from '#core/model/own-ids.ts';

/** What the student puts in by hand: courses, assignments, scores, rubrics, levels to reach, "if" scores. */

/** Changes of a course are undone under this name, as those of an assignment are under its id. */
export function courseUndo(courseId: string): string {
  return `course/${courseId}`;
}

export function putCourse(workspace: Workspace, course: Course): Promise<void> {
  return workspace.run(courseUndo(course.id), words.undo.course(course.title), (writing) =>
    writing.put('courses', course),
  );
}

/** Takes a course of the student's own out; its assignments stay, in no course. */
export function removeCourse(workspace: Workspace, course: Course): Promise<void> {
  return workspace.run(courseUndo(course.id), words.undo.course(course.title), async (writing) => {
    for (const assignment of await writing.all('assignments'))
      if (assignment.courseId === course.id)
        await writing.put('assignments', { ...assignment, courseId: null, categoryId: null, scaleId: null });
    await writing.remove('courses', course.id);
  });
}

export function putOwnAssignment(workspace: Workspace, assignment: Assignment): Promise<void> {
  return workspace.run(undoNameOf(assignment), words.undo.assignment(assignment.title), async (writing) => {
    const before = await writing.get('assignments', assignment.id);
    await writing.put('assignments', assignment);
    if ((before?.draftOf ?? null) !== assignment.draftOf) await settleTasks(writing);
  });
}

function undoNameOf({ id, courseId }: Assignment): string {
  return courseId === null ? id : courseUndo(courseId);
}

/** Takes an assignment of the student's own out, with its scores and rubric. Files stay on the Shelf. */
export function removeOwnAssignment(workspace: Workspace, assignment: Assignment): Promise<void> {
  return workspace.run(undoNameOf(assignment), words.undo.assignment(assignment.title), async (writing) => {
    const own = <T extends { readonly assignmentId: string | null }>(list: readonly T[]) =>
      list.filter(({ assignmentId }) => assignmentId === assignment.id);
    for (const marking of own(await writing.all('markings'))) await writing.remove('markings', marking.id);
    for (const attempt of own(await writing.all('attempts'))) await writing.remove('attempts', attempt.id);
    for (const remark of own(await writing.all('remarks'))) await writing.remove('remarks', remark.id);
    for (const arrival of own(await writing.all('arrivals')))
      await writing.remove('arrivals', arrival.markingId);
    // Its draft stages are work of their own again, with the tasks for what was said of them.
    for (const stage of await writing.all('assignments'))
      if (stage.draftOf === assignment.id) await writing.put('assignments', { ...stage, draftOf: null });
    await settleTasks(writing);
    await writing.remove('rubrics', ownRubricId(assignment.id));
    await writing.remove('ifScores', assignment.id);
    await writing.remove('assignments', assignment.id);
  });
}

/** What a marking gives, as it is typed. */
export interface TypedScore {
  readonly score: DecimalString | null;
  readonly groupScore: DecimalString | null;
  readonly result: string | null;
  readonly overall: string;
  readonly criteria: readonly CriterionResult[];
  /** When it was handed in; null: now. */
  readonly handedInAt: Instant | null;
}

/** Puts in what an attempt was given. What the school says of it stays, and goes before. */
export function putScore(
  workspace: Workspace,
  assignment: Assignment,
  typed: TypedScore,
  attemptId: AttemptId | null,
): Promise<void> {
  return workspace.run(assignment.id, words.undo.scored, async (writing) => {
    const known = await knownScores(writing, assignment.id);
    await writeScore(workspace, writing, assignment, typed, attemptId, known, true);
  });
}

/** The student's own marking of an attempt; null where there is none. */
export function ownMarkingOf(markings: readonly Marking[]): Marking | null {
  return markings.findLast(({ byHand }) => byHand) ?? null;
}

/** What is kept of scores before something is put in. */
export interface KnownScores {
  readonly attempts: readonly Attempt[];
  readonly markings: readonly Marking[];
  readonly remarks: readonly Remark[];
}

async function knownScores(writing: Writing, assignmentId: string): Promise<KnownScores> {
  const own = <T extends { readonly assignmentId: string }>(list: readonly T[]) =>
    list.filter((one) => one.assignmentId === assignmentId);
  return {
    attempts: own(await writing.all('attempts')),
    markings: own(await writing.all('markings')),
    remarks: own(await writing.all('remarks')),
  };
}

/**
 * Writes the student's own marking of an attempt, with its overall words and criterion comments as remarks.
 * @param attemptId null: the latest; one is made where there is none
 * @param known what is kept of this assignment
 * @param read the student knows what it says: it was typed, not taken in
 */
export async function writeScore(
  workspace: Workspace,
  writing: Writing,
  assignment: Assignment,
  { handedInAt, criteria, ...given }: TypedScore,
  attemptId: AttemptId | null,
  known: KnownScores,
  read: boolean,
): Promise<void> {
  const attempts = known.attempts.toSorted((x, y) => x.number - y.number);
  const found = attempts.find(({ id }) => id === attemptId) ?? attempts.at(-1);
  const at = workspace.now();
  const attempt = found ?? blankAttempt(onlyAttemptId(assignment.id), assignment.id, 1, handedInAt ?? at);
  if (found === undefined) await writing.put('attempts', attempt);
  else if (found.outside && handedInAt !== null && found.at !== handedInAt)
    await writing.put('attempts', { ...found, at: handedInAt });
  const before = ownMarkingOf(known.markings.filter((marking) => marking.attemptId === attempt.id));
  const marker = (await writing.get('courses', assignment.courseId ?? ''))?.instructor;
  const id = typedMarkingId(attempt.id);
  const marking: Marking = {
    ...(before ??
      blankMarking(id, assignment.id, attempt.id, at, marker ?? { name: '', role: 'instructor' })),
    ...given,
    criteria: [...criteria],
  };
  await writing.put('markings', marking);
  if (before === null)
    await writing.put('arrivals', { markingId: marking.id, assignmentId: assignment.id, at });
  const said = remarksOfMarking(marking, marking);
  const ids = new Set<string>(said.map((remark) => remark.id));
  for (const remark of known.remarks)
    if (remark.markingId === marking.id && remark.fileHash === null && !ids.has(remark.id))
      await writing.remove('remarks', remark.id);
  for (const remark of said) {
    await writing.put('remarks', remark);
    if (read)
      await writing.put('readings', {
        remarkId: remark.id,
        assignmentId: assignment.id,
        of: wordingMark(remark),
        seenMs: 0,
        read: true,
      });
  }
}

/** Puts a rubric to an assignment that the school gave none for, or changes it. */
export function putOwnRubric(
  workspace: Workspace,
  assignment: Assignment,
  draft: RubricDraft,
): Promise<Rubric> {
  const rubric = rubricOfDraft(
    draft,
    ownRubricId(assignment.id),
    assignment.id,
    rubricOf(recordsIn(workspace.records), assignment),
  );
  return workspace
    .run(assignment.id, words.undo.rubric, (writing) => writing.put('rubrics', rubric))
    .then(() => rubric);
}

export function removeOwnRubric(workspace: Workspace, assignment: Assignment): Promise<void> {
  return workspace.run(assignment.id, words.undo.rubric, (writing) =>
    writing.remove('rubrics', ownRubricId(assignment.id)),
  );
}

/** Aims at a level of a criterion; null: at none. What was ticked of another level stays with it. */
export function aimAt(
  workspace: Workspace,
  assignmentId: AssignmentId,
  criterionId: CriterionId,
  level: number | null,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.aimed, async (writing) => {
    const id = aimId(assignmentId, criterionId);
    const known = await writing.get('aims', id);
    if (level === null) await writing.remove('aims', id);
    else await writing.put('aims', { id, assignmentId, criterionId, ticked: known?.ticked ?? [], level });
  });
}

/** Ticks an item of the list of a level that is aimed at, or takes the tick away. */
export function tickAim(
  workspace: Workspace,
  assignmentId: AssignmentId,
  criterionId: CriterionId,
  item: string,
  done: boolean,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.tickedAim, async (writing) => {
    const aim = await writing.get('aims', aimId(assignmentId, criterionId));
    if (aim === null) return;
    const others = aim.ticked.filter((one) => one !== item);
    await writing.put('aims', { ...aim, ticked: done ? [...others, item] : others });
  });
}

/** Sets the score that an assignment is looked at as if it had; null: none any more. */
export function setIf(
  workspace: Workspace,
  assignment: Assignment,
  score: DecimalString | null,
  typing?: string,
): Promise<void> {
  const work = async (writing: Writing) => {
    if (score === null) await writing.remove('ifScores', assignment.id);
    else await writing.put('ifScores', { assignmentId: assignment.id, score });
  };
  return workspace.run(undoNameOf(assignment), words.undo.ifScore, work, typing);
}

/** Clears all "if" scores of a course. */
export function clearIfs(
  workspace: Workspace,
  courseId: string,
  assignmentIds: readonly string[],
): Promise<void> {
  return workspace.run(courseUndo(courseId), words.undo.ifScore, async (writing) => {
    for (const id of assignmentIds) await writing.remove('ifScores', id);
  });
}

import { readFile } from 'node:fs/promises';
import type { Assignment, Attempt, Course, FileFact, Marking, Rubric } from '#core/model/facts.ts';
import { asId, instantOf, MarkingId, type DecimalString } from '#core/model/ids.ts';
import { add, fromDecimal, toShown, ZERO, type Fraction } from '#core/scores/fraction.ts';
import { hashOf } from '#formats/hash.ts';
import type { DeskFolder } from '../desk/desk-folder.ts';
import { assignmentIn, courseOf } from '../desk/record.ts';

/** What an attempt is marked with: what was sent, and by what it is judged. */
export interface Marked {
  readonly desk: DeskFolder;
  readonly attempt: Attempt;
  readonly assignment: Assignment;
  readonly course: Course;
  readonly rubric: Rubric | null;
  readonly nowMs: number;
}

/** What a marking needs to know beside the attempt; null where the record lacks it. */
export function forMarking(desk: DeskFolder, attempt: Attempt, nowMs: number): Marked | null {
  const assignment = assignmentIn(desk.state, attempt.assignmentId);
  const course = assignment && courseOf(desk.state, assignment);
  if (assignment === undefined || course === undefined) return null;
  const rubric = desk.state.rubrics.find(({ id }) => id === assignment.rubricId) ?? null;
  return { desk, attempt, assignment, course, rubric, nowMs };
}

/** A marking of this attempt by the course's instructor; `place` tells apart several of one attempt. */
export function markingOf(
  { attempt, course, nowMs }: Marked,
  given: Pick<Marking, 'score' | 'overall' | 'criteria' | 'files'> & Partial<Marking>,
  place = '',
): Marking {
  return {
    id: asId(MarkingId, `${attempt.id}-marking${place}`),
    attemptId: attempt.id,
    assignmentId: attempt.assignmentId,
    at: instantOf(nowMs),
    marker: course.instructor,
    groupScore: null,
    result: null,
    complete: true,
    byHand: false,
    ...given,
  };
}

/** Points as they stand in a marking. */
export function shown(points: Fraction): DecimalString {
  return toShown(points, 2) as DecimalString;
}

export function sumOf(points: readonly DecimalString[]): Fraction {
  return points.reduce<Fraction>((sum, each) => add(sum, fromDecimal(each)), ZERO);
}

/** @throws Error where the desk lacks the file */
export async function bytesOf({ desk }: Marked, hash: string): Promise<Uint8Array<ArrayBuffer>> {
  const path = desk.pathOfFile(hash);
  if (path === null) throw new Error(`the desk has no file ${hash}`);
  return new Uint8Array(await readFile(path));
}

/** Keeps a file that comes back. */
export async function put(
  { desk }: Marked,
  bytes: Uint8Array<ArrayBuffer>,
  fact: Pick<FileFact, 'role' | 'name' | 'mediaType' | 'announced'> & Partial<FileFact>,
): Promise<FileFact> {
  const hash = await hashOf(bytes);
  desk.putFile(hash, bytes);
  return { size: bytes.length, hash, aboutHash: null, ...fact };
}

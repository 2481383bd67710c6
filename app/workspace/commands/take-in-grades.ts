import type { Workspace } from '../workspace.ts';
import { blankAssignment, blankCourse } from '#core/model/blank.ts';
import type { Assignment, Attempt, Category, Course, Marking } from '#core/model/facts.ts';
import type { CourseId } from '#core/model/ids.ts';
import { ownAssignmentId, ownCategoryId, ownCourseId } from '#core/model/own-ids.ts';
import type { Remark } from '#core/model/remark.ts';
import type { ImportedCourse, ImportedItem } from '#formats/grades/imported.ts';
import * as words from '../../words/en.ts';
import { courseUndo, writeScore } from './by-hand.ts';
import type { Writing } from '../storage/transact.ts';

/** Courses and scores out of files, taken into a course of the student's own. */

function courseIdFor(imported: ImportedCourse): CourseId {
  return ownCourseId(imported.key === '' ? crypto.randomUUID() : imported.key);
}

/** A course for what was imported, with the categories it tells of added to those there are. */
function withCategories(course: Course, imported: ImportedCourse): Course {
  const known = new Map(course.categories.map((category) => [category.title.toLowerCase(), category]));
  const added = imported.categories
    .filter(({ title }) => !known.has(title.toLowerCase()))
    .map(({ key, title, weight }): Category => ({
      id: ownCategoryId(course.id, key),
      title,
      weight,
      drop: 0,
      extraCredit: false,
    }));
  const weighted = imported.categories.some(({ weight }) => weight !== null);
  return {
    ...course,
    scheme: course.categories.length === 0 && weighted ? 'weighted' : course.scheme,
    categories: [...course.categories, ...added],
  };
}

/**
 * Takes assignments and scores in: all of them or none, undone as one. What is there already by the same title is changed,
 * and what the student put to it besides stays.
 * @param into the course that they go to; null makes a new one
 * @returns the course
 */
export async function takeInGrades(
  workspace: Workspace,
  imported: ImportedCourse,
  into: Course | null,
  title: string,
  zone: string,
): Promise<CourseId> {
  const id = into?.id ?? courseIdFor(imported);
  await workspace.run(courseUndo(id), words.undo.imported, async (writing) => {
    const known = into ?? (await writing.get('courses', id));
    const course = withCategories(
      known ?? {
        ...blankCourse(id, imported.title === '' ? title : imported.title, zone),
        code: imported.code,
      },
      imported,
    );
    await writing.put('courses', course);
    const there = (await writing.all('assignments')).filter(({ courseId }) => courseId === id);
    const taking: Taking = {
      course,
      imported,
      byTitle: new Map(there.map((assignment) => [assignment.title.toLowerCase(), assignment])),
      attempts: byAssignment(await writing.all('attempts')),
      markings: byAssignment(await writing.all('markings')),
      remarks: byAssignment(await writing.all('remarks')),
    };
    for (const item of imported.items) await takeInItem(workspace, writing, item, taking);
  });
  return id;
}

function byAssignment<T extends { readonly assignmentId: string }>(list: readonly T[]): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const one of list) {
    const group = groups.get(one.assignmentId);
    if (group === undefined) groups.set(one.assignmentId, [one]);
    else group.push(one);
  }
  return groups;
}

/** What is known before anything of a file is taken in: each store is gone through once. */
interface Taking {
  readonly course: Course;
  readonly imported: ImportedCourse;
  readonly byTitle: ReadonlyMap<string, Assignment>;
  readonly attempts: ReadonlyMap<string, Attempt[]>;
  readonly markings: ReadonlyMap<string, Marking[]>;
  readonly remarks: ReadonlyMap<string, Remark[]>;
}

async function takeInItem(
  workspace: Workspace,
  writing: Writing,
  item: ImportedItem,
  { course, imported, byTitle, attempts, markings, remarks }: Taking,
): Promise<void> {
  const named = imported.categories.find(({ key }) => key === item.category)?.title.toLowerCase();
  const category = course.categories.find((one) => one.title.toLowerCase() === named) ?? null;
  // The same for the same key, so that taking in again changes and doesn't double.
  const id = ownAssignmentId(course.id, item.key);
  const known =
    byTitle.get(item.title.toLowerCase()) ??
    (await writing.get('assignments', id)) ??
    blankAssignment(id, course.id, item.title);
  const assignment = {
    ...known,
    title: item.title,
    possible: item.possible ?? known.possible,
    categoryId: category?.id ?? known.categoryId,
    opensAt: item.opensAt ?? known.opensAt,
    dueAt: item.dueAt ?? known.dueAt,
    extraCredit: item.extraCredit || known.extraCredit,
    excused: item.excused,
    scaleId:
      item.result === null
        ? known.scaleId
        : (course.scales.find(({ steps }) => steps.some(({ name }) => name === item.result))?.id ??
          known.scaleId),
  };
  await writing.put('assignments', assignment);
  if (item.score === null && item.result === null && item.words === '') return;
  const { score, result, words: overall } = item;
  const handedInAt = item.dueAt ?? item.markedAt;
  await writeScore(
    workspace,
    writing,
    assignment,
    { score, groupScore: null, result, overall, criteria: [], handedInAt },
    null,
    {
      attempts: attempts.get(assignment.id) ?? [],
      markings: markings.get(assignment.id) ?? [],
      remarks: remarks.get(assignment.id) ?? [],
    },
    false,
  );
}

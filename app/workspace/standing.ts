import { useMemo } from 'react';
import type { Course } from '#core/model/facts.ts';
import type { DecimalString } from '#core/model/ids.ts';
import { courseGrade, withAttempt, type GradedCourse } from '#core/scores/course-grade.ts';
import {
  explainGrade,
  type AssignmentPart,
  type CategoryPart,
  type GradeExplained,
} from '#core/scores/explain.ts';
import {
  add,
  divide,
  fromDecimal,
  multiply,
  subtract,
  toShown,
  ZERO,
  type Fraction,
} from '#core/scores/fraction.ts';
import { sameTitle } from '#core/rubric/suggest.ts';
import { withScore } from '#core/scores/what-if.ts';
import { keptViewOf, type AssignmentView } from './assignment-view.ts';
import { gradedCourseOf } from './course-worth.ts';
import type { RecordMaps } from './records.ts';
import { nowMs, useWorkspace } from './workspace.ts';

/** Where a course stands: its grade as it is and as it would be, and what each assignment does to it. */

export interface StandingRow {
  readonly view: AssignmentView;
  readonly part: AssignmentPart;
  /** With the "if" scores; null where there are none. */
  readonly ifPart: AssignmentPart | null;
  readonly ifScore: DecimalString | null;
}

export interface StandingCategory {
  /** '' for what stands in no category. */
  readonly id: string;
  readonly title: string;
  readonly part: CategoryPart;
  readonly drop: number;
  readonly extraCredit: boolean;
  readonly rows: readonly StandingRow[];
}

export interface Standing {
  readonly course: Course;
  /** As it is. */
  readonly graded: GradedCourse;
  readonly grade: GradeExplained;
  /** With the "if" scores; null where there are none. */
  readonly ifGraded: GradedCourse | null;
  readonly ifGrade: GradeExplained | null;
  readonly categories: readonly StandingCategory[];
  /** Assignments that no points are known of: they don't count. */
  readonly withoutPoints: readonly AssignmentView[];
}

/** The graded course as if its "if" scores were given: as one more attempt where one is open, else instead of the score. */
function withIfs(
  graded: GradedCourse,
  ifs: ReadonlyMap<string, { score: DecimalString; again: boolean }>,
): GradedCourse {
  let course = graded;
  for (const [id, { score, again }] of ifs) {
    const own = graded.assignments.find((one) => one.id === id);
    const latest = Math.max(0, ...(own?.attempts ?? []).map(({ atMs }) => atMs));
    course = again
      ? withAttempt(course, id, fromDecimal(score), latest + 1)
      : withScore(course, id, fromDecimal(score));
  }
  return course;
}

export function standingOf(records: RecordMaps, courseId: string, atMs: number): Standing | null {
  const course = records.courses.get(courseId);
  if (course === undefined) return null;
  const graded = gradedCourseOf(records, course);
  if (graded === null) return null;
  const views = [...records.assignments.values()]
    .filter((assignment) => assignment.courseId === courseId)
    .flatMap(({ id }) => keptViewOf(records, id, atMs) ?? []);
  const ifs = new Map<string, { score: DecimalString; again: boolean }>(
    views.flatMap(({ assignment: { id }, state }) => {
      const score = records.ifScores.get(id)?.score;
      return score === undefined ? [] : [[id, { score, again: state.kind === 'open for another attempt' }]];
    }),
  );
  const grade = explainGrade(graded);
  const ifGraded = ifs.size === 0 ? null : withIfs(graded, ifs);
  const ifGrade = ifGraded === null ? null : explainGrade(ifGraded);
  const byId = new Map(views.map((view) => [view.assignment.id as string, view]));
  const categories = grade.categories.map((part, i): StandingCategory => {
    const given = course.categories.find(({ id }) => id === part.id);
    const rows = part.assignments.flatMap((each, r): StandingRow[] => {
      const view = byId.get(each.id);
      if (view === undefined) return [];
      return [
        {
          view,
          part: each,
          ifPart: ifGrade === null ? null : ifGrade.categories[i].assignments[r],
          ifScore: ifs.get(each.id)?.score ?? null,
        },
      ];
    });
    return {
      id: part.id,
      title: given?.title ?? '',
      part,
      drop: given?.drop ?? 0,
      extraCredit: given?.extraCredit ?? false,
      rows: rows.toSorted(byDue),
    };
  });
  return {
    course,
    graded,
    grade,
    ifGraded,
    ifGrade,
    categories: categories.filter(({ id, rows }) => id !== '' || rows.length > 0),
    withoutPoints: views.filter(({ assignment }) => assignment.possible === null),
  };
}

function byDue({ view: x }: StandingRow, { view: y }: StandingRow): number {
  return (x.assignment.dueAt ?? '9').localeCompare(y.assignment.dueAt ?? '9');
}

export function useStanding(courseId: string): Standing | null {
  const records = useWorkspace((state) => state.records);
  return useMemo(() => standingOf(records, courseId, nowMs()), [records, courseId]);
}

/** Points of the course grade (of a hundred) that are missing in one place, and the assignments they are missing in. */
export interface Missing {
  /** A criterion's title; '' for what no criterion tells of. */
  readonly title: string;
  readonly missing: Fraction;
  readonly assignments: readonly { readonly view: AssignmentView; readonly missing: Fraction }[];
}

/**
 * Where the missing points of a course lie, by criterion, most first. Each is what the grade would be higher by, at what a
 * point of its assignment is worth; all together they are what the counted assignments lack. What a policy, lateness or an
 * adjustment makes beside the criteria stands with what no criterion tells of.
 */
export function missingByCriterion({ categories }: Standing): Missing[] {
  const byTitle = new Map<string, { title: string; parts: { view: AssignmentView; missing: Fraction }[] }>();
  const put = (title: string, view: AssignmentView, missing: Fraction) => {
    if (missing.n === 0n) return;
    const key = [...byTitle.keys()].find((one) => sameTitle(one, title)) ?? title;
    const known = byTitle.get(key) ?? { title, parts: [] };
    byTitle.set(key, { ...known, parts: [...known.parts, { view, missing }] });
  };
  for (const { rows } of categories)
    for (const { view, part } of rows) {
      if (part.counting !== 'counts' || part.score === null || part.possible.n === 0n) continue;
      const perPoint = divide(part.share, part.possible);
      const lost = subtract(part.possible, part.score);
      const byCriterion = view.criteria.flatMap(({ criterion, possible, got }) =>
        possible === null || got === null ? [] : [{ title: criterion.title, lost: subtract(possible, got) }],
      );
      for (const one of byCriterion) put(one.title, view, multiply(perPoint, one.lost));
      const told = byCriterion.reduce((sum, one) => add(sum, one.lost), ZERO);
      put('', view, multiply(perPoint, subtract(lost, told)));
    }
  const value = ({ missing }: Missing) => Number(toShown(missing, 6));
  return [...byTitle.values()]
    .map(({ title, parts }) => ({
      title,
      missing: parts.reduce((sum, { missing }) => add(sum, missing), ZERO),
      assignments: parts,
    }))
    .toSorted((x, y) => value(y) - value(x));
}

/** The grade with one assignment at nothing, and at full points: how far it can still move the course. */
export function reachOf(
  graded: GradedCourse,
  assignmentId: string,
): { least: Fraction; most: Fraction } | null {
  const possible = graded.assignments.find(({ id }) => id === assignmentId)?.possible;
  if (possible === undefined) return null;
  const least = courseGrade(withScore(graded, assignmentId, ZERO)).grade;
  const most = courseGrade(withScore(graded, assignmentId, possible)).grade;
  return least === null || most === null ? null : { least, most };
}

import type { Course } from '../model/facts.ts';
import type { DecimalString } from '../model/ids.ts';
import type { IfScore } from '../model/work.ts';
import {
  courseGrade,
  withAnotherAttempt,
  type CourseGrade,
  type GradedCourse,
} from '../scores/course-grade.ts';
import {
  explainGrade,
  type AssignmentPart,
  type CategoryPart,
  type GradeExplained,
} from '../scores/explain.ts';
import {
  add,
  compare,
  divide,
  fromDecimal,
  multiply,
  subtract,
  ZERO,
  type Fraction,
} from '../scores/fraction.ts';
import { withScore } from '../scores/what-if.ts';
import type { AssignmentRecords } from './records.ts';
import type { AssignmentView } from './view.ts';
import { gradedCourseOf } from './worth.ts';

/** Where a course stands: its grade as it is and as it would be, and what each assignment does to it. */

export interface StandingRow {
  readonly view: AssignmentView;
  readonly part: AssignmentPart;
}

/** A category of a course with what it and each of its assignments bring of the grade. */
export interface StandingCategory {
  /** '' for what stands in no category. */
  readonly id: string;
  readonly title: string;
  readonly part: CategoryPart;
  readonly drop: number;
  readonly extraCredit: boolean;
  readonly rows: readonly StandingRow[];
}

/** A course as it stands. */
export interface Standing {
  readonly course: Course;
  readonly graded: GradedCourse;
  readonly grade: GradeExplained;
  readonly categories: readonly StandingCategory[];
  /** Assignments that no points are known of: they don't count. */
  readonly withoutPoints: readonly AssignmentView[];
}

/** The same course with its "if" scores. */
export interface Ifs {
  readonly scoreById: ReadonlyMap<string, DecimalString>;
  readonly graded: GradedCourse;
  readonly grade: CourseGrade;
  /** Assignments whose “if” score is more than their points. */
  readonly beyond: readonly AssignmentView[];
}

/**
 * Where a course stands; null where there is none of that id, or nobody says how its grade is made.
 * @param viewById the views of its assignments
 */
export function standingOf(
  records: AssignmentRecords,
  courseId: string,
  viewById: (assignmentId: string) => AssignmentView | null,
): Standing | null {
  const course = records.find('courses', courseId);
  if (course === null) return null;
  const graded = gradedCourseOf(records, course);
  if (graded === null) return null;
  const views = records.inCourse(courseId).flatMap(({ id }) => viewById(id) ?? []);
  const grade = explainGrade(graded);
  const byId = new Map(views.map((view) => [view.assignment.id as string, view]));
  const categories = grade.categories.map((part): StandingCategory => {
    const given = course.categories.find(({ id }) => id === part.id);
    const rows = part.assignments.flatMap((each): StandingRow[] => {
      const view = byId.get(each.id);
      return view === undefined ? [] : [{ view, part: each }];
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
    categories: categories.filter(({ id, rows }) => id !== '' || rows.length > 0),
    withoutPoints: views.filter(({ assignment }) => assignment.possible === null),
  };
}

function byDue({ view: x }: StandingRow, { view: y }: StandingRow): number {
  return (x.assignment.dueAt ?? '9').localeCompare(y.assignment.dueAt ?? '9');
}

/**
 * The course as if its "if" scores were given: as one more attempt where one is open, else instead of the score. null where
 * there are none.
 */
export function ifsOf(ifScores: ReadonlyMap<string, IfScore>, { graded, categories }: Standing): Ifs | null {
  const scoreById = new Map<string, DecimalString>();
  const beyond: AssignmentView[] = [];
  let course = graded;
  for (const { rows } of categories)
    for (const { view } of rows) {
      const { id } = view.assignment;
      const score = ifScores.get(id)?.score;
      if (score === undefined) continue;
      scoreById.set(id, score);
      const { possible } = view.assignment;
      if (possible !== null && compare(fromDecimal(score), fromDecimal(possible)) > 0) beyond.push(view);
      course =
        view.state.kind === 'open for another attempt'
          ? withAnotherAttempt(course, id, fromDecimal(score))
          : withScore(course, id, fromDecimal(score));
    }
  return scoreById.size === 0 ? null : { scoreById, graded: course, grade: courseGrade(course), beyond };
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
    const key = title.trim().toLowerCase();
    const known = byTitle.get(key);
    if (known === undefined) byTitle.set(key, { title, parts: [{ view, missing }] });
    else known.parts.push({ view, missing });
  };
  for (const { rows } of categories)
    for (const { view, part } of rows) {
      if (part.counting !== 'counts' || part.score === null || part.possible.n === 0n) continue;
      const perPoint = divide(part.share, part.possible);
      const lost = subtract(part.possible, part.score);
      const byCriterion = view.countedCriteria.flatMap(({ criterion, possible, got }) =>
        possible === null || got === null ? [] : [{ title: criterion.title, lost: subtract(possible, got) }],
      );
      for (const one of byCriterion) put(one.title, view, multiply(perPoint, one.lost));
      const told = byCriterion.reduce((sum, one) => add(sum, one.lost), ZERO);
      put('', view, multiply(perPoint, subtract(lost, told)));
    }
  return [...byTitle.values()]
    .map(({ title, parts }) => ({
      title,
      missing: parts.reduce((sum, { missing }) => add(sum, missing), ZERO),
      assignments: parts.toSorted((x, y) => compare(y.missing, x.missing)),
    }))
    .toSorted((x, y) => compare(y.missing, x.missing));
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

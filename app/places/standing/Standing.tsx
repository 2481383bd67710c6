import { Tooltip } from '../../shared/controls/Tooltip.tsx';
import { useNow, useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import clsx from 'clsx';
import { lazy, Suspense, useMemo, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import type { Course } from '#core/model/facts.ts';
import { Button, Empty } from '../../shared/controls/Controls.tsx';
import { useDrawn, useKeys, useUndoKey } from '../../shared/page/hooks.ts';
import { redoAndTell, undoAndTell } from '../../shared/page/notify.ts';
import { isPast } from '../../shared/page/past-term.ts';
import { usePlaceTitle } from '../../shared/page/place-title.ts';
import * as words from '../../words/en.ts';
import { clearIfs, courseUndo } from '../../workspace/commands/by-hand.ts';
import { useIfs, useStanding } from '../../workspace/state/use-standing.ts';
import type { Standing as StandingOf } from '#core/assignment/standing.ts';
import { CategoryRows } from './CategoryRows.tsx';
import { GradeHead } from './GradeHead.tsx';
import { OpenAgain } from './OpenAgain.tsx';
import { Rest } from './Rest.tsx';
import { saveGrades } from './save-grades.ts';
import { assignmentAddress, courseAddress } from '../../shared/page/addresses.ts';

const Missing = lazy(() => import('./Missing.tsx').then((module) => ({ default: module.Missing })));

const buttonLook =
  'inline-flex min-h-9 items-center rounded-md border border-rule-strong/60 bg-surface px-3 py-1 font-semibold hover:border-ink';

/** Courses of this term first, in the order of their codes. */
function inOrder(courses: Iterable<Course>, now: (course: Course) => boolean): Course[] {
  const name = (course: Course) => course.code || course.title;
  return [...courses].sort((x, y) => Number(now(y)) - Number(now(x)) || name(x).localeCompare(name(y), 'en'));
}

/** Where a course stands: its grade, what it is made of, what could still move it, and where its missing points lie. */
export function Standing() {
  const atMs = useNow();
  const { courseId } = useParams();
  usePlaceTitle(words.places.standing);
  const all = useWorkspaceState((state) => state.records.courses);
  const courses = useMemo(() => inOrder(all.values(), (course) => !isPast(course, atMs)), [all, atMs]);
  const course = courses.find(({ id }) => id === courseId) ?? courses.at(0) ?? null;
  return (
    <div className="mx-auto max-w-[84rem] p-6 max-md:p-4">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <nav aria-label={words.standing.courses} className="flex flex-wrap gap-2">
          {courses.map((one) => (
            <Tooltip key={one.id} text={isPast(one, atMs) ? words.standing.pastTerm(one.term) : one.title}>
              <Link
                to={courseAddress(one.id)}
                aria-current={one === course ? 'page' : undefined}
                className={clsx(
                  'rounded-md border px-3 py-1.5',
                  one === course
                    ? 'border-accent bg-surface font-bold'
                    : 'border-rule text-quiet hover:border-ink',
                )}
              >
                {one.code || one.title}
              </Link>
            </Tooltip>
          ))}
        </nav>
        <div className="ml-auto flex flex-wrap gap-2">
          <Link to="/standing/take-in" className={buttonLook}>
            {words.standing.takeIn}
          </Link>
          <Link to="/standing/new" className={buttonLook}>
            {words.standing.newCourse}
          </Link>
        </div>
      </div>
      {course === null ? (
        <div className="mt-6">
          <Empty>{words.standing.noCourses}</Empty>
        </div>
      ) : (
        <CourseStanding key={course.id} course={course} />
      )}
    </div>
  );
}

function CourseStanding({ course }: { course: Course }) {
  const workspace = useWorkspace();
  const standing = useStanding(course.id);
  useUndoKey(
    () => void undoAndTell(workspace, courseUndo(course.id)),
    () => void redoAndTell(workspace, courseUndo(course.id)),
  );
  return (
    <>
      <header className="mt-5 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h1 className="font-serif text-2xl font-semibold">{course.title}</h1>
        <p className="text-quiet">
          {[course.code, course.term, course.instructor.name].filter(Boolean).join(' · ')}
          {course.byHand && ` · ${words.standing.byHand}`}
        </p>
        {course.byHand && (
          <p className="flex gap-4 font-semibold text-accent">
            <Link to={courseAddress(course.id, 'add')} className="hover:underline">
              {words.standing.addAssignment}
            </Link>
            <Link to={courseAddress(course.id, 'edit')} className="hover:underline">
              {words.standing.editCourse}
            </Link>
          </p>
        )}
      </header>
      {standing === null ? (
        <Told>{words.standing.noScheme}</Told>
      ) : standing.categories.every(({ rows }) => rows.length === 0) &&
        standing.withoutPoints.length === 0 ? (
        <Told>{words.standing.noAssignments}</Told>
      ) : (
        <Figures standing={standing} />
      )}
    </>
  );
}

function Told({ children }: { children: ReactNode }) {
  return (
    <div className="mt-5">
      <Empty>{children}</Empty>
    </div>
  );
}

function Figures({ standing }: { standing: StandingOf }) {
  const workspace = useWorkspace();
  const { course, categories, withoutPoints } = standing;
  const ifs = useIfs(standing);
  const drawn = useDrawn();
  const clear = () => {
    if (ifs !== null) void clearIfs(workspace, course.id, [...ifs.scoreById.keys()]);
  };
  useKeys({ x: clear });
  return (
    <div className="mt-4 grid grid-cols-1 gap-x-10 gap-y-9 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div className="grid grid-cols-1 content-start gap-8">
        <GradeHead standing={standing} ifGrade={ifs?.grade.grade} />
        <Button className="w-fit" onClick={() => void saveGrades(workspace, standing)}>
          {words.standing.saveCsv}
        </Button>
        {ifs !== null && ifs.beyond.length > 0 && (
          <p role="status" className="mt-1 text-sm">
            {words.standing.ifBeyond(ifs.beyond.map(({ assignment }) => assignment.title))}
          </p>
        )}
        {ifs === null ? (
          <p className="-mt-5 text-sm text-quiet">{words.standing.ifHint}</p>
        ) : (
          <p className="-mt-5 flex flex-wrap items-center gap-3 border-l-2 border-accent pl-3">
            <b>{words.standing.ifSet(ifs.scoreById.size)}</b>
            <Button onClick={clear}>{words.standing.clearIfs}</Button>
          </p>
        )}
        {categories.map((category) => (
          <CategoryRows key={category.id} standing={standing} category={category} ifs={ifs} />
        ))}
        {withoutPoints.length > 0 && (
          <section>
            <h2 className="font-serif text-[1.12rem] font-semibold">{words.standing.withoutPoints}</h2>
            <ul className="mt-1">
              {withoutPoints.map(({ assignment }) => (
                <li key={assignment.id} className="border-t border-rule py-2">
                  <Link to={assignmentAddress(assignment.id)} className="hover:underline">
                    {assignment.title}
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
      <aside className="grid grid-cols-1 content-start gap-8">
        <Rest graded={ifs?.graded ?? standing.graded} withIfs={ifs !== null} />
        <OpenAgain standing={standing} />
        <Link to="/did-it-work" className="font-semibold text-accent hover:underline">
          {words.learn.title}
        </Link>
        {drawn && (
          <Suspense fallback={null}>
            <Missing standing={standing} />
          </Suspense>
        )}
      </aside>
    </div>
  );
}

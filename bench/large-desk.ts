import {
  asId,
  AssignmentId,
  AttemptId,
  CategoryId,
  CourseId,
  CriterionId,
  instantOf,
  MarkingId,
  RubricId,
  type DecimalString,
} from '#core/model/ids.ts';
import type { Category, Rubric } from '#core/model/facts.ts';
import { buildDesk } from '#demo/build-desk.ts';
import { readFeedback } from '#demo/scenario.ts';
import type { DeskContent, NewFact } from '#server/desk/desk-state.ts';

/** A course desk far larger than the demo's: 200 assignments, each with overall words and 49 criterion comments. */

export const ASSIGNMENTS = 200;
export const REMARKS_EACH = 50;
export const NOW = Date.parse('2026-11-02T10:00:00.000Z');
const DAY_MS = 86_400_000;
/** Every tenth assignment is still to come. */
const UNMARKED = 10;

const dec = (text: string | number) => String(text) as DecimalString;

const categories = [40, 30, 20, 10].map((weight, i): Category => ({
  id: asId(CategoryId, `category-${i}`),
  title: `Category ${i}`,
  weight: dec(weight),
  drop: i,
  extraCredit: false,
}));

const rubric: Rubric = {
  id: asId(RubricId, 'rubric'),
  title: 'Rubric',
  criteria: Array.from({ length: REMARKS_EACH - 1 }, (_, n) => ({
    id: asId(CriterionId, `criterion-${n}`),
    title: `Criterion ${n}`,
    description: '',
    possible: dec(1),
    weight: null,
    levels: [],
  })),
  unscaled: false,
  byHandFor: null,
};

/** @param courses over how many courses the assignments are spread */
export async function largeDesk(courses: number): Promise<DeskContent> {
  const small = await buildDesk('2026-11-02', ['dip-well-lab']);
  // Of the demo's remarks, which are written as an instructor would.
  const texts = ['skarn-moss-remarks', 'policy-brief-draft', 'landscape-essay'].flatMap((name) =>
    readFeedback(name).remarks.map(({ text }) => text),
  );
  const [course] = small.facts.flatMap((fact) => (fact.kind === 'course' ? [fact.value] : []));
  const [assignment] = small.facts.flatMap((fact) => (fact.kind === 'assignment' ? [fact.value] : []));
  const [attempt] = small.facts.flatMap((fact) => (fact.kind === 'attempt' ? [fact.value] : []));
  const [marking] = small.facts.flatMap((fact) => (fact.kind === 'marking' ? [fact.value] : []));
  const facts: NewFact[] = Array.from({ length: courses }, (_, i) => ({
    kind: 'course' as const,
    value: {
      ...course,
      id: asId(CourseId, `course-${i}`),
      code: `COURSE ${i}`,
      title: `Course ${i}`,
      categories,
    },
  }));
  for (let i = 0; i < ASSIGNMENTS; i++) {
    const id = asId(AssignmentId, `assignment-${i}`);
    const attemptId = asId(AttemptId, `attempt-${i}`);
    const said = (n: number) => `${texts[(i * 7 + n) % texts.length]} (${i}.${n})`;
    const points = (n: number) => ((i * 13 + n * 29) % 5) / 4;
    const scored = i % UNMARKED !== 0;
    const total = Array.from({ length: REMARKS_EACH - 1 }, (_, n) => points(n)).reduce((x, y) => x + y, 0);
    facts.push(
      {
        kind: 'assignment',
        value: {
          ...assignment,
          id,
          courseId: asId(CourseId, `course-${i % courses}`),
          categoryId: categories[i % categories.length].id,
          title: `Assignment ${i}`,
          possible: dec(REMARKS_EACH - 1),
          rubricId: rubric.id,
        },
      },
      { kind: 'attempt', value: { ...attempt, id: attemptId, assignmentId: id } },
      {
        kind: 'marking',
        value: {
          ...marking,
          id: asId(MarkingId, `marking-${i}`),
          attemptId,
          assignmentId: id,
          at: instantOf(NOW - (i + 1) * (DAY_MS / 4)),
          score: scored ? dec(total) : null,
          overall: said(0),
          criteria: rubric.criteria.map(({ id: criterionId }, n) => ({
            criterionId,
            points: scored ? dec(points(n)) : null,
            level: null,
            comment: said(n + 1),
          })),
        },
      },
    );
  }
  return {
    ...small,
    rubrics: [...small.rubrics, rubric],
    facts: facts.map((fact, index) => ({ ...fact, seq: index + 1 })),
  };
}

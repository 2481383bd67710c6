import type { Assignment, Attempt, AttemptPolicy, Course, Marking, Rubric } from '#core/model/facts.ts';
import {
  asId,
  AssignmentId,
  AttemptId,
  CourseId,
  CriterionId,
  instantOf,
  MarkingId,
  RubricId,
  type DecimalString,
  type Instant,
} from '#core/model/ids.ts';
import { hashOf } from '#formats/hash.ts';
import type { DeskContent } from '#server/desk/desk-state.ts';
import { buildMarkedPdf, type DemoRemark } from './build-marked-pdf.ts';
import { blocksOfMarkdown } from './markdown.ts';
import markingRules from './marking-rules.json' with { type: 'json' };
import reportMarkdown from './papers/skarn-moss-report.md?raw';
import remarksFile from './papers/skarn-moss-remarks.json' with { type: 'json' };
import rubricFile from './papers/skarn-moss-rubric.json' with { type: 'json' };
import scenario from './scenario.json' with { type: 'json' };

type Day = readonly [number, string];
const DAY_MS = 86_400_000;

/** The instant of a wall-clock time in a zone, `days` after day zero. */
function instantAt(dayZero: string, [days, time]: Day, zone: string): Instant {
  const wall = Date.parse(`${dayZero}T${time}:00.000Z`) + days * DAY_MS;
  const shown = new Date(wall).toLocaleString('sv-SE', { timeZone: zone }).replace(' ', 'T');
  const offset = Date.parse(`${shown}.000Z`) - wall;
  return instantOf(wall - offset);
}

function dec(text: string): DecimalString {
  return text as DecimalString;
}

function buildRubric(): Rubric {
  return {
    id: asId(RubricId, rubricFile.id),
    title: rubricFile.title,
    criteria: rubricFile.criteria.map((criterion) => ({
      id: asId(CriterionId, criterion.id),
      title: criterion.title,
      possible: dec(criterion.possible),
      levels: rubricFile.levels.map((title, i) => ({
        title,
        description: criterion.descriptions[i],
        points: dec(criterion.points[i]),
      })),
    })),
  };
}

/** The desk's content on the demo's first day. The same day zero (YYYY-MM-DD) gives the same bytes. */
export async function buildDesk(dayZero: string): Promise<DeskContent> {
  const at = (day: Day) => instantAt(dayZero, day, scenario.zone);
  const atOrNull = (day: (string | number)[] | null) => (day === null ? null : at(day as unknown as Day));
  const courses = scenario.courses.map((course): Course => ({
    id: asId(CourseId, course.id),
    code: course.code,
    title: course.title,
    term: 'Autumn term',
    instructor: { name: course.instructor, role: 'instructor' },
    zone: scenario.zone,
  }));
  const assignments: Assignment[] = [];
  const attempts: Attempt[] = [];
  const markings: Marking[] = [];
  const files = new Map<string, Uint8Array>();
  for (const given of scenario.assignments) {
    const id = asId(AssignmentId, given.id);
    assignments.push({
      id,
      courseId: asId(CourseId, given.course),
      title: given.title,
      possible: dec(given.possible),
      counts: given.counts,
      opensAt: atOrNull(given.opens),
      dueAt: atOrNull(given.due),
      closesAt: atOrNull(given.closes),
      attemptsAllowed: given.attemptsAllowed,
      policy: given.policy as AttemptPolicy,
      rubricId: given.rubric === null ? null : asId(RubricId, given.rubric),
      requirements: { wordsMin: given.words[0], wordsMax: given.words[1], fileTypes: ['docx'] },
      brief: given.brief,
    });
    if (given.sent === undefined) continue;
    const attemptId = asId(AttemptId, `${given.id}-attempt-1`);
    attempts.push({
      id: attemptId,
      assignmentId: id,
      number: 1,
      at: at(given.sent as unknown as Day),
      files: [],
      note: '',
      receipt: null,
    });
    if (given.marked === undefined) continue;
    const markedAt = at(given.marked as unknown as Day);
    const course = courses.find((c) => c.id === given.course);
    if (course === undefined) throw new Error(`no course ${given.course}`);
    const marking: Marking = {
      id: asId(MarkingId, `${given.id}-marking-1`),
      attemptId,
      assignmentId: id,
      at: markedAt,
      marker: course.instructor,
      score: dec(given.score),
      overall: given.overall ?? '',
      criteria: [],
      files: [],
      announced: { passage: 0 },
    };
    markings.push(given.rubric === null ? marking : await withReport(marking, files));
  }
  const value = { courses, assignments, attempts, markings };
  return {
    deskId: scenario.desk.id,
    deskName: scenario.desk.name,
    student: scenario.student,
    dayZero,
    facts: [
      ...value.courses.map((course) => ({ kind: 'course' as const, value: course })),
      ...value.assignments.map((assignment) => ({ kind: 'assignment' as const, value: assignment })),
      ...value.attempts.map((attempt) => ({ kind: 'attempt' as const, value: attempt })),
      ...value.markings.map((marking) => ({ kind: 'marking' as const, value: marking })),
    ].map((fact, index) => ({ ...fact, seq: index + 1 })),
    rubrics: [buildRubric()],
    markingRules,
    files,
  };
}

async function withReport(marking: Marking, files: Map<string, Uint8Array>): Promise<Marking> {
  const remarks = remarksFile.remarks as DemoRemark[];
  const bytes = new Uint8Array(
    await buildMarkedPdf(
      'Rewetting Skarn Moss',
      blocksOfMarkdown(reportMarkdown),
      remarks,
      remarksFile.author,
      new Date(marking.at),
    ),
  );
  const hash = await hashOf(bytes);
  files.set(hash, bytes);
  return {
    ...marking,
    overall: rubricFile.result.overall,
    criteria: rubricFile.result.criteria.map((c) => ({
      criterionId: asId(CriterionId, c.id),
      points: dec(c.points),
      level: c.level,
      comment: c.comment,
    })),
    files: [
      {
        role: 'marked',
        name: 'Skarn Moss report, marked.pdf',
        mediaType: 'application/pdf',
        size: bytes.length,
        hash,
      },
    ],
    announced: { passage: remarks.length },
  };
}

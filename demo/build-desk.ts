import type { Assignment, Attempt, Author, Course, FileFact, Marking, Rubric } from '#core/model/facts.ts';
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
  type Instant,
} from '#core/model/ids.ts';
import type { DeskContent, NewFact } from '#server/desk/desk-state.ts';
import { returnedFiles, sentPdf } from './build-files.ts';
import { markingRulesWith } from './marking.ts';
import {
  readFeedback,
  readPaperText,
  readQuizzes,
  readRubrics,
  readScenario,
  readSources,
  type AssignmentGiven,
  type Day,
  type MarkingGiven,
  type Scenario,
} from './scenario.ts';

const DAY_MS = 86_400_000;
/** Texts from which the marker knows English, beside the library. */
const SAMPLES = ['skarn-moss-report', 'policy-brief-draft', 'landscape-essay', 'rain-diary'];

/** The instant of a wall-clock time in a zone, `days` after day zero. */
function instantAt(dayZero: string, [days, time]: Day, zone: string): Instant {
  const wall = Date.parse(`${dayZero}T${time}:00.000Z`) + days * DAY_MS;
  const shown = new Date(wall).toLocaleString('sv-SE', { timeZone: zone }).replace(' ', 'T');
  const offset = Date.parse(`${shown}.000Z`) - wall;
  return instantOf(wall - offset);
}

function buildRubrics(): Rubric[] {
  return readRubrics().map(({ id, title, levels, criteria }) => ({
    id: asId(RubricId, id),
    title,
    criteria: criteria.map((criterion) => ({
      id: asId(CriterionId, criterion.id),
      title: criterion.title,
      description: criterion.description,
      possible: criterion.possible ?? criterion.points.at(-1) ?? null,
      weight: null,
      levels: criterion.descriptions.map((description, i) => ({
        title: (criterion.levels ?? levels)[i],
        description,
        points: criterion.points[i] ?? null,
        pointsFrom: criterion.from[i] ?? null,
      })),
    })),
    unscaled: false,
    byHandFor: null,
  }));
}

/** The quizzes that are taken at the desk, by assignment. */
function buildQuizzes({ assignments }: Scenario): DeskContent['quizzes'] {
  const quizzes = readQuizzes();
  return Object.fromEntries(
    assignments.flatMap(({ id, quiz }) => (quiz === undefined ? [] : [[id, quizzes[quiz]]])),
  );
}

interface Building {
  readonly scenario: Scenario;
  readonly at: (day: Day) => Instant;
  readonly files: Map<string, Uint8Array>;
}

function buildCourses({ scenario, at }: Building): Course[] {
  return scenario.courses.map((course): Course => ({
    id: asId(CourseId, course.id),
    code: course.code,
    title: course.title,
    term: scenario.terms[course.term].title,
    termEndsAt: at(scenario.terms[course.term].ends),
    scheme: course.scheme,
    categories: course.categories,
    instructor: { name: course.instructor, role: 'instructor' },
    ...(course.handingIn !== undefined && { handingIn: course.handingIn }),
    people: course.people,
    zone: scenario.zone,
    policy: course.policy,
    late: course.late,
    scales: course.scales,
    gradeScaleId: course.gradeScale,
    byHand: false,
  }));
}

async function buildAssignment(given: AssignmentGiven, building: Building): Promise<Assignment> {
  const { at } = building;
  const materials: FileFact[] = [];
  for (const { name, text } of given.resources)
    materials.push({ ...(await sentPdf(text, name, at(given.opens), building)), role: 'brief' });
  const atOrNull = (day: Day | null) => (day === null ? null : at(day));
  return {
    id: asId(AssignmentId, given.id),
    courseId: asId(CourseId, given.course),
    categoryId: given.category === null ? null : asId(CategoryId, given.category),
    title: given.title,
    possible: given.possible,
    counts: given.counts,
    opensAt: at(given.opens),
    dueAt: at(given.due),
    extendedTo: atOrNull(given.extended),
    closesAt: atOrNull(given.closes),
    attemptsAllowed: given.attemptsAllowed,
    policy: given.policy,
    late: given.late,
    scaleId: given.scale,
    group: given.group,
    rubricId: given.rubric === null ? null : asId(RubricId, given.rubric),
    extraCredit: given.extraCredit,
    excused: given.excused,
    draftOf: given.draftOf === null ? null : asId(AssignmentId, given.draftOf),
    withdrawableUntil: atOrNull(given.withdrawableUntil),
    requirements: {
      wordsMin: given.words[0],
      wordsMax: given.words[1],
      ...(given.sentences !== undefined && { sentencesMin: given.sentences }),
      ...(given.readings.length > 0 && { readings: given.readings }),
      fileTypes: given.fileTypes ?? (given.kind === 'paper' ? ['docx', 'odt', 'pdf'] : []),
    },
    kind: given.kind,
    materials,
    brief: given.brief,
    byHand: false,
  };
}

async function buildMarking(
  given: MarkingGiven,
  ids: { readonly marking: string; readonly attempt: AttemptId; readonly assignment: AssignmentId },
  marker: Author,
  sent: FileFact | null,
  { at, files, scenario }: Building,
): Promise<Marking> {
  const feedback = given.from === undefined ? null : readFeedback(given.from);
  const returned: FileFact[] = [];
  const roleOf = (name: string) =>
    name === marker.name ? 'instructor' : name === scenario.student.name ? 'self' : 'peer';
  for (const file of given.files)
    returned.push(
      ...(await returnedFiles(file, {
        files,
        marker: marker.name,
        at: at(given.at),
        sent,
        before: returned,
        instantOf: (day, time) => at([day, time]),
        roleOf,
      })),
    );
  const overall = given.corrected ? feedback?.corrected : feedback?.overall;
  const criteria = feedback !== null && feedback.criteria.length > 0 ? feedback.criteria : given.criteria;
  return {
    id: asId(MarkingId, ids.marking),
    attemptId: ids.attempt,
    assignmentId: ids.assignment,
    at: at(given.at),
    marker,
    score: given.score,
    groupScore: given.groupScore,
    result: given.result,
    overall: overall ?? given.overall,
    criteria: criteria.map(({ id, ...rest }) => ({ criterionId: asId(CriterionId, id), ...rest })),
    files: returned,
    complete: given.complete,
    byHand: false,
  };
}

/** What happened with one assignment, in the order of the desk's record. */
async function buildHistory(given: AssignmentGiven, course: Course, building: Building): Promise<NewFact[]> {
  const facts: NewFact[] = [];
  const assignment = asId(AssignmentId, given.id);
  for (const [index, each] of given.attempts.entries()) {
    const number = index + 1;
    const attempt = asId(AttemptId, `${given.id}-attempt-${number}`);
    const sentAt = building.at(each.sent);
    const paper =
      each.paper === undefined ? null : await sentPdf(each.paper.text, each.paper.name, sentAt, building);
    const value: Attempt = {
      id: attempt,
      assignmentId: assignment,
      number,
      at: sentAt,
      files: paper === null ? [] : [paper],
      note: each.note,
      receipt: null,
      dueAt: null,
      outside: false,
      atKnown: true,
      post: null,
      items: each.items,
    };
    facts.push({ kind: 'attempt', value });
    for (const [place, marking] of each.markings.entries()) {
      const base = `${given.id}-marking-${number}`;
      const ids = { marking: place === 0 ? base : `${base}-correction-${place}`, attempt, assignment };
      facts.push({
        kind: 'marking',
        value: await buildMarking(marking, ids, course.instructor, paper, building),
      });
    }
  }
  if (given.markedUnsent !== undefined) {
    const { by = course.instructor.name } = given.markedUnsent;
    const marker = course.people.find(({ name }) => name === by) ?? course.instructor;
    const ids = {
      marking: `${given.id}-marking-1`,
      attempt: asId(AttemptId, `${given.id}-attempt-1`),
      assignment,
    };
    facts.push({
      kind: 'marking',
      value: await buildMarking(given.markedUnsent, ids, marker, null, building),
    });
  }
  return facts;
}

/**
 * The desk's content on the demo's first day. The same day zero (YYYY-MM-DD) gives the same bytes.
 * @param only the assignments to build; all where none are named
 */
export async function buildDesk(dayZero: string, only: readonly string[] = []): Promise<DeskContent> {
  const whole = readScenario();
  const wanted = whole.assignments.filter(({ id }) => only.length === 0 || only.includes(id));
  const scenario = { ...whole, assignments: wanted };
  const files = new Map<string, Uint8Array>();
  const building: Building = { scenario, files, at: (day) => instantAt(dayZero, day, scenario.zone) };
  const courses = buildCourses(building);
  const facts: NewFact[] = courses.map((value) => ({ kind: 'course', value }));
  for (const given of scenario.assignments)
    facts.push({ kind: 'assignment', value: await buildAssignment(given, building) });
  for (const given of scenario.assignments) {
    const course = courses.find(({ id }) => id === asId(CourseId, given.course));
    if (course === undefined) throw new Error(`no course ${given.course}`);
    facts.push(...(await buildHistory(given, course, building)));
  }
  const library = readSources();
  return {
    deskId: scenario.desk.id,
    deskName: scenario.desk.name,
    student: scenario.student,
    dayZero,
    facts: facts.map((fact, index) => ({ ...fact, seq: index + 1 })),
    rubrics: buildRubrics(),
    markingRules: markingRulesWith(
      [...SAMPLES.map(readPaperText), ...library.map(({ text }) => text)].join('\n'),
    ),
    quizzes: buildQuizzes(scenario),
    library,
    files,
  };
}

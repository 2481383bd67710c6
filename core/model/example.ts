import * as v from 'valibot';
import { Assignment, Attempt, Course, FileFact, Marking, Rubric } from './facts.ts';
import { Remark } from './remark.ts';
import { Judgement, Task } from './work.ts';

/** Records to be used in tests: plain ones, with what a test cares for put in. */

type Some<T> = { readonly [Key in keyof T]?: unknown };

const AT = '2026-11-02T10:00:00.000Z';
const HASH = 'a'.repeat(64);

/** A remark for tests: a passage without a place, but for what is given. */
export function exampleRemark(given: Some<Remark> = {}): Remark {
  return v.parse(Remark, {
    id: 'remark',
    assignmentId: 'a',
    attemptId: 'a-1',
    markingId: 'm',
    channel: 'passage',
    author: { name: 'Dr Aune Keld', role: 'instructor' },
    at: null,
    kind: 'highlight',
    color: null,
    text: 'Say why.',
    criterionId: null,
    targets: [{ kind: 'whole' }],
    replies: [],
    state: null,
    change: null,
    order: 0,
    fileHash: null,
    paperHash: null,
    ...given,
  });
}

/** A target on words, for exampleRemark. */
export function wordsTarget(exact: string, page: number | null = null) {
  return { kind: 'words', page, quads: [], rect: null, quote: { exact, prefix: '', suffix: '' } };
}

/** A judgement for tests: nothing decided, but for what is given. */
export function exampleJudgement(remarkId: string, given: Some<Judgement> = {}): Judgement {
  return v.parse(Judgement, {
    remarkId,
    assignmentId: 'a',
    decision: null,
    carry: false,
    note: '',
    stance: null,
    ...given,
  });
}

/** A task for tests: a sentence to be changed, about nothing, but for what is given. */
export function exampleTask(id: string, given: Some<Task> = {}): Task {
  return v.parse(Task, {
    id,
    assignmentId: 'a',
    title: id,
    kind: 'sentence',
    minutes: 10,
    about: [],
    done: false,
    rank: null,
    touched: false,
    needs: [],
    pin: null,
    steps: [],
    ...given,
  });
}

/** A file of a marking for tests. */
export function exampleFile(given: Some<FileFact> = {}): FileFact {
  return v.parse(FileFact, {
    role: 'marked',
    name: 'report.pdf',
    mediaType: 'application/pdf',
    size: 1000,
    hash: HASH,
    ...given,
  });
}

/** A course for tests, without categories; how its grade is made is not told. */
export function exampleCourse(given: Some<Course> = {}): Course {
  return v.parse(Course, {
    id: 'c',
    code: 'MIRE 210',
    title: 'Bog Hydrology',
    term: 'Autumn term',
    instructor: { name: 'Dr Aune Keld', role: 'instructor' },
    zone: 'Europe/London',
    ...given,
  });
}

/** An assignment for tests: of 40 points, one attempt. */
export function exampleAssignment(given: Some<Assignment> = {}): Assignment {
  return v.parse(Assignment, {
    id: 'a',
    courseId: 'c',
    title: 'Report',
    possible: '40',
    counts: null,
    opensAt: null,
    dueAt: AT,
    closesAt: null,
    attemptsAllowed: 1,
    policy: { kind: 'latest' },
    rubricId: null,
    requirements: { wordsMin: null, wordsMax: null, fileTypes: [] },
    brief: '',
    ...given,
  });
}

/** A rubric of criteria that are given by what a test cares for. */
export function exampleRubric(criteria: readonly object[], given: Some<Rubric> = {}): Rubric {
  return v.parse(Rubric, {
    id: 'r',
    title: 'Report',
    criteria: criteria.map((one, i) => ({
      id: `c-${i + 1}`,
      title: `Criterion ${i + 1}`,
      possible: null,
      levels: [],
      ...one,
    })),
    ...given,
  });
}

/** A first attempt for tests, without files. */
export function exampleAttempt(given: Some<Attempt> = {}): Attempt {
  return v.parse(Attempt, {
    id: 'a-1',
    assignmentId: 'a',
    number: 1,
    at: AT,
    files: [],
    note: '',
    receipt: null,
    ...given,
  });
}

/** A marking for tests: no score, no words. */
export function exampleMarking(given: Some<Marking> = {}): Marking {
  return v.parse(Marking, {
    id: 'm',
    attemptId: 'a-1',
    assignmentId: 'a',
    at: AT,
    marker: { name: 'Dr Aune Keld', role: 'instructor' },
    score: null,
    overall: '',
    criteria: [],
    files: [],
    ...given,
  });
}

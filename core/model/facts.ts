import * as v from 'valibot';
import {
  AssignmentId,
  AttemptId,
  CourseId,
  CriterionId,
  DecimalString,
  FileHash,
  Instant,
  MarkingId,
  RubricId,
} from './ids.ts';

/** What the school did. Copied from the course desk, append-only, never changed by the student. */

const shortText = v.pipe(v.string(), v.maxLength(500));
const longText = v.pipe(v.string(), v.maxLength(100_000));

export const authorRoles = [
  'instructor',
  'assistant',
  'second marker',
  'peer',
  'tutor',
  'self',
  'machine',
] as const;
export const AuthorRole = v.picklist(authorRoles);
export type AuthorRole = v.InferOutput<typeof AuthorRole>;

export const Author = v.object({ name: shortText, role: AuthorRole });
export type Author = v.InferOutput<typeof Author>;

export const Course = v.object({
  id: CourseId,
  code: shortText,
  title: shortText,
  term: shortText,
  instructor: Author,
  /** IANA zone in which the course's due times are shown. */
  zone: v.pipe(v.string(), v.maxLength(64)),
});
export type Course = v.InferOutput<typeof Course>;

/** How several marked attempts make one score (scores/policy.ts). */
export const AttemptPolicy = v.variant('kind', [
  v.object({ kind: v.literal('latest') }),
  v.object({ kind: v.literal('best') }),
  v.object({ kind: v.literal('mean') }),
  v.object({ kind: v.literal('capped'), cap: DecimalString }),
  v.object({ kind: v.literal('recover'), share: DecimalString }),
]);
export type AttemptPolicy = v.InferOutput<typeof AttemptPolicy>;

export const FileFact = v.object({
  role: v.picklist(['paper', 'marked', 'response', 'brief']),
  name: shortText,
  mediaType: shortText,
  size: v.pipe(v.number(), v.integer(), v.minValue(0)),
  hash: FileHash,
});
export type FileFact = v.InferOutput<typeof FileFact>;

export const Assignment = v.object({
  id: AssignmentId,
  /** null: a paper that was dropped in and is not in a course yet. */
  courseId: v.nullable(CourseId),
  title: shortText,
  possible: v.nullable(DecimalString),
  /** What it counts of the course grade, in the course's own words; null where it isn't known. */
  counts: v.nullable(shortText),
  opensAt: v.nullable(Instant),
  dueAt: v.nullable(Instant),
  /** Until when another attempt is taken after marking; null where none is. */
  closesAt: v.nullable(Instant),
  attemptsAllowed: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100)),
  policy: AttemptPolicy,
  rubricId: v.nullable(RubricId),
  requirements: v.object({
    wordsMin: v.nullable(v.number()),
    wordsMax: v.nullable(v.number()),
    fileTypes: v.array(shortText),
  }),
  brief: longText,
});
export type Assignment = v.InferOutput<typeof Assignment>;

const Level = v.object({ title: shortText, description: longText, points: v.nullable(DecimalString) });
export const Criterion = v.object({
  id: CriterionId,
  title: shortText,
  possible: v.nullable(DecimalString),
  /** From the lowest to the highest. */
  levels: v.array(Level),
});
export type Criterion = v.InferOutput<typeof Criterion>;
export const Rubric = v.object({ id: RubricId, title: shortText, criteria: v.array(Criterion) });
export type Rubric = v.InferOutput<typeof Rubric>;

export const Receipt = v.object({
  id: shortText,
  at: Instant,
  attempt: v.number(),
  attemptsAllowed: v.number(),
  rule: shortText,
  files: v.array(
    v.object({
      name: shortText,
      size: v.number(),
      hash: FileHash,
      words: v.number(),
      pages: v.number(),
      /** The file states no number of pages, and it was reckoned from its words. */
      pagesEstimated: v.boolean(),
    }),
  ),
});
export type Receipt = v.InferOutput<typeof Receipt>;

/** One handing-in. Never changed afterwards. */
export const Attempt = v.object({
  id: AttemptId,
  assignmentId: AssignmentId,
  number: v.pipe(v.number(), v.integer(), v.minValue(1)),
  at: Instant,
  files: v.array(FileFact),
  note: longText,
  receipt: v.nullable(Receipt),
});
export type Attempt = v.InferOutput<typeof Attempt>;

export const CriterionResult = v.object({
  criterionId: CriterionId,
  points: v.nullable(DecimalString),
  level: v.nullable(shortText),
  comment: longText,
});
export type CriterionResult = v.InferOutput<typeof CriterionResult>;

/** What a marker said of an attempt at one time. A correction is another marking; none is overwritten. */
export const Marking = v.object({
  id: MarkingId,
  attemptId: AttemptId,
  assignmentId: AssignmentId,
  at: Instant,
  marker: Author,
  score: v.nullable(DecimalString),
  overall: longText,
  criteria: v.array(CriterionResult),
  files: v.array(FileFact),
  /** How many remarks each returned file is said to hold, until it is read. */
  announced: v.object({ passage: v.number() }),
});
export type Marking = v.InferOutput<typeof Marking>;

/** One line of the desk's record. `seq` grows by one from line to line. */
export const Fact = v.variant('kind', [
  v.object({ seq: v.number(), kind: v.literal('course'), value: Course }),
  v.object({ seq: v.number(), kind: v.literal('assignment'), value: Assignment }),
  v.object({ seq: v.number(), kind: v.literal('attempt'), value: Attempt }),
  v.object({ seq: v.number(), kind: v.literal('marking'), value: Marking }),
]);
export type Fact = v.InferOutput<typeof Fact>;

export const FactsPage = v.object({ now: Instant, cursor: v.number(), facts: v.array(Fact) });
export type FactsPage = v.InferOutput<typeof FactsPage>;

export const SignedIn = v.object({
  deskId: shortText,
  deskName: shortText,
  studentId: shortText,
  studentName: shortText,
  now: Instant,
});
export type SignedIn = v.InferOutput<typeof SignedIn>;

/** Why the desk refused something, as one sentence for the student. */
export const Refusal = v.object({ error: shortText });

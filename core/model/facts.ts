import * as v from 'valibot';
import { channels } from './channels.ts';
import {
  AssignmentId,
  AttemptId,
  CategoryId,
  CourseId,
  CriterionId,
  DecimalString,
  FileHash,
  Instant,
  MarkingId,
  RubricId,
} from './ids.ts';
import { ItemAnswers, SentPost } from './handed-in.ts';
import { WorkKind } from './work-kind.ts';

/** What the school did. Copied from the course desk, append-only, never changed by the student. */

const shortText = v.pipe(v.string(), v.maxLength(500));
const longText = v.pipe(v.string(), v.maxLength(100_000));

/** What somebody who writes remarks is to the student. */
export const authorRoles = [
  'instructor',
  'assistant',
  'second marker',
  'peer',
  'tutor',
  'self',
  'machine',
] as const;
/** One of these roles. */
export const AuthorRole = v.picklist(authorRoles);
export type AuthorRole = v.InferOutput<typeof AuthorRole>;

/** Who wrote a remark or gave a marking. */
export const Author = v.object({ name: shortText, role: AuthorRole });
export type Author = v.InferOutput<typeof Author>;

/** A group of a course's assignments that counts together. */
export const Category = v.object({
  id: CategoryId,
  title: shortText,
  /** Its share of a weighted course's grade; null in a course of points. */
  weight: v.nullable(DecimalString),
  /** How many of its assignments are dropped. */
  drop: v.pipe(v.number(), v.integer(), v.minValue(0)),
  extraCredit: v.boolean(),
});
export type Category = v.InferOutput<typeof Category>;

/** How several marked attempts make one score (scores/policy.ts). */
export const AttemptPolicy = v.variant('kind', [
  v.object({ kind: v.literal('latest') }),
  v.object({ kind: v.literal('best') }),
  v.object({ kind: v.literal('mean') }),
  v.object({ kind: v.literal('capped'), cap: DecimalString }),
  v.object({ kind: v.literal('recover'), share: DecimalString }),
]);
export type AttemptPolicy = v.InferOutput<typeof AttemptPolicy>;

/** Points off for lateness, for each started day once the grace has passed (scores/late.ts). */
export const LateRule = v.object({
  graceHours: v.pipe(v.number(), v.minValue(0)),
  pointsPerDay: DecimalString,
  /** null: no limit but the score itself. */
  maxPoints: v.nullable(DecimalString),
});
export type LateRule = v.InferOutput<typeof LateRule>;

/** One of the results that a course gives instead of points: a letter, pass, complete. */
const Step = v.object({
  name: shortText,
  /** The least share of the points that is called so; null: no figure is. */
  from: v.nullable(DecimalString),
  /** The share of the points that it counts as where it is given; null: it counts nothing and takes nothing. */
  worth: v.nullable(DecimalString),
});
/** A step of a scale. */
export type Step = v.InferOutput<typeof Step>;

/** A course's own steps of results, the best first. */
export const Scale = v.object({
  id: shortText,
  title: shortText,
  steps: v.pipe(v.array(Step), v.maxLength(60)),
});
export type Scale = v.InferOutput<typeof Scale>;

/** A course as the school tells of it, or as the student typed it. */
export const Course = v.object({
  id: CourseId,
  code: shortText,
  title: shortText,
  term: shortText,
  /** When its term is over; null where that isn't known. */
  termEndsAt: v.optional(v.nullable(Instant), null),
  /** null: the school doesn't say how its grade is made. */
  scheme: v.optional(v.nullable(v.picklist(['weighted', 'points'])), null),
  categories: v.optional(v.array(Category), []),
  instructor: Author,
  /** To whom questions about a handing-in go, a person or an office; the instructor where nobody is named. */
  handingIn: v.optional(shortText),
  /** Others who write remarks in it, with their roles. */
  people: v.optional(v.array(Author), []),
  /** IANA zone in which the course's due times are shown. */
  zone: v.pipe(v.string(), v.maxLength(64)),
  /** What holds for its assignments that say nothing of their own; null: the latest attempt counts. */
  policy: v.optional(v.nullable(AttemptPolicy), null),
  late: v.optional(v.nullable(LateRule), null),
  scales: v.optional(v.array(Scale), []),
  /** The scale that the course grade is told on; null: in per cent alone. */
  gradeScaleId: v.optional(v.nullable(shortText), null),
  /** Typed or taken in by the student: no course desk tells of it. */
  byHand: v.optional(v.boolean(), false),
});
export type Course = v.InferOutput<typeof Course>;

/** What a file is of its attempt, marking or assignment. */
const fileFactRoles = [
  'paper',
  'marked',
  'response',
  'brief',
  'remarks',
  'recording',
  'transcript',
  'quiz',
  'posts',
  'report',
] as const;

/** A file that the school tells of; its bytes come by its hash. */
export const FileFact = v.object({
  role: v.picklist(fileFactRoles),
  name: shortText,
  mediaType: shortText,
  size: v.pipe(v.number(), v.integer(), v.minValue(0)),
  hash: FileHash,
  /** For remarks, reports and transcripts in a file of their own: what they are about. */
  aboutHash: v.optional(v.nullable(FileHash), null),
  /** How many remarks of each channel it is said to hold. */
  announced: v.optional(v.record(v.picklist(channels), v.pipe(v.number(), v.integer(), v.minValue(0))), {}),
});
export type FileFact = v.InferOutput<typeof FileFact>;

/** A piece of work that is handed in and marked. Times are instants; null where one isn't set. */
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
  /** null: as the course has it (scores/rules.ts). */
  policy: v.nullable(AttemptPolicy),
  rubricId: v.nullable(RubricId),
  categoryId: v.optional(v.nullable(CategoryId), null),
  extraCredit: v.optional(v.boolean(), false),
  /** This student need not do it; it doesn't count. */
  excused: v.optional(v.boolean(), false),
  /** This student's own due time, where it is later than the others'. */
  extendedTo: v.optional(v.nullable(Instant), null),
  /** null: as the course has it; a rule of 0 points a day takes nothing off. */
  late: v.optional(v.nullable(LateRule), null),
  /** The course's scale that its results are given on; null: points. */
  scaleId: v.optional(v.nullable(shortText), null),
  /** Work of several students. */
  group: v.optional(v.nullable(v.object({ name: shortText, members: v.array(shortText) })), null),
  /** What kind of work it is; null: nobody says, and it goes by what there is of it (line/kind.ts). */
  kind: v.optional(v.nullable(WorkKind), null),
  /** For a draft stage: the assignment that is its final. */
  draftOf: v.optional(v.nullable(AssignmentId), null),
  /** Until when an attempt that was sent can be taken back; null: it can't. */
  withdrawableUntil: v.optional(v.nullable(Instant), null),
  /** Brief and resources as files. */
  materials: v.optional(v.array(FileFact), []),
  requirements: v.object({
    wordsMin: v.nullable(v.number()),
    wordsMax: v.nullable(v.number()),
    fileTypes: v.array(shortText),
    /** How many sentences a post has at least; nothing where nobody said. */
    sentencesMin: v.optional(v.nullable(v.number())),
    /** Readings that it has to use, by the names they go by. */
    readings: v.optional(v.array(shortText)),
  }),
  brief: longText,
  /** Typed or taken in by the student. */
  byHand: v.optional(v.boolean(), false),
});
export type Assignment = v.InferOutput<typeof Assignment>;

const Level = v.object({
  title: shortText,
  description: longText,
  /** What it is worth; of a range of points the upper end. */
  points: v.nullable(DecimalString),
  /** The lower end of its range of points; null where it has one number. */
  pointsFrom: v.optional(v.nullable(DecimalString), null),
});
/** A level of a criterion: what work is like that is on it. */
export type Level = v.InferOutput<typeof Level>;
/** One criterion of a rubric. */
export const Criterion = v.object({
  id: CriterionId,
  title: shortText,
  /** What it is about at length. */
  description: v.optional(longText, ''),
  /** null: it is not scored. */
  possible: v.nullable(DecimalString),
  /** Its share of the rubric's total; null: as many parts as it has points. */
  weight: v.optional(v.nullable(DecimalString), null),
  /** From the lowest to the highest. */
  levels: v.array(Level),
});
export type Criterion = v.InferOutput<typeof Criterion>;
/** What work is marked by, criterion by criterion. */
export const Rubric = v.object({
  id: RubricId,
  title: shortText,
  criteria: v.array(Criterion),
  /** Its points stand as they are; else its total is scaled to the points of the assignment. */
  unscaled: v.optional(v.boolean(), false),
  /** The assignment that the student put it to; null for one of the school's. */
  byHandFor: v.optional(v.nullable(AssignmentId), null),
});
export type Rubric = v.InferOutput<typeof Rubric>;

/** The desk's word that it took an attempt. */
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
      /** null: a file of no text. */
      words: v.nullable(v.number()),
      pages: v.nullable(v.number()),
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
  /** Its own due time; null: the assignment's for the first, none for later ones. */
  dueAt: v.optional(v.nullable(Instant), null),
  /** Handed in outside of Juncture, as the student says. */
  outside: v.optional(v.boolean(), false),
  /** Whether `at` is when it was handed in; else when something of it was taken in here. */
  atKnown: v.optional(v.boolean(), true),
  /** What was posted; null where it is no post. */
  post: v.optional(v.nullable(SentPost), null),
  /** What was answered, by item; empty where it is no activity by items. */
  items: v.optional(ItemAnswers, {}),
});
export type Attempt = v.InferOutput<typeof Attempt>;

/** What one criterion was given in a marking. */
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
  /** This student's own points. */
  score: v.nullable(DecimalString),
  /** The points of all in the group; they count where there are no own ones. */
  groupScore: v.optional(v.nullable(DecimalString), null),
  /** The step of the assignment's scale; it counts where there are no points. */
  result: v.optional(v.nullable(shortText), null),
  overall: longText,
  criteria: v.array(CriterionResult),
  files: v.array(FileFact),
  /** false: more is to come of this marking. */
  complete: v.optional(v.boolean(), true),
  /** Typed or taken in by the student: it adds what the school's marking leaves out. */
  byHand: v.optional(v.boolean(), false),
});
export type Marking = v.InferOutput<typeof Marking>;

/** An attempt that was taken back. It stays on record and counts no more. */
export const Withdrawal = v.object({ attemptId: AttemptId, assignmentId: AssignmentId, at: Instant });
export type Withdrawal = v.InferOutput<typeof Withdrawal>;

/** One line of the desk's record. `seq` grows by one from line to line. */
export const Fact = v.variant('kind', [
  v.object({ seq: v.number(), kind: v.literal('course'), value: Course }),
  v.object({ seq: v.number(), kind: v.literal('assignment'), value: Assignment }),
  v.object({ seq: v.number(), kind: v.literal('attempt'), value: Attempt }),
  v.object({ seq: v.number(), kind: v.literal('marking'), value: Marking }),
  v.object({ seq: v.number(), kind: v.literal('withdrawal'), value: Withdrawal }),
]);
export type Fact = v.InferOutput<typeof Fact>;

/** For whom the desk answers, and what time it has. */
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

import * as v from 'valibot';

/**
 * What records were in version 6 of the storage, frozen: never changed with what they are today. Versions 3 to 5 are
 * brought to it by what it puts in for what they did not tell yet.
 */

const id = v.pipe(v.string(), v.minLength(1), v.maxLength(200));
const CourseId = id;
const CategoryId = id;
const AssignmentId = id;
const RubricId = id;
const CriterionId = id;
const AttemptId = id;
const MarkingId = id;
const RemarkId = id;
const TaskId = id;
const QueryId = id;
const DraftId = id;
const VersionId = id;
const PromiseId = id;
const SubmissionId = id;
const FileHash = v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/));
const Instant = v.pipe(v.string(), v.regex(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z$/));
const DecimalString = v.pipe(v.string(), v.regex(/^-?\d{1,12}(\.\d{1,6})?$/));
const channels = [
  'overall',
  'criterion',
  'passage',
  'region',
  'recording',
  'question',
  'post',
  'overlap',
] as const;
const Channel = v.picklist(channels);
const promisePlaces = ['paper', 'recording', 'criterion', 'overall', 'class', 'other'] as const;
const shortText = v.pipe(v.string(), v.maxLength(500));
const longText = v.pipe(v.string(), v.maxLength(100_000));
const authorRoles = ['instructor', 'assistant', 'second marker', 'peer', 'tutor', 'self', 'machine'] as const;
const AuthorRole = v.picklist(authorRoles);
const Author = v.object({ name: shortText, role: AuthorRole });
const Category = v.object({
  id: CategoryId,
  title: shortText,

  weight: v.nullable(DecimalString),

  drop: v.pipe(v.number(), v.integer(), v.minValue(0)),
  extraCredit: v.boolean(),
});
const AttemptPolicy = v.variant('kind', [
  v.object({ kind: v.literal('latest') }),
  v.object({ kind: v.literal('best') }),
  v.object({ kind: v.literal('mean') }),
  v.object({ kind: v.literal('capped'), cap: DecimalString }),
  v.object({ kind: v.literal('recover'), share: DecimalString }),
]);
const LateRule = v.object({
  graceHours: v.pipe(v.number(), v.minValue(0)),
  pointsPerDay: DecimalString,

  maxPoints: v.nullable(DecimalString),
});
const Step = v.object({
  name: shortText,

  from: v.nullable(DecimalString),

  worth: v.nullable(DecimalString),
});
const Scale = v.object({
  id: shortText,
  title: shortText,
  steps: v.pipe(v.array(Step), v.maxLength(60)),
});
const Course = v.object({
  id: CourseId,
  code: shortText,
  title: shortText,
  term: shortText,

  termEndsAt: v.optional(v.nullable(Instant), null),

  scheme: v.optional(v.nullable(v.picklist(['weighted', 'points'])), null),
  categories: v.optional(v.array(Category), []),
  instructor: Author,

  people: v.optional(v.array(Author), []),

  zone: v.pipe(v.string(), v.maxLength(64)),

  policy: v.optional(v.nullable(AttemptPolicy), null),
  late: v.optional(v.nullable(LateRule), null),
  scales: v.optional(v.array(Scale), []),

  gradeScaleId: v.optional(v.nullable(shortText), null),

  byHand: v.optional(v.boolean(), false),
});
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
const FileFact = v.object({
  role: v.picklist(fileFactRoles),
  name: shortText,
  mediaType: shortText,
  size: v.pipe(v.number(), v.integer(), v.minValue(0)),
  hash: FileHash,

  aboutHash: v.optional(v.nullable(FileHash), null),

  announced: v.optional(v.record(v.picklist(channels), v.pipe(v.number(), v.integer(), v.minValue(0))), {}),
});
const Assignment = v.object({
  id: AssignmentId,

  courseId: v.nullable(CourseId),
  title: shortText,
  possible: v.nullable(DecimalString),

  counts: v.nullable(shortText),
  opensAt: v.nullable(Instant),
  dueAt: v.nullable(Instant),

  closesAt: v.nullable(Instant),
  attemptsAllowed: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100)),

  policy: v.nullable(AttemptPolicy),
  rubricId: v.nullable(RubricId),
  categoryId: v.optional(v.nullable(CategoryId), null),
  extraCredit: v.optional(v.boolean(), false),

  excused: v.optional(v.boolean(), false),

  extendedTo: v.optional(v.nullable(Instant), null),

  late: v.optional(v.nullable(LateRule), null),

  scaleId: v.optional(v.nullable(shortText), null),

  group: v.optional(v.nullable(v.object({ name: shortText, members: v.array(shortText) })), null),

  draftOf: v.optional(v.nullable(AssignmentId), null),

  withdrawableUntil: v.optional(v.nullable(Instant), null),

  materials: v.optional(v.array(FileFact), []),
  requirements: v.object({
    wordsMin: v.nullable(v.number()),
    wordsMax: v.nullable(v.number()),
    fileTypes: v.array(shortText),
  }),
  brief: longText,

  byHand: v.optional(v.boolean(), false),
});
const Level = v.object({
  title: shortText,
  description: longText,

  points: v.nullable(DecimalString),

  pointsFrom: v.optional(v.nullable(DecimalString), null),
});
const Criterion = v.object({
  id: CriterionId,
  title: shortText,

  description: v.optional(longText, ''),

  possible: v.nullable(DecimalString),

  weight: v.optional(v.nullable(DecimalString), null),

  levels: v.array(Level),
});
const Rubric = v.object({
  id: RubricId,
  title: shortText,
  criteria: v.array(Criterion),

  unscaled: v.optional(v.boolean(), false),

  byHandFor: v.optional(v.nullable(AssignmentId), null),
});
const Receipt = v.object({
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

      pagesEstimated: v.boolean(),
    }),
  ),
});
const Attempt = v.object({
  id: AttemptId,
  assignmentId: AssignmentId,
  number: v.pipe(v.number(), v.integer(), v.minValue(1)),
  at: Instant,
  files: v.array(FileFact),
  note: longText,
  receipt: v.nullable(Receipt),

  dueAt: v.optional(v.nullable(Instant), null),

  outside: v.optional(v.boolean(), false),
});
const CriterionResult = v.object({
  criterionId: CriterionId,
  points: v.nullable(DecimalString),
  level: v.nullable(shortText),
  comment: longText,
});
const Marking = v.object({
  id: MarkingId,
  attemptId: AttemptId,
  assignmentId: AssignmentId,
  at: Instant,
  marker: Author,

  score: v.nullable(DecimalString),

  groupScore: v.optional(v.nullable(DecimalString), null),

  result: v.optional(v.nullable(shortText), null),
  overall: longText,
  criteria: v.array(CriterionResult),
  files: v.array(FileFact),

  complete: v.optional(v.boolean(), true),

  byHand: v.optional(v.boolean(), false),
});
const Withdrawal = v.object({ attemptId: AttemptId, assignmentId: AssignmentId, at: Instant });
const Quad = v.pipe(v.array(v.number()), v.length(8));
const Rect = v.pipe(v.array(v.number()), v.length(4));
const TextQuote = v.object({ exact: v.string(), prefix: v.string(), suffix: v.string() });
const shape = v.array(v.array(v.number()));
const Target = v.variant('kind', [
  v.object({
    kind: v.literal('words'),
    page: v.nullable(v.number()),
    quads: v.array(Quad),
    rect: v.nullable(Rect),
    quote: TextQuote,
  }),

  v.object({
    kind: v.literal('point'),
    page: v.number(),
    rect: Rect,
    shape,

    drawn: v.boolean(),
  }),

  v.object({
    kind: v.literal('region'),
    x: v.number(),
    y: v.number(),
    width: v.number(),
    height: v.number(),
    outline: v.nullable(v.string()),
  }),

  v.object({ kind: v.literal('time'), fromS: v.number(), toS: v.nullable(v.number()) }),

  v.object({ kind: v.literal('question'), questionId: v.string(), number: v.number() }),
  v.object({ kind: v.literal('criterion'), criterionId: CriterionId }),
  v.object({ kind: v.literal('whole') }),

  v.object({ kind: v.literal('unplaced'), said: v.string() }),
]);
interface Reply {
  readonly author: v.InferOutput<typeof Author>;
  readonly at: string | null;
  readonly text: string;
  readonly replies: readonly Reply[];
}
const Reply: v.GenericSchema<unknown, Reply> = v.object({
  author: Author,
  at: v.nullable(Instant),
  text: v.string(),
  replies: v.array(v.lazy(() => Reply)),
});
const Change = v.object({
  kind: v.picklist(['insertion', 'deletion', 'move', 'format']),
  before: v.string(),
  after: v.string(),
});
const Remark = v.object({
  id: RemarkId,
  assignmentId: AssignmentId,
  attemptId: AttemptId,
  markingId: MarkingId,
  channel: Channel,
  author: Author,
  at: v.nullable(Instant),

  kind: v.string(),
  color: v.nullable(v.string()),
  text: v.string(),

  criterionId: v.nullable(CriterionId),

  targets: v.pipe(v.array(Target), v.minLength(1)),
  replies: v.array(Reply),

  state: v.nullable(v.string()),
  change: v.nullable(Change),

  points: v.optional(v.nullable(DecimalString), null),

  before: v.optional(
    v.nullable(v.object({ text: v.string(), points: v.nullable(DecimalString), at: v.nullable(Instant) })),
    null,
  ),

  withdrawn: v.optional(v.boolean(), false),

  order: v.number(),

  textAt: v.optional(v.nullable(v.number()), null),

  fileHash: v.nullable(FileHash),

  paperHash: v.nullable(FileHash),
});
const Reading = v.object({
  remarkId: RemarkId,
  assignmentId: AssignmentId,
  of: v.string(),
  seenMs: v.number(),
  read: v.boolean(),
});
const decisions = ['act', 'ask', 'keep', 'decline'] as const;
const Decision = v.picklist(decisions);
const stances = ['must-fix', 'fix', 'polish', 'praise', 'advice', 'question', 'pointer', 'note'] as const;
const Stance = v.picklist(stances);
const Judgement = v.object({
  remarkId: RemarkId,
  assignmentId: AssignmentId,
  decision: v.nullable(Decision),
  carry: v.boolean(),
  note: v.string(),

  stance: v.nullable(Stance),

  apart: v.optional(v.boolean(), false),

  link: v.optional(v.nullable(v.object({ criterionId: v.nullable(CriterionId) })), null),

  reply: v.optional(v.string(), ''),
});
const changeKinds = ['mechanical', 'sentence', 'paragraph', 'structure', 'research'] as const;
const ChangeKind = v.picklist(changeKinds);
const Task = v.object({
  id: TaskId,
  assignmentId: AssignmentId,
  title: v.string(),
  kind: ChangeKind,
  minutes: v.number(),
  remarkIds: v.array(RemarkId),
  done: v.boolean(),

  rank: v.nullable(v.number()),

  touched: v.boolean(),
});
const Query = v.object({
  id: QueryId,
  assignmentId: AssignmentId,

  remarkId: v.nullable(RemarkId),
  person: v.string(),
  text: v.string(),

  putAt: v.nullable(Instant),
  touched: v.boolean(),
});
const PromiseNote = v.object({
  id: PromiseId,
  assignmentId: AssignmentId,

  remarkId: v.nullable(RemarkId),
  said: v.string(),
  place: v.picklist(promisePlaces),

  dismissed: v.boolean(),
  at: Instant,
});
const Aim = v.object({
  id: v.string(),
  assignmentId: AssignmentId,
  criterionId: CriterionId,

  level: v.pipe(v.number(), v.integer(), v.minValue(0)),

  ticked: v.array(v.string()),
});
const IfScore = v.object({ assignmentId: AssignmentId, score: DecimalString });
const Arrival = v.object({ markingId: MarkingId, assignmentId: AssignmentId, at: Instant });
const DraftContent = v.object({ schema: v.literal(1), doc: v.record(v.string(), v.unknown()) });
const Draft = v.object({
  id: DraftId,
  assignmentId: AssignmentId,
  attemptNumber: v.number(),

  startedFrom: FileHash,
  content: DraftContent,
  headVersionId: v.nullable(VersionId),
  savedAt: Instant,
});
const Version = v.object({
  id: VersionId,
  draftId: DraftId,
  assignmentId: AssignmentId,
  parentId: v.nullable(VersionId),
  at: Instant,
  why: v.picklist(['started', 'before a file came in', 'brought in', 'sent', 'taken back']),
  content: DraftContent,

  fileHash: v.nullable(FileHash),
});
const Submission = v.object({
  id: SubmissionId,
  assignmentId: AssignmentId,
  versionId: VersionId,
  note: v.string(),
  paper: v.object({ name: v.string(), hash: FileHash }),
  response: v.object({ name: v.string(), hash: FileHash }),
  at: Instant,
  state: v.variant('kind', [
    v.object({ kind: v.literal('waiting to go') }),
    v.object({ kind: v.literal('refused'), reason: v.string() }),
    v.object({ kind: v.literal('received'), attemptId: AttemptId, receipt: Receipt }),
  ]),
});
const fileRoles = [
  'marked',
  'sent',
  'remarks',
  'recording',
  'transcript',
  'quiz',
  'posts',
  'report',
  'version',
  'brief',
  'attachment',
] as const;
const FileRole = v.picklist(fileRoles);
const StoredFile = v.object({
  hash: FileHash,
  name: v.string(),
  mediaType: v.string(),
  size: v.number(),
  cameAt: Instant,
  origin: v.picklist(['desk', 'dropped', 'written']),
  assignmentId: v.nullable(AssignmentId),
  role: FileRole,

  aboutHash: v.nullable(FileHash),
});
const Person = v.object({
  name: v.string(),

  sameAs: v.nullable(v.string()),

  role: v.nullable(AuthorRole),
});

/** The schema of each store's records as version 6 had them. */
export const form6: Readonly<Record<string, v.GenericSchema>> = {
  courses: Course,
  assignments: Assignment,
  rubrics: Rubric,
  attempts: Attempt,
  markings: Marking,
  withdrawals: Withdrawal,
  arrivals: Arrival,
  remarks: Remark,
  readings: Reading,
  judgements: Judgement,
  tasks: Task,
  queries: Query,
  promises: PromiseNote,
  drafts: Draft,
  versions: Version,
  submissions: Submission,
  files: StoredFile,
  people: Person,
  aims: Aim,
  ifScores: IfScore,
};

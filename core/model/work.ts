import * as v from 'valibot';
import {
  AssignmentId,
  AttemptId,
  CriterionId,
  DecimalString,
  DraftId,
  FileHash,
  Instant,
  MarkingId,
  PartId,
  PromiseId,
  QueryId,
  RemarkId,
  SubmissionId,
  TaskId,
  VersionId,
} from './ids.ts';
import { AuthorRole, Receipt } from './facts.ts';
import { TextQuote } from './remark.ts';
import { LookChoice, SheetChoice } from './look.ts';
import { OverlapChoice } from './source.ts';
import { promisePlaces } from './promises.ts';
import { ItemAnswers, PostPlace, SentFile, SentPost } from './handed-in.ts';
import { WorkKind } from './work-kind.ts';

/** What the student read, decided, wrote and sent. Only the workspace's commands change it. */

/** Time spent on a remark and whether it counts as read. `of` tells for which wording of the remark. */
export const Reading = v.object({
  remarkId: RemarkId,
  assignmentId: AssignmentId,
  of: v.string(),
  seenMs: v.number(),
  read: v.boolean(),
});
export type Reading = v.InferOutput<typeof Reading>;

/** What the student can decide about a remark. */
export const decisions = ['act', 'ask', 'keep', 'decline'] as const;
/** One of them. */
export const Decision = v.picklist(decisions);
export type Decision = v.InferOutput<typeof Decision>;

/** What a remark asks for (computation.md, Saying). */
export const stances = [
  'must-fix',
  'fix',
  'polish',
  'praise',
  'advice',
  'question',
  'pointer',
  'note',
] as const;
/** One of them. */
export const Stance = v.picklist(stances);
export type Stance = v.InferOutput<typeof Stance>;

/** A remark, or one part of it. */
export const RemarkRef = v.object({ remarkId: RemarkId, partId: v.nullable(PartId) });
export type RemarkRef = v.InferOutput<typeof RemarkRef>;

/** What was taken for granted of a remark when it was decided: later corrections and models leave it so. */
const Taken = v.object({
  stance: Stance,
  model: v.string(),
  /** What it weighed (rubric/behind.ts); not known of what was decided before version 10. */
  importance: v.optional(v.nullable(v.number()), null),
});

/** A part of a remark that the student parted from the rest, and what was made of it. */
export const JudgedPart = v.object({
  id: PartId,
  /** Where it stands in the remark's text, UTF-16 units, and its words. */
  from: v.number(),
  to: v.number(),
  quote: v.string(),
  /** What it was taken to say when it was parted. */
  said: Stance,
  /** What it says, as the student sees it; null: as it was taken. */
  stance: v.nullable(Stance),
  decision: v.nullable(Decision),
  carry: v.boolean(),
  note: v.string(),
  reply: v.string(),
});
export type JudgedPart = v.InferOutput<typeof JudgedPart>;

/** What the student made of one remark. */
export const Judgement = v.object({
  remarkId: RemarkId,
  assignmentId: AssignmentId,
  decision: v.nullable(Decision),
  carry: v.boolean(),
  note: v.string(),
  /** What the remark says, as the student sees it; null: as the rules propose. */
  stance: v.nullable(Stance),
  /** It is a remark of its own, though its words stand elsewhere too. */
  apart: v.optional(v.boolean(), false),
  /** The criterion that it counts towards, as the student says: `criterionId` null for none. null: as its source says. */
  link: v.optional(v.nullable(v.object({ criterionId: v.nullable(CriterionId) })), null),
  /** What the student answers to it; it stands in the response sheet, and nobody is told of it before. */
  reply: v.optional(v.string(), ''),
  /** null while it isn't decided, and where nothing was known. */
  taken: v.optional(v.nullable(Taken), null),
  /** Its parts, in their order, once the student touched them; empty: as they are derived. */
  parts: v.optional(v.array(JudgedPart), []),
  /** Other places of the paper that it is about too, as the student says. */
  elsewhere: v.optional(v.array(TextQuote), []),
});
export type Judgement = v.InferOutput<typeof Judgement>;

/** Something by which marks of one hand are told apart. */
export const MarkSign = v.variant('kind', [
  /** A colour by its name (key/colors.ts). */
  v.object({ kind: v.literal('color'), name: v.string() }),
  /** What the source calls it: highlight, underline ... */
  v.object({ kind: v.literal('mark'), name: v.string() }),
  /** A short mark that is no word, as it is first written. */
  v.object({ kind: v.literal('short'), name: v.string() }),
]);
export type MarkSign = v.InferOutput<typeof MarkSign>;

/** What a sign means in one author's hand, as the student confirmed it. */
export const MarkKey = v.object({
  /** Author and sign (own-ids.ts). */
  id: v.string(),
  author: v.string(),
  sign: MarkSign,
  /** In the student's words, as something that is asked for or said; '' for one that means nothing. */
  meaning: v.string(),
  /** What a remark with it says, if that says it. */
  stance: v.nullable(Stance),
  /** What is mostly decided about remarks with it. */
  decision: v.nullable(Decision),
});
export type MarkKey = v.InferOutput<typeof MarkKey>;

/** Where a rule of language or form is explained: the student's own list. */
export const RuleReference = v.object({
  id: v.string(),
  /** The rule's code as machines give it, or what the student calls it. */
  rule: v.string(),
  title: v.string(),
  /** What it says, in the student's words. */
  says: v.string(),
  /** A book, a handout, a site; with its link and page where there are any. */
  where: v.string(),
  link: v.string(),
  page: v.string(),
});
export type RuleReference = v.InferOutput<typeof RuleReference>;

/** A word that markers use, explained by the student. */
export const OwnTerm = v.object({ term: v.string(), explanation: v.string(), example: v.string() });
export type OwnTerm = v.InferOutput<typeof OwnTerm>;

/** How deep a change goes, from the least effort to the most. */
export const changeKinds = ['mechanical', 'sentence', 'paragraph', 'structure', 'research'] as const;
/** One of them. */
export const ChangeKind = v.picklist(changeKinds);
export type ChangeKind = v.InferOutput<typeof ChangeKind>;

/** One step of the revision plan. */
export const Task = v.object({
  id: TaskId,
  assignmentId: AssignmentId,
  title: v.string(),
  kind: ChangeKind,
  minutes: v.number(),
  /** The remarks that it answers, or parts of them; empty for one that the student made. */
  about: v.array(RemarkRef),
  done: v.boolean(),
  /** Where the student dragged it; null: in the proposed order. */
  rank: v.nullable(v.number()),
  /** Whether the student changed anything of it since it was made. */
  touched: v.boolean(),
  /** What has to be done before it. */
  needs: v.array(TaskId),
  /** In the plan in any case, or left out of it, by hand; null: as it pays. */
  pin: v.nullable(v.picklist(['in', 'out'])),
  /** What it is done in, in the student's words. */
  steps: v.array(v.object({ title: v.string(), done: v.boolean() })),
  /** In a group's work, who of it does this, by name; nobody yet where it is left out. */
  who: v.optional(v.string()),
});
export type Task = v.InferOutput<typeof Task>;

/** The minutes that the student has for an assignment. */
export const PlanTime = v.object({ assignmentId: AssignmentId, minutes: v.number() });
export type PlanTime = v.InferOutput<typeof PlanTime>;

/** A stretch of time that the student set aside for tasks by hand. */
export const Block = v.object({
  id: v.string(),
  /** In the order in which they are done in it. */
  taskIds: v.array(TaskId),
  from: Instant,
  to: Instant,
});
export type Block = v.InferOutput<typeof Block>;

/** Time spent on a task. */
export const Spell = v.object({
  id: v.string(),
  taskId: TaskId,
  from: Instant,
  /** null while it goes on: at most one does. */
  to: v.nullable(Instant),
  /** When a page last saw it going on. */
  lastSeen: Instant,
});
export type Spell = v.InferOutput<typeof Spell>;

/** Something to be asked of somebody. */
export const Query = v.object({
  id: QueryId,
  assignmentId: AssignmentId,
  /** null for one that is about no remark: something promised, points that nobody explained. */
  about: v.nullable(RemarkRef),
  person: v.string(),
  text: v.string(),
  /** When the student said that it was asked; null while it waits. */
  putAt: v.nullable(Instant),
  touched: v.boolean(),
  /** What came back, in the student's words; '' while nothing did. */
  answer: v.string(),
});
export type Query = v.InferOutput<typeof Query>;

/** More feedback that is said to be somewhere: what the student made of a promise, or put in by hand. */
export const PromiseNote = v.object({
  id: PromiseId,
  assignmentId: AssignmentId,
  /** The remark that makes it; null for one that was made elsewhere. */
  remarkId: v.nullable(RemarkId),
  said: v.string(),
  place: v.picklist(promisePlaces),
  /** The student needs no more of it, or has what was promised. */
  dismissed: v.boolean(),
  at: Instant,
});
export type PromiseNote = v.InferOutput<typeof PromiseNote>;

/** The level of a criterion that the student wants to reach, and what of its list is ticked. */
export const Aim = v.object({
  /** Assignment and criterion (rubric/aim.ts). */
  id: v.string(),
  assignmentId: AssignmentId,
  criterionId: CriterionId,
  /** The level's place from the lowest, from 0. */
  level: v.pipe(v.number(), v.integer(), v.minValue(0)),
  /** The items that are ticked by hand, in their own words. */
  ticked: v.array(v.string()),
});
export type Aim = v.InferOutput<typeof Aim>;

/** A score that is not given: what if it were. */
export const IfScore = v.object({ assignmentId: AssignmentId, score: DecimalString });
export type IfScore = v.InferOutput<typeof IfScore>;

/** When a marking was first seen here. */
export const Arrival = v.object({ markingId: MarkingId, assignmentId: AssignmentId, at: Instant });
export type Arrival = v.InferOutput<typeof Arrival>;

/** The editor's document, in the form of `schema`. */
export const DraftContent = v.object({ schema: v.literal(1), doc: v.record(v.string(), v.unknown()) });
export type DraftContent = v.InferOutput<typeof DraftContent>;

/** What a draft or version is beside the text that is written here: what the kind of work asks for. */
const madeOf = {
  /** Under which its document is stored; null where nothing is written here. */
  bodyHash: v.nullable(FileHash),
  /** Files that go as they are, in this order. */
  files: v.array(FileHash),
  post: v.nullable(PostPlace),
  items: ItemAnswers,
};

/** What a student is making towards one attempt to come. */
export const Draft = v.object({
  id: DraftId,
  assignmentId: AssignmentId,
  attemptNumber: v.number(),
  /** The marked paper that it started from; null: from nothing. */
  startedFrom: v.nullable(FileHash),
  ...madeOf,
  /** The file, written elsewhere, that its text is and that is sent as it is; null where the text is written here. */
  paperFile: v.nullable(FileHash),
  /** What the student wants to tell the instructor with it. */
  note: v.string(),
  headVersionId: v.nullable(VersionId),
  savedAt: Instant,
});
export type Draft = v.InferOutput<typeof Draft>;

/** A rectangle in a picture, in its pixels. */
const PlaceInPicture = v.object({
  fileHash: FileHash,
  x: v.number(),
  y: v.number(),
  width: v.number(),
  height: v.number(),
});
/** A rectangle in a picture, in its pixels. */
export type PlaceInPicture = v.InferOutput<typeof PlaceInPicture>;

/** Words of a version that the student took as an answer, in UTF-16 units of its text. */
export const PickedPlace = v.object({
  versionId: VersionId,
  from: v.number(),
  to: v.number(),
  /** The words; '' for a gap where something was taken out. */
  exact: v.string(),
});
/** Words of a version that the student took as an answer. */
export type PickedPlace = v.InferOutput<typeof PickedPlace>;

/** What the student says was done about a remark or a part of it, and where in what is new (decisions.md, Answer). */
export const GivenAnswer = v.object({
  remarkId: RemarkId,
  partId: v.nullable(PartId),
  /** The assignment that is worked on: of a remark on a draft stage its final. */
  assignmentId: AssignmentId,
  words: v.string(),
  regions: v.array(PlaceInPicture),
  /** In versions of the text, in the order in which they were taken. */
  places: v.array(PickedPlace),
  /** Files that answer it as they are. */
  files: v.array(FileHash),
});
export type GivenAnswer = v.InferOutput<typeof GivenAnswer>;

/** A snapshot that never changes. */
export const Version = v.object({
  id: VersionId,
  draftId: DraftId,
  assignmentId: AssignmentId,
  parentId: v.nullable(VersionId),
  at: Instant,
  why: v.picklist([
    'started',
    'before a file came in',
    'brought in',
    'answered',
    'stretch',
    'before going back',
    'sent',
    'taken back',
    'other device',
  ]),
  /** What the student calls it; '' for none. */
  name: v.string(),
  ...madeOf,
  /** The file it was brought in from or sent as; null for one that was only written here. */
  fileHash: v.nullable(FileHash),
});
export type Version = v.InferOutput<typeof Version>;

/** A handing-in on its way or arrived. Its id is the idempotency key. */
export const Submission = v.object({
  id: SubmissionId,
  assignmentId: AssignmentId,
  versionId: VersionId,
  kind: WorkKind,
  note: v.string(),
  /** Kept to the byte as they were sent. */
  files: v.array(SentFile),
  /** For a post its text and place. */
  post: v.nullable(SentPost),
  items: ItemAnswers,
  at: Instant,
  state: v.variant('kind', [
    v.object({ kind: v.literal('waiting to go') }),
    v.object({ kind: v.literal('refused'), reason: v.string() }),
    v.object({ kind: v.literal('received'), attemptId: AttemptId, receipt: Receipt }),
  ]),
});
export type Submission = v.InferOutput<typeof Submission>;

/** What a kept file is of its assignment. */
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
  /** A picture that stands in a draft. */
  'figure',
  /** Times at which the student is busy. */
  'calendar',
  /** A text that drafts are compared with. */
  'source',
] as const;
/** What a kept file is of its assignment. */
export const FileRole = v.picklist(fileRoles);
export type FileRole = v.InferOutput<typeof FileRole>;

/** A file that is kept: what is known of it beside its bytes. */
export const StoredFile = v.object({
  hash: FileHash,
  name: v.string(),
  mediaType: v.string(),
  size: v.number(),
  cameAt: Instant,
  origin: v.picklist(['desk', 'dropped', 'written']),
  assignmentId: v.nullable(AssignmentId),
  role: FileRole,
  /** For remarks and transcripts in a file of their own: the paper or recording that they are about. */
  aboutHash: v.nullable(FileHash),
});
export type StoredFile = v.InferOutput<typeof StoredFile>;

/** A time of a day as clocks show it: 17:30; 24:00 is the end of the day. */
const ClockTime = v.pipe(v.string(), v.regex(/^(([01]\d|2[0-3]):[0-5]\d|24:00)$/));
/** Hours of a weekday. */
export const Hours = v.object({ from: ClockTime, to: ClockTime });
export type Hours = v.InferOutput<typeof Hours>;

/** The parts of a pack that is taken along, in their order. */
export const packParts = ['wish', 'asks', 'tasks', 'rubric', 'overlap', 'paper', 'index', 'receipt'] as const;
/** One of them. */
export type PackPart = (typeof packParts)[number];

/** What a pack begins with, which parts it lacks, and what is not said in it. */
export const TakenAlong = v.object({
  wish: v.string(),
  without: v.array(v.picklist([...packParts, 'scores', 'names', 'room'])),
});
export type TakenAlong = v.InferOutput<typeof TakenAlong>;

/**
 * Something that the student set, by its name. It goes along in the backup; what is only how things look stays with the
 * browser.
 */
export const Setting = v.variant('name', [
  /** Whether single keys do something: where one speaks to the computer they must not. */
  v.object({ name: v.literal('singleKeys'), on: v.boolean() }),
  /** When the student can work, from Monday to Sunday. */
  v.object({ name: v.literal('freeHours'), week: v.pipe(v.array(v.array(Hours)), v.length(7)) }),
  /** How long before it is due all is to be done. */
  v.object({ name: v.literal('margin'), hours: v.number() }),
  /** Tasks that were proposed to be joined and are not to be, by their ids (core/plan/together.ts). */
  v.object({ name: v.literal('leftApart'), groups: v.array(v.string()) }),
  /** When the workspace was last saved as a file. */
  v.object({ name: v.literal('lastBackup'), at: Instant }),
  /** What the pack that is taken along from an assignment begins with, and what of it the student leaves out. */
  v.object({
    name: v.literal('takeAlong'),
    packs: v.record(v.string(), TakenAlong),
  }),
  /** How the overlap of each assignment is counted. */
  v.object({ name: v.literal('overlap'), of: v.record(v.string(), OverlapChoice) }),
  /** What was settled about the last look at the drafts of each assignment. */
  v.object({ name: v.literal('lastLook'), of: v.record(v.string(), LookChoice) }),
  /** How the response sheet of each assignment is written. */
  v.object({ name: v.literal('responseSheet'), of: v.record(v.string(), SheetChoice) }),
  /** Words that are spelt as the student wants them, though no dictionary has them; in lower case. */
  v.object({ name: v.literal('ownWords'), words: v.array(v.string()) }),
  /** Whether plans go by the student's own record or by the standard chance and minutes. */
  v.object({ name: v.literal('estimates'), by: v.picklist(['record', 'standard']) }),
  /** Whether the lines of the last look are marked in the draft. */
  v.object({ name: v.literal('lookMarks'), on: v.boolean() }),
  /** The blocks that a calendar was last given, so that the next one changes and cancels them. */
  v.object({
    name: v.literal('calendarGiven'),
    blocks: v.array(
      v.object({
        uid: v.string(),
        title: v.string(),
        from: Instant,
        to: Instant,
        sequence: v.number(),
        gone: v.boolean(),
      }),
    ),
  }),
]);
export type Setting = v.InferOutput<typeof Setting>;

/** What the student knows of somebody who wrote remarks, by the name in the files. */
export const Person = v.object({
  name: v.string(),
  /** The name of the same person elsewhere; null for a person of their own. */
  sameAs: v.nullable(v.string()),
  /** null: as the file or the school says. */
  role: v.nullable(AuthorRole),
});
export type Person = v.InferOutput<typeof Person>;

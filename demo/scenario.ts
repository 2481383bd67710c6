import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as v from 'valibot';
import { LibrarySource } from '#formats/desk/library.ts';
import { Assignment, AttemptPolicy, Author, Category, Course, Marking } from '#core/model/facts.ts';
import { DecimalString } from '#core/model/ids.ts';
import { ItemAnswers } from '#core/model/handed-in.ts';
import { WorkKind } from '#core/model/work-kind.ts';
import { KeptQuiz } from '#server/desk/quiz.ts';

/** The demo's scenario as data: demo/scenario.json, and what it names in demo/papers, demo/feedback and demo/media. */

/** A day counted from day zero, and the time of day in the desk's zone. */
const Day = v.tuple([v.number(), v.string()]);
export type Day = v.InferOutput<typeof Day>;

const CriterionGiven = v.object({
  id: v.string(),
  points: v.nullable(DecimalString),
  level: v.nullable(v.string()),
  comment: v.string(),
});

const FileGiven = v.variant('kind', [
  v.object({
    kind: v.picklist(['marked pdf', 'marked docx']),
    name: v.string(),
    text: v.string(),
    remarks: v.array(v.string()),
  }),
  v.object({ kind: v.literal('marked picture'), name: v.string(), media: v.string() }),
  v.object({
    kind: v.picklist(['region remarks', 'peer remarks']),
    name: v.string(),
    about: v.string(),
    remarks: v.string(),
  }),
  v.object({ kind: v.literal('quiz'), name: v.string(), quiz: v.string(), attempt: v.number() }),
  v.object({ kind: v.literal('posts'), name: v.string(), posts: v.string() }),
  v.object({ kind: v.literal('recording'), name: v.string(), media: v.string() }),
  v.object({ kind: v.literal('report'), name: v.string(), matches: v.string() }),
]);
export type FileGiven = v.InferOutput<typeof FileGiven>;

const MarkingGiven = v.object({
  at: Day,
  by: v.optional(v.string()),
  score: v.nullable(DecimalString),
  groupScore: Marking.entries.groupScore,
  result: Marking.entries.result,
  complete: v.optional(v.boolean(), true),
  /** The file of feedback that its words stand in, where they don't stand here. */
  from: v.optional(v.string()),
  corrected: v.optional(v.boolean(), false),
  overall: v.optional(v.string(), ''),
  criteria: v.optional(v.array(CriterionGiven), []),
  files: v.optional(v.array(FileGiven), []),
});
export type MarkingGiven = v.InferOutput<typeof MarkingGiven>;

const AttemptGiven = v.object({
  sent: Day,
  paper: v.optional(v.object({ name: v.string(), text: v.string() })),
  note: v.optional(v.string(), ''),
  items: v.optional(ItemAnswers, {}),
  markings: v.optional(v.array(MarkingGiven), []),
});

const AssignmentGiven = v.object({
  id: v.string(),
  course: v.string(),
  category: v.optional(v.nullable(v.string()), null),
  title: v.string(),
  kind: v.optional(WorkKind, 'paper'),
  /** The quiz that is taken at the desk. */
  quiz: v.optional(v.string()),
  /** Endings of the files that it takes; any text where none are told, and anything for other kinds. */
  fileTypes: v.optional(v.array(v.string())),
  possible: DecimalString,
  counts: v.optional(v.nullable(v.string()), null),
  opens: Day,
  due: Day,
  extended: v.optional(v.nullable(Day), null),
  closes: v.nullable(Day),
  attemptsAllowed: v.number(),
  policy: v.optional(v.nullable(AttemptPolicy), null),
  late: Assignment.entries.late,
  scale: Assignment.entries.scaleId,
  group: Assignment.entries.group,
  rubric: v.nullable(v.string()),
  draftOf: v.optional(v.nullable(v.string()), null),
  extraCredit: v.optional(v.boolean(), false),
  excused: v.optional(v.boolean(), false),
  withdrawableUntil: v.optional(v.nullable(Day), null),
  words: v.tuple([v.nullable(v.number()), v.nullable(v.number())]),
  sentences: v.optional(v.number()),
  readings: v.optional(v.array(v.string()), []),
  brief: v.string(),
  /** Texts that are given along, by name. */
  resources: v.optional(v.array(v.object({ name: v.string(), text: v.string() })), []),
  attempts: v.optional(v.array(AttemptGiven), []),
  /** A marking of something that was never sent. */
  markedUnsent: v.optional(MarkingGiven),
});
export type AssignmentGiven = v.InferOutput<typeof AssignmentGiven>;

const Scenario = v.object({
  desk: v.object({ id: v.string(), name: v.string() }),
  student: v.object({ id: v.string(), name: v.string() }),
  zone: v.string(),
  terms: v.record(v.string(), v.object({ title: v.string(), ends: Day })),
  courses: v.array(
    v.object({
      id: v.string(),
      code: v.string(),
      title: v.string(),
      instructor: v.string(),
      handingIn: v.optional(v.string()),
      term: v.string(),
      scheme: v.picklist(['weighted', 'points']),
      categories: v.array(Category),
      people: v.optional(v.array(Author), []),
      policy: Course.entries.policy,
      late: Course.entries.late,
      scales: Course.entries.scales,
      gradeScale: Course.entries.gradeScaleId,
    }),
  ),
  assignments: v.array(AssignmentGiven),
});
export type Scenario = v.InferOutput<typeof Scenario>;

const PdfKind = v.picklist([
  'highlight',
  'underline',
  'squiggly',
  'strikeout',
  'note',
  'box',
  'ink',
  'circle',
]);
const Hue = v.picklist(['evidence', 'order', 'terms']);
const RemarkGiven = v.object({
  id: v.string(),
  kind: v.optional(PdfKind, 'highlight'),
  quote: v.optional(v.string()),
  quotes: v.optional(v.array(v.string())),
  beside: v.optional(v.string()),
  near: v.optional(v.string()),
  criterion: v.optional(v.string()),
  text: v.string(),
  /** What it is meant to say, by the one who wrote it. */
  says: v.string(),
  replies: v.optional(v.array(v.object({ author: v.string(), text: v.string(), minutes: v.number() }))),
});

const FeedbackGiven = v.object({
  author: v.optional(v.string(), ''),
  overall: v.optional(v.string(), ''),
  corrected: v.optional(v.string(), ''),
  criteria: v.optional(v.array(CriterionGiven), []),
  remarks: v.optional(v.array(RemarkGiven), []),
  hues: v.optional(v.record(Hue, v.array(v.string())), {}),
  changes: v.optional(
    v.array(
      v.object({
        id: v.string(),
        kind: v.picklist(['insert', 'delete', 'replace']),
        quote: v.optional(v.string()),
        after: v.optional(v.string()),
        with: v.optional(v.string()),
      }),
    ),
    [],
  ),
  peer: v.optional(v.object({ author: v.string(), remarks: v.array(RemarkGiven) })),
  regions: v.optional(
    v.array(v.object({ id: v.string(), box: v.array(v.number()), text: v.string(), says: v.string() })),
    [],
  ),
});
export type FeedbackGiven = v.InferOutput<typeof FeedbackGiven>;

const Rubrics = v.array(
  v.object({
    id: v.string(),
    title: v.string(),
    levels: v.array(v.string()),
    criteria: v.array(
      v.object({
        id: v.string(),
        title: v.string(),
        possible: v.optional(DecimalString),
        description: v.optional(v.string(), ''),
        /** None for one that is not scored. */
        points: v.array(DecimalString),
        /** Where levels are ranges: the lower ends. */
        from: v.optional(v.array(DecimalString), []),
        levels: v.optional(v.array(v.string())),
        descriptions: v.array(v.string()),
      }),
    ),
  }),
);

const QuizzesGiven = v.record(
  v.string(),
  v.object({
    ...KeptQuiz.entries,
    attempts: v.array(
      v.array(
        v.object({
          id: v.string(),
          response: v.array(v.string()),
          score: v.nullable(DecimalString),
          feedback: v.string(),
        }),
      ),
    ),
  }),
);

const PostsGiven = v.record(
  v.string(),
  v.object({
    title: v.string(),
    posts: v.array(
      v.object({
        id: v.string(),
        author: v.string(),
        day: v.number(),
        time: v.string(),
        answers: v.nullable(v.string()),
        text: v.string(),
        comments: v.array(
          v.object({ id: v.string(), quote: v.nullable(v.string()), text: v.string(), says: v.string() }),
        ),
      }),
    ),
  }),
);

const MatchesGiven = v.record(
  v.string(),
  v.array(
    v.object({
      id: v.string(),
      quote: v.string(),
      text: v.string(),
      /** The source it stands in too; a reference stands in many. */
      from: v.optional(v.string()),
    }),
  ),
);

/** The invented sources that papers of the demo share words with. */
const SourcesGiven = v.array(LibrarySource);

function folder(...parts: string[]): string {
  return join(process.cwd(), 'demo', ...parts);
}

function readJson<T>(schema: v.GenericSchema<unknown, T>, ...parts: string[]): T {
  return v.parse(schema, JSON.parse(readFileSync(folder(...parts), 'utf8')));
}

export const readScenario = () => readJson(Scenario, 'scenario.json');
export const readRubrics = () => readJson(Rubrics, 'feedback', 'rubrics.json');
export const readQuizzes = () => readJson(QuizzesGiven, 'feedback', 'quizzes.json');
export const readDiscussions = () => readJson(PostsGiven, 'feedback', 'posts.json');
export const readMatches = () => readJson(MatchesGiven, 'feedback', 'overlap.json');
export const readSources = () => readJson(SourcesGiven, 'sources', 'sources.json');
export const readFeedback = (name: string) => readJson(FeedbackGiven, 'feedback', `${name}.json`);
export const readPaperText = (name: string) => readFileSync(folder('papers', `${name}.md`), 'utf8');
export const readMedia = (name: string) => new Uint8Array(readFileSync(folder('media', name)));

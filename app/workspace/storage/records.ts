import type * as v from 'valibot';
import type { Anchor, PageSize, PaperKind } from '#formats/marked-paper.ts';
import type { Layout } from '#core/paper/layout.ts';
import { Assignment, Attempt, Course, Marking, Rubric, Withdrawal } from '#core/model/facts.ts';
import type { FileHash } from '#core/model/ids.ts';
import { answerKey } from '#core/model/own-ids.ts';
import { Remark } from '#core/model/remark.ts';
import { Source } from '#core/model/source.ts';
import {
  Aim,
  Arrival,
  Block,
  Draft,
  GivenAnswer,
  IfScore,
  Judgement,
  MarkKey,
  OwnTerm,
  Person,
  PlanTime,
  PromiseNote,
  Query,
  Reading,
  RuleReference,
  Setting,
  Spell,
  StoredFile,
  Submission,
  Task,
  Version,
} from '#core/model/work.ts';
import type { Paper } from '#core/paper/paper.ts';
import type { AssignmentRecordMaps, AssignmentStores } from '#core/assignment/records.ts';

/** A paper's text and anchors, derived from its file and kept so that it isn't read again. */
export interface ReadPaper {
  readonly hash: FileHash;
  readonly readerVersion: number;
  readonly kind: PaperKind;
  readonly pages: readonly PageSize[];
  /** For each page the offset in the paper's text from which on words stand on it; empty without pages. */
  readonly pageStarts: readonly number[];
  readonly paper: Paper;
  /** What a paper without pages is shown from; null for PDF and pictures. */
  readonly layout: Layout | null;
  readonly anchors: Readonly<Record<string, Anchor>>;
  /** Kinds of mark in the file that can't be shown here. */
  readonly unknownKinds: readonly string[];
}

/** What the workspace keeps, by store. */
export interface RecordByStore extends AssignmentStores {
  versions: Version;
  ifScores: IfScore;
  settings: Setting;
  ruleReferences: RuleReference;
  ownTerms: OwnTerm;
  planTimes: PlanTime;
  blocks: Block;
  spells: Spell;
  sources: Source;
}

export type StoreName = keyof RecordByStore;

/** How each store's records are keyed, and what they must be when they come from a file. */
export const recordStores: {
  readonly [Store in StoreName]: {
    readonly schema: v.GenericSchema<unknown, RecordByStore[Store]>;
    readonly keyOf: (record: RecordByStore[Store]) => string;
  };
} = {
  courses: { schema: Course, keyOf: (r) => r.id },
  assignments: { schema: Assignment, keyOf: (r) => r.id },
  rubrics: { schema: Rubric, keyOf: (r) => r.id },
  attempts: { schema: Attempt, keyOf: (r) => r.id },
  markings: { schema: Marking, keyOf: (r) => r.id },
  withdrawals: { schema: Withdrawal, keyOf: (r) => r.attemptId },
  arrivals: { schema: Arrival, keyOf: (r) => r.markingId },
  remarks: { schema: Remark, keyOf: (r) => r.id },
  readings: { schema: Reading, keyOf: (r) => r.remarkId },
  judgements: { schema: Judgement, keyOf: (r) => r.remarkId },
  tasks: { schema: Task, keyOf: (r) => r.id },
  queries: { schema: Query, keyOf: (r) => r.id },
  promises: { schema: PromiseNote, keyOf: (r) => r.id },
  drafts: { schema: Draft, keyOf: (r) => r.id },
  versions: { schema: Version, keyOf: (r) => r.id },
  submissions: { schema: Submission, keyOf: (r) => r.id },
  files: { schema: StoredFile, keyOf: (r) => r.hash },
  people: { schema: Person, keyOf: (r) => r.name },
  aims: { schema: Aim, keyOf: (r) => r.id },
  ifScores: { schema: IfScore, keyOf: (r) => r.assignmentId },
  settings: { schema: Setting, keyOf: (r) => r.name },
  answers: { schema: GivenAnswer, keyOf: answerKey },
  markKeys: { schema: MarkKey, keyOf: (r) => r.id },
  ruleReferences: { schema: RuleReference, keyOf: (r) => r.id },
  ownTerms: { schema: OwnTerm, keyOf: (r) => r.term },
  planTimes: { schema: PlanTime, keyOf: (r) => r.assignmentId },
  blocks: { schema: Block, keyOf: (r) => r.id },
  spells: { schema: Spell, keyOf: (r) => r.id },
  sources: { schema: Source, keyOf: (r) => r.hash },
};

export const storeNames = Object.keys(recordStores) as StoreName[];

export type RecordMaps = { readonly [Store in StoreName]: ReadonlyMap<string, RecordByStore[Store]> } & Pick<
  AssignmentRecordMaps,
  'sayings'
>;

export function emptyRecords(): RecordMaps {
  const stores = Object.fromEntries(storeNames.map((store) => [store, new Map()]));
  return { ...stores, sayings: new Map() } as unknown as RecordMaps;
}

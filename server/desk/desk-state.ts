import * as v from 'valibot';
import { Fact, Rubric } from '#core/model/facts.ts';
import { LibrarySource } from '#formats/desk/library.ts';
import { wireOfFact, type WirePage } from '#formats/desk/wire.ts';
import { Instant } from '#core/model/ids.ts';
import { MarkingRules } from '../marker/marking-rules.ts';
import { KeptQuiz, Sitting } from './quiz.ts';

export const DESK_STATE_VERSION = 1;

/** A desk as it begins: what a demo builds. */
export interface DeskContent {
  readonly deskId: string;
  readonly deskName: string;
  readonly student: { readonly id: string; readonly name: string };
  readonly dayZero: string;
  readonly facts: readonly Fact[];
  readonly rubrics: readonly Rubric[];
  readonly markingRules: unknown;
  /** Quizzes that are taken here, by assignment. */
  readonly quizzes: Readonly<Record<string, unknown>>;
  readonly files: ReadonlyMap<string, Uint8Array>;
  /** Texts that a paper may be compared with. */
  readonly library: readonly LibrarySource[];
}

/** What the desk keeps in its folder. */
export const DeskState = v.object({
  version: v.literal(DESK_STATE_VERSION),
  deskId: v.string(),
  deskName: v.string(),
  student: v.object({ id: v.string(), name: v.string() }),
  /** scrypt of the access code, hexadecimal, with its salt. */
  code: v.object({ salt: v.string(), hash: v.string() }),
  dayZero: v.string(),
  facts: v.array(Fact),
  rubrics: v.array(Rubric),
  markingRules: MarkingRules,
  quizzes: v.optional(v.record(v.string(), KeptQuiz), {}),
  library: v.optional(v.array(LibrarySource), []),
  sittings: v.optional(v.array(Sitting), []),
  /** SHA-256 of session tokens; the tokens themselves are only in the browser. */
  sessions: v.array(v.object({ token: v.string(), at: Instant })),
  /** Attempts by idempotency key, so that sending again after a break makes no second one. */
  attemptByKey: v.record(v.string(), v.string()),
  /** SHA-256 of what was asked under each key: a key stands for one handing-in. */
  askedByKey: v.optional(v.record(v.string(), v.string()), {}),
});
export type DeskState = v.InferOutput<typeof DeskState>;

/** What the school did since a line of its record, as it goes over the wire. */
export function factsAfter(state: DeskState, after: number, now: Instant): WirePage {
  const facts = state.facts.filter((fact) => fact.seq > after);
  return {
    now,
    cursor: state.facts.length,
    facts: facts.map((fact) => wireOfFact(fact, state.student.id)),
  };
}

/** A fact before it has its line in the record. */
export type NewFact = Fact extends infer Each ? (Each extends Fact ? Omit<Each, 'seq'> : never) : never;

/** The state with one more line in its record. */
export function withFact(state: DeskState, fact: NewFact): DeskState {
  return { ...state, facts: [...state.facts, { ...fact, seq: state.facts.length + 1 }] };
}

import * as v from 'valibot';
import { DecimalString, Instant } from '#core/model/ids.ts';
import { questionKinds, type QuizItem } from '#core/quiz/question.ts';
import { Demand, pattern } from '../marker/demand.ts';

/** A quiz as the desk keeps it: its questions, and by what they are marked. */

const Choice = v.object({ id: v.string(), text: v.string() });

export const KeptQuestion = v.object({
  id: v.string(),
  title: v.string(),
  kind: v.picklist(questionKinds),
  prompt: v.string(),
  choices: v.optional(v.array(Choice), []),
  partners: v.optional(v.array(Choice), []),
  correct: v.array(v.string()),
  possible: DecimalString,
  /** How far off a number may be. */
  tolerance: v.optional(DecimalString, '0' as DecimalString),
  /** What is said of a response, the values parted by "; ": the first that fits. */
  said: v.optional(v.array(v.object({ when: pattern, text: v.string() })), []),
  /** By what a text is marked. None: it is left to a person. */
  wants: v.optional(v.array(v.omit(Demand, ['criterion'])), []),
  /** How many of them are enough for all of its points; null: every one. */
  enough: v.optional(v.nullable(v.number()), null),
});
export type KeptQuestion = v.InferOutput<typeof KeptQuestion>;

export const KeptQuiz = v.object({
  title: v.string(),
  /** How long a sitting lasts; null: until the quiz closes. */
  minutes: v.nullable(v.number()),
  items: v.array(KeptQuestion),
});
export type KeptQuiz = v.InferOutput<typeof KeptQuiz>;

/** The question as it is asked and told of afterwards. */
export function itemOf({ title, kind, prompt, choices, partners, correct }: KeptQuestion): QuizItem {
  return { title, kind, prompt, choices, partners, correct };
}

/** One taking of a quiz: begun, answered a question at a time, ended by the student or by its time. */
export const Sitting = v.object({
  id: v.string(),
  assignmentId: v.string(),
  begunAt: Instant,
  /** When its time is over. */
  endsAt: Instant,
  /** null: it is going on. */
  endedAt: v.nullable(Instant),
  /** What was typed or chosen, by question. Of an order: the place of each choice, "choice place". */
  answers: v.record(v.string(), v.array(v.string())),
});
export type Sitting = v.InferOutput<typeof Sitting>;

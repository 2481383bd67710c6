import type { DecimalString } from '../model/ids.ts';

/** How a question is answered: one or several of its choices, all of them in order, pairs, a number, a few words, a text. */
export const questionKinds = ['one', 'several', 'order', 'pairs', 'number', 'short', 'long'] as const;
/** One of these ways. */
export type QuestionKind = (typeof questionKinds)[number];

/** Something to choose, under the id that responses name it by. */
export interface Choice {
  readonly id: string;
  readonly text: string;
}

/** A question of a quiz as its item has it. */
export interface QuizItem {
  readonly title: string;
  readonly kind: QuestionKind;
  /** What is asked, a line for each paragraph. */
  readonly prompt: string;
  readonly choices: readonly Choice[];
  /** For pairs: what the choices are paired with. */
  readonly partners: readonly Choice[];
  /** The responses that it should have had: of choices their ids, in their order where that is asked, of pairs both ids. */
  readonly correct: readonly string[];
}

/** What one attempt made of one question. */
export interface QuizQuestion {
  readonly id: string;
  /** From 1, as the quiz had it. */
  readonly number: number;
  /** null: its item didn't come along. */
  readonly item: QuizItem | null;
  readonly response: readonly string[];
  /** null: not marked yet. */
  readonly score: DecimalString | null;
  readonly possible: DecimalString | null;
  readonly feedback: string;
}

/** One attempt at a quiz. */
export interface QuizResults {
  readonly title: string;
  readonly questions: readonly QuizQuestion[];
}

/** A pair as a response has it: the ids of the choice and of its partner, as QTI writes a directed pair. */
export function pairOf(choice: string, partner: string): string {
  return `${choice} ${partner}`;
}

/** One value of a response in words: of a choice its text, of a pair both. */
export function responseText({ choices, partners }: QuizItem, value: string): string {
  const textIn = (list: readonly Choice[], id: string) => list.find((one) => one.id === id)?.text ?? id;
  if (partners.length === 0) return textIn(choices, value);
  const [choice, partner = ''] = value.split(' ');
  return `${textIn(choices, choice)} – ${textIn(partners, partner)}`;
}

/** What a question should have had, in words; of several ways to say it the first. */
export function correctText(item: QuizItem): string {
  const { kind, correct } = item;
  const told = kind === 'short' ? correct.slice(0, 1) : correct;
  return told.map((value) => responseText(item, value)).join('; ');
}

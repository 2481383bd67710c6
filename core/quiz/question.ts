import type { DecimalString } from '../model/ids.ts';

/** A question of a quiz as its item has it. */
export interface QuizItem {
  readonly title: string;
  /** What is asked, a line for each paragraph. */
  readonly prompt: string;
  readonly choices: readonly { readonly id: string; readonly text: string }[];
  /** The responses that it should have had: of choices their ids. */
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

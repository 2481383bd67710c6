import { compare, fromDecimal, subtract, ZERO, type Fraction } from '../scores/fraction.ts';
import type { QuizItem, QuizQuestion, QuizResults } from './question.ts';

/** A question that lost points, to be practised. */
export interface Missed {
  readonly question: QuizQuestion;
  readonly item: QuizItem;
  /** Points lost in the latest attempt that had it. */
  readonly lost: Fraction;
}

/**
 * The questions that lost points when they were answered last, those that lost most first, then in the order of the quiz.
 * What is asked has to be known: without its item a question can't be practised.
 * @param attempts the results of the attempts, the latest last
 */
export function missedQuestions(attempts: readonly QuizResults[]): Missed[] {
  const latest = new Map<string, QuizQuestion>();
  for (const { questions } of attempts)
    for (const question of questions) if (question.score !== null) latest.set(question.id, question);
  return [...latest.values()]
    .flatMap((question): Missed[] => {
      const { item, score, possible } = question;
      if (item === null || score === null || possible === null) return [];
      const lost = subtract(fromDecimal(possible), fromDecimal(score));
      return compare(lost, ZERO) > 0 ? [{ question, item, lost }] : [];
    })
    .sort((x, y) => compare(y.lost, x.lost) || x.question.number - y.question.number);
}

/**
 * Whether a response is one that the question should have had, as far as that can be told: capitals, white space and, in
 * numbers, zeros at the end set aside. Several that belong together have to be all there. null: it has none to compare with.
 */
export function isRight({ correct }: QuizItem, response: readonly string[]): boolean | null {
  if (correct.length === 0) return null;
  const wanted = new Set(correct.map(plain));
  const given = new Set(response.map(plain).filter((one) => one !== ''));
  return wanted.size === given.size && [...given].every((one) => wanted.has(one));
}

function plain(text: string): string {
  const squeezed = text.normalize('NFKC').trim().replace(/\s+/g, ' ').toLowerCase();
  const number = /^[+-]?\d+(?:[.,]\d+)?$/.test(squeezed) ? Number(squeezed.replace(',', '.')) : NaN;
  return Number.isNaN(number) ? squeezed : String(number);
}

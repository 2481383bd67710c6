import { compare, fromDecimal, larger, subtract, ZERO, type Fraction } from '../scores/fraction.ts';
import type { QuizItem, QuizQuestion, QuizResults } from './question.ts';

/** A question that lost points, to be practised. */
export interface Missed {
  readonly question: QuizQuestion;
  readonly item: QuizItem;
  /** Points lost in the latest attempt that had it. */
  readonly lost: Fraction;
}

/** Points that a question lost; none where it isn't marked, or nobody says what it could have had. */
export function lostIn({ score, possible }: QuizQuestion): Fraction {
  if (score === null || possible === null) return ZERO;
  return larger(subtract(fromDecimal(possible), fromDecimal(score)), ZERO);
}

/** Questions in the order in which they are worth looking at: what lost most first, then as the quiz has them. */
export function lostFirst(questions: readonly QuizQuestion[]): QuizQuestion[] {
  return [...questions].sort((x, y) => compare(lostIn(y), lostIn(x)) || x.number - y.number);
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
  return lostFirst([...latest.values()]).flatMap((question): Missed[] => {
    const { item } = question;
    const lost = lostIn(question);
    return item !== null && compare(lost, ZERO) > 0 ? [{ question, item, lost }] : [];
  });
}

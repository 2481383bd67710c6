import type { Marking } from '#core/model/facts.ts';
import type { DecimalString } from '#core/model/ids.ts';
import type { QuizQuestion, QuizResults } from '#core/quiz/question.ts';
import { shareRight } from '#core/quiz/share-right.ts';
import { fromDecimal, multiply, toShown } from '#core/scores/fraction.ts';
import { itemOf, type KeptQuestion, type KeptQuiz, type Sitting } from '../desk/quiz.ts';
import { attemptIdOf, quizOf, responseIn } from '../desk/sittings.ts';
import { writeQuizResults } from '#formats/qti/write-quiz.ts';
import { finds } from './demand.ts';
import { asSentence, judgeDemands, pointsOf, saysSomething } from './judge-demands.ts';
import { markingOf, put, shown, sumOf, type Marked as Given } from './marked.ts';
import type { TextRules } from './marking-rules.ts';

/** What a sitting came to. @param texts whether texts are marked already, or still wait for the marker */
function resultsOf(
  quiz: KeptQuiz,
  sitting: Sitting,
  rules: TextRules,
  texts: 'marked' | 'waiting',
): QuizResults {
  return {
    title: quiz.title,
    questions: quiz.items.map((question, index): QuizQuestion => {
      const response = responseIn(sitting, question);
      return {
        id: question.id,
        number: index + 1,
        item: itemOf(question),
        response,
        possible: question.possible,
        ...(question.kind === 'long'
          ? texts === 'waiting' && response.length > 0
            ? { score: null, feedback: '' }
            : markText(question, response.join('\n'), rules)
          : markChoice(question, response)),
      };
    }),
  };
}

/** Whether something of it waits for the marker, or for a person. */
function hasWaiting({ questions }: QuizResults): boolean {
  return questions.some(({ score }) => score === null);
}

type Marked = Pick<QuizQuestion, 'score' | 'feedback'>;
const decimal = (shown: string) => shown as DecimalString;

function markChoice(question: KeptQuestion, response: readonly string[]): Marked {
  const { possible, tolerance, said } = question;
  const share = shareRight(itemOf(question), response, fromDecimal(tolerance));
  const score = share === null ? null : decimal(toShown(multiply(share, fromDecimal(possible)), 2));
  const given = response.join('; ');
  const fitting = score === possible ? undefined : said.find(({ when }) => finds(when, given));
  return { score, feedback: fitting?.text ?? '' };
}

function markText({ wants, enough, possible }: KeptQuestion, answer: string, rules: TextRules): Marked {
  if (!saysSomething(answer)) return { score: decimal('0'), feedback: wants.at(0)?.missing ?? '' };
  if (wants.length === 0) return { score: null, feedback: '' };
  const judged = judgeDemands(
    { text: asSentence(answer), before: '', remarks: [], others: [] },
    wants,
    rules,
  );
  if (judged.found === null) return { score: decimal('0'), feedback: wants[0].missing };
  const met = judged.found.filter((one) => one.met).length;
  const all = met >= (enough ?? wants.length);
  const missing = judged.found.filter((one) => !all && !one.met).map(({ demand }) => demand.missing);
  return { score: all ? possible : decimal(toShown(pointsOf(judged.found), 2)), feedback: missing.join(' ') };
}

/**
 * Marks a sitting: at once what can be compared, and texts later.
 * @param texts whether the marker has come to the texts
 */
export async function markSitting(given: Given, texts: 'marked' | 'waiting'): Promise<Marking | null> {
  const { desk, attempt, assignment } = given;
  const sitting = desk.state.sittings.find((one) => attemptIdOf(one) === attempt.id);
  const quiz = quizOf(desk.state, assignment.id);
  if (sitting === undefined || quiz === undefined) return null;
  const results = resultsOf(quiz, sitting, desk.state.markingRules.text, texts);
  const score = shown(sumOf(results.questions.flatMap((one) => one.score ?? [])));
  const complete = !hasWaiting(results);
  const marking = { score, overall: '', criteria: [], files: [], complete };
  // The results come once, when everything is marked that is marked here.
  if (texts === 'waiting' && !complete) return markingOf(given, marking);
  const said = results.questions.filter(({ feedback }) => feedback !== '').length;
  const file = await put(given, writeQuizResults(results, attempt.at), {
    role: 'quiz',
    name: `${quiz.title}, attempt ${attempt.number}.zip`,
    mediaType: 'application/zip',
    announced: said === 0 ? {} : { question: said },
  });
  return markingOf(given, { ...marking, files: [file] }, texts === 'waiting' ? '' : '-texts');
}

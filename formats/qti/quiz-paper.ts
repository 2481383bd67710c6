import { quoteOf } from '#core/text/quotation.ts';
import type { Mark, MarkedPaper } from '../marked-paper.ts';
import { LayoutWriter } from '../text/layout-writer.ts';
import type { DecimalString } from '#core/model/ids.ts';
import { lostFirst, lostIn } from '#core/quiz/practice.ts';
import { responseText, type QuizQuestion } from '#core/quiz/question.ts';
import { add, compare, fromDecimal, toShown, ZERO, type Fraction } from '#core/scores/fraction.ts';
import { readQuizResults } from './read-results.ts';

const PLAIN = { bold: false, italic: false };
const WORDS = {
  quiz: 'Quiz',
  total: (score: string, possible: string) => `Total: ${score} of ${possible} points.`,
  waiting: (n: number) => (n === 1 ? 'One answer is not marked yet.' : `${n} answers are not marked yet.`),
  lostFirst: 'Questions that lost points come first.',
  question: (n: number) => `Question ${n}`,
  answer: 'Your answer: ',
  none: 'no answer',
  score: (score: string, possible: string) => `${score} of ${possible} points`,
  pending: 'not marked yet',
};

function responseShown({ response, item }: QuizQuestion): string {
  if (response.every((one) => one.trim() === '')) return WORDS.none;
  const chosen = response.map((one) => (item === null ? one : responseText(item, one)));
  return chosen.join('; ');
}

/** The total of the attempt, and what is still open of it. */
function totalShown(questions: readonly QuizQuestion[]): string {
  const sum = (list: readonly (DecimalString | null)[]) =>
    toShown(
      list.reduce<Fraction>((all, one) => (one === null ? all : add(all, fromDecimal(one))), ZERO),
      2,
    );
  const waiting = questions.filter(({ score }) => score === null).length;
  const possible = sum(questions.map((question) => question.possible));
  const sentences = [
    possible === '0' ? '' : WORDS.total(sum(questions.map(({ score }) => score)), possible),
    waiting === 0 ? '' : WORDS.waiting(waiting),
    questions.some((question) => compare(lostIn(question), ZERO) > 0) ? WORDS.lostFirst : '',
  ];
  return sentences.filter((sentence) => sentence !== '').join(' ');
}

/**
 * A quiz as a text to read: its total, then each question with what is asked, the choices, the own answer and
 * its score, those that lost most first; feedback on a
 * question is a mark on the answer.
 * @throws UnreadableFile 'damaged quiz'
 */
export function readQuizPaper(bytes: Uint8Array): MarkedPaper {
  const { title, questions } = readQuizResults(bytes);
  const writer = new LayoutWriter();
  const write = (kind: 'heading' | 'paragraph' | 'item', text: string) => {
    writer.beginBlock({ kind, level: kind === 'heading' ? 2 : 0, cell: null });
    const from = writer.position;
    writer.append(text, PLAIN, []);
    return { from, to: writer.position };
  };
  write('heading', title === '' ? WORDS.quiz : title);
  write('paragraph', totalShown(questions));
  const answers = lostFirst(questions).map((question) => {
    const named = question.item?.title ?? '';
    const heading = WORDS.question(question.number);
    write('heading', named === '' ? heading : `${heading}: ${named}`);
    for (const line of (question.item?.prompt ?? '').split('\n')) if (line !== '') write('paragraph', line);
    for (const { text } of question.item?.choices ?? []) write('item', text);
    for (const { text } of question.item?.partners ?? []) write('item', text);
    const answer = write('paragraph', WORDS.answer + responseShown(question));
    write(
      'paragraph',
      question.score === null
        ? WORDS.pending
        : question.possible === null
          ? question.score
          : WORDS.score(question.score, question.possible),
    );
    return { question, answer };
  });
  const written = writer.finish();
  const marks = answers.flatMap(({ question, answer }): Mark[] => {
    if (question.feedback.trim() === '') return [];
    const place = written.map.toPaper(answer);
    return [
      {
        sourceId: question.id,
        kind: 'question feedback',
        author: '',
        byMachine: false,
        at: null,
        color: null,
        text: question.feedback,
        subject: null,
        points: question.score,
        targets: [
          { kind: 'question', questionId: question.id, number: question.number },
          {
            kind: 'words',
            page: null,
            quads: [],
            rect: null,
            quote: quoteOf(written.paper.text, place),
          },
        ],
        anchor: { ...place, exactly: true },
        replies: [],
        state: null,
        change: null,
      },
    ];
  });
  const { paper, layout } = written;
  return { kind: 'quiz', pages: [], pageStarts: [], paper, layout, marks, unknownKinds: [], attached: [] };
}

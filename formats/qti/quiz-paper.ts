import { quoteOf } from '#core/text/quotation.ts';
import type { Mark, MarkedPaper } from '../marked-paper.ts';
import { LayoutWriter } from '../text/layout-writer.ts';
import type { QuizQuestion } from '#core/quiz/question.ts';
import { readQuizResults } from './read-results.ts';

const PLAIN = { bold: false, italic: false };
const WORDS = {
  question: (n: number) => `Question ${n}`,
  answer: 'Your answer: ',
  none: 'no answer',
  score: (score: string, possible: string) => `${score} of ${possible} points`,
  pending: 'not marked yet',
};

function responseShown({ response, item }: QuizQuestion): string {
  if (response.every((one) => one.trim() === '')) return WORDS.none;
  const chosen = response.map((one) => item?.choices.find(({ id }) => id === one)?.text ?? one);
  return chosen.join('; ');
}

/**
 * A quiz as a text to read: each question with what is asked, the choices, the own answer and its score; feedback on a
 * question is a mark on the answer.
 * @throws UnreadableFile 'damaged quiz'
 */
export function readQuizPaper(bytes: Uint8Array): MarkedPaper {
  const { questions } = readQuizResults(bytes);
  const writer = new LayoutWriter();
  const write = (kind: 'heading' | 'paragraph' | 'item', text: string) => {
    writer.beginBlock({ kind, level: kind === 'heading' ? 2 : 0, cell: null });
    const from = writer.position;
    writer.append(text, PLAIN, []);
    return { from, to: writer.position };
  };
  const answers = questions.map((question) => {
    const title = question.item?.title ?? '';
    const heading = WORDS.question(question.number);
    write('heading', title === '' ? heading : `${heading}: ${title}`);
    for (const line of (question.item?.prompt ?? '').split('\n')) if (line !== '') write('paragraph', line);
    for (const { text } of question.item?.choices ?? []) write('item', text);
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

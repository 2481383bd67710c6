import { questionsChanged, type QuestionChange } from '#core/marked-again/before-after.ts';
import { quizAttempts } from '#core/assignment/papers.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { responseText, type QuizQuestion } from '#core/quiz/question.ts';
import { shownChange } from '../../shared/shown/figures.ts';
import * as words from '../../words/en.ts';
import { readQuiz } from '../../workspace/state/missed.ts';
import { useReadAgain } from '../../workspace/state/read-again.ts';

/** For a quiz that was taken again: question by question what was answered and won, the first time and the last. */
export function QuestionsChanged({ view }: { view: AssignmentView }) {
  const results = useReadAgain(quizAttempts(view.papers, view.attempts), readQuiz);
  const [first, last] = [results?.at(0), results?.at(-1)];
  if (results === null || first === undefined || last === undefined || results.length < 2) return null;
  const changes = questionsChanged(first, last);
  const count = (kind: QuestionChange['kind']) => changes.filter((one) => one.kind === kind).length;
  return (
    <>
      <p className="mt-3">
        {words.learn.questionCounts(count('gained'), count('still lost'), count('newly lost'), count('kept'))}
      </p>
      <ol className="mt-2">
        {changes
          .filter(({ kind }) => kind !== 'kept')
          .map(({ kind, before, after, change }) => (
            <li key={after.id} className="border-t border-rule py-3">
              <h3 className="flex flex-wrap items-baseline gap-x-3">
                <b>{after.item?.title ?? words.learn.question(after.number)}</b>
                <span className="tabular-nums">
                  {words.learn.fromTo(before.score ?? '', after.score ?? '')}
                </span>
                <b className="tabular-nums">{shownChange(change)}</b>
                <span className="text-sm text-quiet">{words.learn.questionKinds[kind]}</span>
              </h3>
              <p className="max-w-prose font-serif text-quiet">{words.learn.was(responseOf(before))}</p>
              <p className="max-w-prose font-serif">{words.learn.is(responseOf(after))}</p>
              {after.feedback !== '' && <p className="max-w-prose text-sm">{after.feedback}</p>}
            </li>
          ))}
      </ol>
    </>
  );
}

function responseOf({ item, response }: QuizQuestion): string {
  if (response.length === 0) return words.learn.noResponse;
  return response.map((value) => (item === null ? value : responseText(item, value))).join('; ');
}

import { useMemo } from 'react';
import { quizAttempts } from '#core/assignment/papers.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { missedQuestions, type Missed } from '#core/quiz/practice.ts';
import { reader } from '../../workers/clients.ts';
import { useReadAgain } from './read-again.ts';

/** Reads the results of a quiz off the main thread. */
export const readQuiz = (bytes: Uint8Array) => reader.ask((worker) => worker.readQuiz(bytes));

/** The questions of a quiz that lost points when they were answered last; null while its results are read. */
export function useMissed({ papers, attempts }: AssignmentView): readonly Missed[] | null {
  const results = useReadAgain(quizAttempts(papers, attempts), readQuiz);
  return useMemo(() => (results === null ? null : missedQuestions(results)), [results]);
}

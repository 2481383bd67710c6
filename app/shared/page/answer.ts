import { useEffect, useEffectEvent, useState } from 'react';
import { Superseded } from '../../workers/worker-client.ts';

/**
 * What a worker answers to a question, asked again when the question is another one; null until the first answer. What was
 * answered before stands until the next comes.
 * @param question null: nothing is asked
 */
export function useAnswer<Answer>(question: unknown, ask: () => Promise<Answer>): Answer | null {
  const [answer, setAnswer] = useState<Answer | null>(null);
  const asked = useEffectEvent(ask);
  useEffect(() => {
    if (question === null) return;
    let isWanted = true;
    asked().then(
      (next) => {
        if (isWanted) setAnswer(next);
      },
      (error: unknown) => {
        // A newer question was asked before this one was begun.
        if (!(error instanceof Superseded)) throw error;
      },
    );
    return () => {
      isWanted = false;
    };
  }, [question]);
  return answer;
}

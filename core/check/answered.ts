import type { Outcome } from '../anchors/outcome.ts';
import type { Remark } from '../model/remark.ts';
import type { GivenAnswer, Judgement, Query, Task } from '../model/work.ts';

/** Whether a remark has its answer, and by what, or what it still wants. */
export type Answer =
  | {
      readonly answered: true;
      readonly by: 'said' | 'changed' | 'done elsewhere' | 'declined' | 'kept' | 'asked' | 'carried';
    }
  | {
      readonly answered: false;
      readonly because: 'undecided' | 'not asked yet' | 'task open' | 'ticked but untouched' | 'no task';
    };

/**
 * Whether a remark has its answer: what the student says or shows that was done; or its task ticked and its passage not untouched (one without a passage: ticked), or
 * declined, or to be kept, or asked; carried alone counts, since it is for another time.
 * @param outcome what became of its passage; null where it has none to follow
 * @param given what the student says was done; null: nothing
 */
export function answerOf(
  remark: Remark,
  judgement: Judgement | undefined,
  tasks: readonly Task[],
  queries: readonly Query[],
  outcome: Outcome | null,
  given: GivenAnswer | null = null,
): Answer {
  if (judgement === undefined || (judgement.decision === null && !judgement.carry))
    return { answered: false, because: 'undecided' };
  switch (judgement.decision) {
    case null:
      return { answered: true, by: 'carried' };
    case 'decline':
      return { answered: true, by: 'declined' };
    case 'keep':
      return { answered: true, by: 'kept' };
    case 'ask':
      return queries.some((query) => query.remarkId === remark.id && query.putAt !== null)
        ? { answered: true, by: 'asked' }
        : { answered: false, because: 'not asked yet' };
    case 'act': {
      if (given !== null && (given.words.trim() !== '' || given.regions.length > 0))
        return { answered: true, by: 'said' };
      const own = tasks.filter((task) => task.remarkIds.includes(remark.id));
      if (own.length === 0) return { answered: false, because: 'no task' };
      if (!own.every((task) => task.done)) return { answered: false, because: 'task open' };
      if (outcome === null) return { answered: true, by: 'done elsewhere' };
      return outcome.kind === 'untouched'
        ? { answered: false, because: 'ticked but untouched' }
        : { answered: true, by: 'changed' };
    }
  }
}

import { isGiven } from '../answers/given.ts';
import type { PartId } from '../model/ids.ts';
import { answerKey } from '../model/own-ids.ts';
import type { Remark } from '../model/remark.ts';
import type { GivenAnswer, Judgement, Query, Task } from '../model/work.ts';
import { isAbout } from '../saying/remark-parts.ts';
import { decidedThings, isDecided, type DecidedThing } from '../tally/decided.ts';

/** Why a remark has no answer yet. */
export type Unanswered = 'undecided' | 'no answer yet' | 'ticked without an answer' | 'not asked yet';

/** Whether a remark has its answer, and by what, or what it still wants. */
export type Answer =
  | {
      readonly answered: true;
      readonly by: 'given' | 'replied' | 'changed' | 'declined' | 'kept' | 'asked' | 'carried';
    }
  | { readonly answered: false; readonly because: Unanswered };

/** What is known of what was done about remarks. */
export interface Done {
  readonly tasks: readonly Task[];
  readonly queries: readonly Query[];
  /** What the student says or shows was done, by `answerKey`. */
  readonly given: ReadonlyMap<string, GivenAnswer>;
  /** Whether something that changed in the text is likely its answer, by `answerKey`. */
  readonly isLikely: (key: string) => boolean;
}

/**
 * Whether a remark has its answer: what the student says, shows or replies; or its task ticked where something that changed is
 * likely its answer; or declined, or to be kept, or asked; carried alone counts, since it is for another time. That the words it
 * is about stand says nothing. Of a remark that is decided about part by part every part must have one.
 */
export function answerOf(remark: Remark, judgement: Judgement | undefined, done: Done): Answer {
  if (judgement === undefined || !isDecided(judgement)) return { answered: false, because: 'undecided' };
  const answers = decidedThings(judgement).map((thing) => answerOfThing(remark, judgement, thing, done));
  return answers.find(({ answered }) => !answered) ?? answers[0];
}

function answerOfThing(
  remark: Remark,
  judgement: Judgement,
  { partId, decision }: DecidedThing,
  { tasks, queries, given, isLikely }: Done,
): Answer {
  switch (decision) {
    case null:
      return { answered: true, by: 'carried' };
    case 'decline':
      return { answered: true, by: 'declined' };
    case 'keep':
      return { answered: true, by: 'kept' };
    case 'ask':
      return queries.some(
        ({ about, putAt }) => about !== null && isAbout([about], remark.id, partId) && putAt !== null,
      )
        ? { answered: true, by: 'asked' }
        : { answered: false, because: 'not asked yet' };
    case 'act': {
      const key = answerKey({ remarkId: remark.id, partId });
      // What was answered before the remark was parted answers its parts.
      if ([given.get(key), given.get(remark.id)].some((one) => one !== undefined && isGiven(one)))
        return { answered: true, by: 'given' };
      if (replyTo(judgement, partId) !== '') return { answered: true, by: 'replied' };
      const own = tasks.filter(({ about }) => isAbout(about, remark.id, partId));
      const isTicked = own.length > 0 && own.every((task) => task.done);
      if (!isTicked) return { answered: false, because: 'no answer yet' };
      return isLikely(key)
        ? { answered: true, by: 'changed' }
        : { answered: false, because: 'ticked without an answer' };
    }
  }
}

/** What the student replies to a remark or a part of it; to the whole where the part has none of its own. '' for nothing. */
export function replyTo({ reply, parts }: Judgement, partId: PartId | null): string {
  const own = parts.find(({ id }) => id === partId)?.reply.trim() ?? '';
  return own === '' ? reply.trim() : own;
}

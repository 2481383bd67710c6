import type { Draft, Submission } from '../model/work.ts';
import type { MarkedAttempt } from './attempts.ts';
import type { AssignmentRecords } from './records.ts';

/** What is made towards the next attempt, and what became of sending it. */
export interface Writing {
  readonly draft: Draft | null;
  /** The handing-in of the draft, unless the desk refused it. */
  readonly submission: Submission | null;
  readonly refusal: Submission | null;
}

/** The draft of an assignment, and what became of sending it. */
export function writingOf(
  records: AssignmentRecords,
  id: string,
  attempts: readonly MarkedAttempt[],
): Writing {
  const submissions = records.of('submissions', id).toSorted((x, y) => (x.at < y.at ? -1 : 1));
  const drafts = records.of('drafts', id).toSorted((x, y) => y.attemptNumber - x.attemptNumber);
  const withdrawn = new Set(attempts.flatMap((one) => (one.withdrawn === null ? [] : [one.attempt.id])));
  // One that was taken back is no longer on its way: the draft can be written on and sent again.
  const latest =
    submissions.findLast(({ state }) => state.kind !== 'received' || !withdrawn.has(state.attemptId)) ?? null;
  const refused = latest?.state.kind === 'refused';
  return {
    draft: drafts.at(0) ?? null,
    submission: refused ? null : latest,
    refusal: refused ? latest : null,
  };
}

/** The same where yet another attempt is open: what was sent is done with, and what is written since is towards that one. */
export function writingNext(
  { draft, submission, refusal }: Writing,
  attempts: readonly MarkedAttempt[],
): Writing {
  const { state } = submission ?? {};
  if (state?.kind !== 'received') return { draft, submission, refusal };
  const sent = attempts.find(({ attempt }) => attempt.id === state.attemptId)?.attempt.number ?? Infinity;
  const isNewer = draft !== null && draft.attemptNumber > sent;
  return { draft: isNewer ? draft : null, submission: null, refusal };
}

/** Whether there is anything in a draft: what was taken out again leaves it as if it was never begun. */
export function isBegun({ bodyHash, paperFile, files, items }: Draft): boolean {
  return bodyHash !== null || paperFile !== null || files.length > 0 || Object.keys(items).length > 0;
}

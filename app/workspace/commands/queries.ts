import type { Attempt, Receipt } from '#core/model/facts.ts';
import type { Workspace } from '../workspace.ts';
import type { QueryId } from '#core/model/ids.ts';
import { asId, PromiseId, type AssignmentId } from '#core/model/ids.ts';
import type { PromisePlace } from '#core/model/promises.ts';
import type { Query } from '#core/model/work.ts';
import type { Promised } from '#core/tally/promises.ts';
import { toShown } from '#core/scores/fraction.ts';
import * as words from '../../words/en.ts';
import { hundredths, type AssignmentView } from '#core/assignment/view.ts';
import { newId } from './draft.ts';
import type { Writing } from '../storage/transact.ts';
import { addsUpQueryId, queryIdOf, handingInQueryId, unexplainedQueryId } from '#core/model/own-ids.ts';

/** What is to be asked, and what was promised. */

export function wordQuery(
  workspace: Workspace,
  assignmentId: string,
  queryId: string,
  text: string,
  typing?: string,
): Promise<void> {
  const work = async (writing: Writing) => {
    const query = await writing.get('queries', queryId);
    if (query !== null && query.text !== text)
      await writing.put('queries', { ...query, text, touched: true });
  };
  return workspace.run(assignmentId, words.undo.worded, work, typing);
}

/** Keeps what came back to a question. */
export function answerQuery(
  workspace: Workspace,
  assignmentId: string,
  queryId: string,
  answer: string,
  typing?: string,
): Promise<void> {
  const work = async (writing: Writing) => {
    const query = await writing.get('queries', queryId);
    if (query !== null && query.answer !== answer)
      await writing.put('queries', { ...query, answer, touched: true });
  };
  return workspace.run(assignmentId, words.undo.answerToQuery, work, typing);
}

export function markQueryPut(
  workspace: Workspace,
  assignmentId: string,
  queryId: string,
  put: boolean,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.asked, async (writing) => {
    const query = await writing.get('queries', queryId);
    if (query !== null) await writing.put('queries', { ...query, putAt: put ? workspace.now() : null });
  });
}

/** A question that the records give reason for; it is asked only if the student takes it up. */
export interface ProposedQuery {
  readonly id: QueryId;
  readonly about: Query['about'];
  readonly person: string;
  readonly text: string;
}

/** Questions that an assignment gives reason for: promises that nothing came of, and points that nobody explained. */
export function proposedQueries(view: AssignmentView): ProposedQuery[] {
  const person = view.latestMarking?.marker.name ?? view.course?.instructor.name ?? '';
  const promises = view.promised
    .filter(({ state }) => state === 'missing')
    .map(({ id, remark, said }) => ({
      id: queryIdOf(id),
      about: remark === null ? null : { remarkId: remark.id, partId: null },
      person: remark?.author.name ?? person,
      text:
        remark === null
          ? words.assignment.promiseQuestionElsewhere(said)
          : words.assignment.promiseQuestion(said),
    }));
  const losses = view.losses
    .filter(({ unexplained }) => unexplained > 0)
    .map(({ criterionId, title, unexplained }) => ({
      id: unexplainedQueryId(view.assignment.id, criterionId),
      about: null,
      person,
      text:
        criterionId === null
          ? words.assignment.unexplainedWhole(hundredths(unexplained), view.assignment.title)
          : words.assignment.unexplainedQuestion(hundredths(unexplained), title),
    }));
  const { addsUp } = view;
  const odd =
    addsUp === null || addsUp.difference.n === 0n
      ? []
      : [
          {
            id: addsUpQueryId(view.assignment.id),
            about: null,
            person,
            text: words.rubric.questionAddsUp(toShown(addsUp.sum, 2), toShown(addsUp.score, 2)),
          },
        ];
  return [...promises, ...losses, ...odd];
}

/** A message with what the receipt says, to whom the course names; it is reworded on the ask list. */
export function handingInQuery(
  view: AssignmentView,
  attempt: Attempt,
  receipt: Receipt,
  when: string,
): ProposedQuery {
  return {
    id: handingInQueryId(attempt.id),
    about: null,
    person: view.course?.handingIn ?? view.course?.instructor.name ?? '',
    text: words.send.messageText({
      title: view.assignment.title,
      number: attempt.number,
      when,
      receipt: receipt.id,
      files: receipt.files.map(({ name, size, hash }) => words.send.messageFile(name, size, hash)),
      rule: receipt.rule,
    }),
  };
}

/** Puts a proposed question on the ask list. */
export function takeUpQuery(
  workspace: Workspace,
  assignmentId: AssignmentId,
  proposed: ProposedQuery,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.proposedQuery, (writing) =>
    writing.put('queries', {
      ...proposed,
      id: proposed.id,
      assignmentId,
      putAt: null,
      touched: true,
      answer: '',
    }),
  );
}

/** Takes a question off the list. */
export function removeQuery(workspace: Workspace, query: Query): Promise<void> {
  return workspace.run(query.assignmentId, words.undo.queryRemoved, (writing) =>
    writing.remove('queries', query.id),
  );
}

/** Sets a promise aside, or takes it up again. */
export function dismissPromise(
  workspace: Workspace,
  assignmentId: AssignmentId,
  promised: Promised,
  dismissed: boolean,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.promised, async (writing: Writing) => {
    const id = asId(PromiseId, promised.id);
    const known = await writing.get('promises', id);
    const { said, place, remark } = promised;
    await writing.put('promises', {
      ...(known ?? { id, assignmentId, remarkId: remark?.id ?? null, said, place, at: workspace.now() }),
      dismissed,
    });
  });
}

/** Notes that more feedback was promised elsewhere. */
export function notePromise(
  workspace: Workspace,
  assignmentId: AssignmentId,
  said: string,
  place: PromisePlace,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.promised, (writing) =>
    writing.put('promises', {
      id: asId(PromiseId, newId()),
      assignmentId,
      remarkId: null,
      said,
      place,
      dismissed: false,
      at: workspace.now(),
    }),
  );
}

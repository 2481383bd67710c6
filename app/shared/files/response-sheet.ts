import type { Answer } from '#core/check/answered.ts';
import { responseRows, type ResponseRow, type ResponseSheet } from '#core/check/response-sheet.ts';
import { saidBy } from '../remark/said.ts';
import * as words from '../../words/en.ts';
import { criterionFor, type AssignmentView } from '#core/assignment/view.ts';
import type { LiveOutcomes } from '../../workspace/state/outcomes.ts';

/** The response sheet in words: remark by remark, what was decided and done. */
export function responseSheetOf(
  view: AssignmentView,
  live: LiveOutcomes | null,
  answers: ReadonlyMap<string, Answer>,
): ResponseSheet {
  const rows = responseRows(view.remarks, view.judgements, live?.byRemark ?? new Map(), live?.paper ?? null);
  const answered = [...answers.values()].filter((answer) => answer.answered).length;
  return {
    title: words.response.title(view.assignment.title),
    lead: [words.response.lead(view.remarks.length, answered)],
    columns: words.response.columns,
    rows: rows.map((row) => [
      [`${row.number}. ${saidBy(row.remark)}`],
      placeOf(row, view),
      decisionOf(row),
      doneOf(row, view),
    ]),
  };
}

function placeOf({ page, about, remark }: ResponseRow, view: AssignmentView): string[] {
  if (page !== null) return [words.response.place(page), ...(about === null ? [] : [`“${about}”`])];
  const criterion = criterionFor(view, remark);
  return [criterion === null ? words.response.whole : words.response.criterion(criterion.title)];
}

function decisionOf({ judgement }: ResponseRow): string[] {
  const made = [
    ...(judgement?.decision ? [words.decisions[judgement.decision]] : []),
    ...(judgement?.carry === true ? [words.decisions.carry] : []),
  ];
  return [
    ...(made.length === 0
      ? [words.response.none]
      : [made.join(', '), ...(judgement?.note ? [judgement.note] : [])]),
    ...(judgement?.reply ? [words.response.reply(judgement.reply)] : []),
  ];
}

function doneOf({ judgement, outcome, now, remark }: ResponseRow, view: AssignmentView): string[] {
  switch (judgement?.decision) {
    case undefined:
    case null:
      return judgement?.carry === true ? [words.response.carried] : [];
    case 'keep':
      return [words.response.kept];
    case 'decline':
      return [words.response.declined];
    case 'ask':
      return [
        view.queries.some((q) => q.remarkId === remark.id && q.putAt !== null)
          ? words.response.asked
          : words.response.toAsk,
      ];
    case 'act': {
      const given = view.given.get(remark.id);
      if (given !== undefined)
        return [
          ...(given.words.trim() === '' ? [] : [given.words]),
          ...given.regions.map(({ x, y, width, height }) =>
            words.response.shownAt([x, y, width, height].join(', ')),
          ),
        ];
      if (outcome !== null) return [words.response.done[outcome.kind], ...(now === '' ? [] : [`“${now}”`])];
      const done = view.tasks.some((p) => p.task.done && p.task.remarkIds.includes(remark.id));
      return [done ? words.response.taskDone : words.response.taskOpen];
    }
  }
}

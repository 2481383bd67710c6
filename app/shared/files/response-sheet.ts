import { isGiven } from '#core/answers/given.ts';
import { LIKELY } from '#core/answers/propose.ts';
import type { Answer } from '#core/check/answered.ts';
import { proposedWords, takenWords, type ResponseSheet } from '#core/check/response-sheet.ts';
import { answerKey } from '#core/model/own-ids.ts';
import { pageOf, quotedWords, type Remark } from '#core/model/remark.ts';
import type { Judgement, RemarkRef } from '#core/model/work.ts';
import { isAbout } from '#core/saying/remark-parts.ts';
import { decidedThings, decisionsIn, type DecidedThing } from '#core/tally/decided.ts';
import { saidBy } from '../remark/said.ts';
import * as words from '../../words/en.ts';
import { criterionFor, type AssignmentView } from '#core/assignment/view.ts';
import type { LiveOutcomes } from '../../workspace/state/outcomes.ts';

/** The response sheet in words: remark by remark, what was decided and done. It tells what answers, never what still stands. */
export function responseSheetOf(
  view: AssignmentView,
  live: LiveOutcomes | null,
  answers: ReadonlyMap<string, Answer>,
): ResponseSheet {
  const answered = [...answers.values()].filter((answer) => answer.answered).length;
  return {
    title: words.response.title(view.assignment.title),
    lead: [words.response.lead(view.remarks.length, answered)],
    columns: words.response.columns,
    rows: view.remarks.map((remark, index) => {
      const judgement = view.judgements.get(remark.id);
      return [
        [`${index + 1}. ${saidBy(remark)}`],
        placeOf(remark, view),
        decisionOf(judgement),
        judgement === undefined ? [] : doneOf(remark, judgement, view, live),
      ];
    }),
  };
}

function placeOf(remark: Remark, view: AssignmentView): string[] {
  const page = pageOf(remark);
  const about = quotedWords(remark);
  if (page !== null) return [words.response.place(page), ...(about === null ? [] : [`“${about}”`])];
  const criterion = criterionFor(view, remark);
  return [criterion === null ? words.response.whole : words.response.criterion(criterion.title)];
}

function decisionOf(judgement: Judgement | undefined): string[] {
  const made = decisionsIn(judgement).map((decision) => words.decisions[decision]);
  const ofParts = (judgement?.parts ?? []).flatMap(({ quote, decision, carry }) => {
    const own = [...(decision === null ? [] : [decision]), ...(carry ? (['carry'] as const) : [])];
    return own.length === 0
      ? []
      : [words.response.part(quote, own.map((one) => words.decisions[one]).join(', '))];
  });
  return [
    ...(made.length === 0
      ? [words.response.none]
      : [
          ...(ofParts.length > 0 ? ofParts : [made.join(', ')]),
          ...(judgement?.note ? [judgement.note] : []),
        ]),
    ...(judgement?.reply ? [words.response.reply(judgement.reply)] : []),
    ...(judgement?.parts ?? []).flatMap(({ quote, reply }) =>
      reply === '' ? [] : [words.response.part(quote, words.response.reply(reply))],
    ),
  ];
}

function doneOf(
  remark: Remark,
  judgement: Judgement,
  view: AssignmentView,
  live: LiveOutcomes | null,
): string[] {
  return [...new Set(decidedThings(judgement).flatMap((thing) => doneAbout(thing, remark, view, live)))];
}

function doneAbout(
  { partId, decision, carry }: DecidedThing,
  remark: Remark,
  view: AssignmentView,
  live: LiveOutcomes | null,
): string[] {
  switch (decision) {
    case null:
      return carry ? [words.response.carried] : [];
    case 'keep':
      return [words.response.kept];
    case 'decline':
      return [words.response.declined];
    case 'ask':
      return [
        view.queries.some(
          ({ about, putAt }) => about !== null && isAbout([about], remark.id, partId) && putAt !== null,
        )
          ? words.response.asked
          : words.response.toAsk,
      ];
    case 'act':
      return answerTo({ remarkId: remark.id, partId }, view, live);
  }
}

function answerTo(ref: RemarkRef, view: AssignmentView, live: LiveOutcomes | null): string[] {
  const key = answerKey(ref);
  const text = live?.paper.text ?? '';
  const given = view.given.get(key) ?? view.given.get(ref.remarkId);
  if (given !== undefined && isGiven(given))
    return [
      ...(given.words.trim() === '' ? [] : [given.words]),
      ...takenWords(given, live?.picks ?? new Map(), text).map(quoted),
      ...given.regions.map(({ x, y, width, height }) =>
        words.response.shownAt([x, y, width, height].join(', ')),
      ),
      ...given.files.flatMap((hash) => {
        const file = view.files.find((one) => one.hash === hash);
        return file === undefined ? [] : [words.response.inFile(file.name)];
      }),
    ];
  const isTicked = view.tasks.some(({ task }) => task.done && isAbout(task.about, ref.remarkId, ref.partId));
  const first = live?.proposals.get(key)?.at(0);
  if (first === undefined || first.likely < LIKELY)
    return [isTicked ? words.response.taskDone : words.response.taskOpen];
  const shown = proposedWords(first, text);
  if (shown.every((one) => one === '')) return [words.response.takenOut];
  return [words.response.answeredBy[first.where], ...shown.map(quoted)];
}

function quoted(text: string): string {
  return text === '' ? words.response.takenOut : words.response.pick(text);
}

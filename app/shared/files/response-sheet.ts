import { isGiven } from '#core/answers/given.ts';
import { LIKELY } from '#core/answers/propose.ts';
import { criterionFor, type AssignmentView } from '#core/assignment/view.ts';
import type { Answer } from '#core/check/answered.ts';
import {
  beforeAfter,
  groupOf,
  inText,
  pageAt,
  proposedWords,
  takenPlaces,
  takenWords,
  type BeforeAfter,
  type SheetGroup,
} from '#core/check/response-sheet.ts';
import type { Criterion } from '#core/model/facts.ts';
import { answerKey } from '#core/model/own-ids.ts';
import { pageOf, quotedWords, type Remark } from '#core/model/remark.ts';
import type { Judgement, RemarkRef } from '#core/model/work.ts';
import type { Paper } from '#core/paper/paper.ts';
import { isAbout } from '#core/saying/remark-parts.ts';
import { decidedThings, type DecidedThing } from '#core/tally/decided.ts';
import type { Span } from '#core/text/span.ts';
import * as words from '../../words/en.ts';
import type { LiveOutcomes } from '../../workspace/state/outcomes.ts';
import { saidBy } from '../remark/said.ts';

/** A remark as the response sheet accounts for it: never what still stands, but what answers it. */
export interface SheetEntry {
  readonly remark: Remark;
  readonly number: number;
  readonly said: string;
  /** What it is about. */
  readonly about: string;
  readonly criterion: Criterion | null;
  readonly group: SheetGroup;
  /** What was done, where, why not, what is asked: a paragraph each. */
  readonly lines: readonly string[];
  readonly shown: BeforeAfter | null;
}

/** What the sheet is written from. */
export interface SheetSources {
  readonly view: AssignmentView;
  readonly live: LiveOutcomes | null;
  readonly answers: ReadonlyMap<string, Answer>;
  /** The marked version, and where remarks hang in it; null where none was marked as a text. */
  readonly marked: { readonly paper: Paper; readonly anchors: Readonly<Record<string, Span>> } | null;
  /** Where the pages of the draft begin; empty where it has none. */
  readonly pageStarts: readonly number[];
}

/** Each remark with what was made of it. */
export function entriesOf(sources: SheetSources): SheetEntry[] {
  const { view, answers } = sources;
  return view.remarks.map((remark, index) => {
    const judgement = view.judgements.get(remark.id);
    const done = judgement === undefined ? NOTHING : doneOf(remark, judgement, sources);
    return {
      remark,
      number: index + 1,
      said: saidBy(remark),
      about: aboutOf(remark, view),
      criterion: criterionFor(view, remark),
      group:
        done.isSeen || hasReply(judgement)
          ? 'done'
          : groupOf(answers.get(remark.id), view.sayings.get(remark.id)?.callsForChange ?? true),
      lines: linesOf(done, judgement),
      shown: done.shown,
    };
  });
}

/** What the student says back to a remark answers it, decided about or not. */
const hasReply = (judgement: Judgement | undefined) =>
  judgement !== undefined && [judgement, ...judgement.parts].some(({ reply }) => reply.trim() !== '');

/** What is told of a remark; that nothing was decided, where nothing else is. */
function linesOf(done: Done, judgement: Judgement | undefined): string[] {
  const lines = [...done.lines, ...(judgement === undefined ? [] : ownWords(judgement))];
  return lines.length === 0 ? [words.response.decided.none] : lines;
}

interface Done {
  readonly lines: readonly string[];
  readonly shown: BeforeAfter | null;
  /** The text shows an answer, whether its task is ticked or not. */
  readonly isSeen: boolean;
}

const NOTHING: Done = { lines: [], shown: null, isSeen: false };

function aboutOf(remark: Remark, view: AssignmentView): string {
  const said = words.response.about(pageOf(remark), quotedWords(remark));
  if (said !== '') return said;
  const criterion = criterionFor(view, remark);
  return criterion === null ? words.response.whole : words.response.criterion(criterion.title);
}

/** What the student says about a remark and its parts: notes are reasons, replies are meant for whoever reads it. */
function ownWords({ note, reply, parts }: Judgement): string[] {
  return [
    ...(note === '' ? [] : [words.response.why(note)]),
    ...(reply === '' ? [] : [words.response.reply(reply)]),
    ...parts.flatMap((part) =>
      part.reply === '' ? [] : [words.response.part(part.quote, words.response.reply(part.reply))],
    ),
  ];
}

function doneOf(remark: Remark, judgement: Judgement, sources: SheetSources): Done {
  const all = decidedThings(judgement).map((thing) => doneAbout(thing, remark, sources));
  return {
    lines: [...new Set(all.flatMap(({ lines }) => lines))],
    shown: all.find(({ shown }) => shown !== null)?.shown ?? null,
    // Of a remark that is decided about part by part every part must be seen.
    isSeen: all.length > 0 && all.every(({ isSeen }) => isSeen),
  };
}

function doneAbout({ partId, decision, carry }: DecidedThing, remark: Remark, sources: SheetSources): Done {
  const { decided } = words.response;
  const only = (...lines: string[]): Done => ({ lines, shown: null, isSeen: false });
  switch (decision) {
    case null:
      return carry ? only(decided.carried) : NOTHING;
    case 'keep':
      return only(decided.keep);
    case 'decline':
      return only(decided.decline);
    case 'ask': {
      const own = sources.view.queries.filter(
        ({ about }) => about !== null && isAbout([about], remark.id, partId),
      );
      const isPut = own.some(({ putAt }) => putAt !== null);
      const asked = own.map(({ text }) => text).filter((text) => text.trim() !== '');
      return only(isPut ? decided.asked : decided.toAsk, ...asked.map(words.response.question));
    }
    case 'act': {
      const done = answerTo({ remarkId: remark.id, partId }, remark, sources);
      const by = sources.view.tasks.flatMap(({ task }) =>
        task.who && isAbout(task.about, remark.id, partId) ? task.who : [],
      );
      return { ...done, lines: [...done.lines, ...[...new Set(by)].map(words.response.doneBy)] };
    }
  }
}

function answerTo(ref: RemarkRef, remark: Remark, sources: SheetSources): Done {
  const { view, live, marked } = sources;
  const key = answerKey(ref);
  const text = live?.paper.text ?? '';
  const passage = marked?.anchors[remark.id] ?? null;
  const showing = (how: string | null, lines: readonly string[], places: readonly Span[]): Done => {
    const shown = live === null ? null : beforeAfter(marked?.paper ?? null, passage, live.paper, places);
    const [first] = places;
    const where =
      live === null || (first as Span | undefined) === undefined
        ? how
        : whereIn(how, live.paper, first, sources);
    return { lines: [...lines, ...(where === null ? [] : [where])], shown, isSeen: true };
  };
  const given = view.given.get(key) ?? view.given.get(ref.remarkId);
  if (given !== undefined && isGiven(given)) {
    const picks = live?.picks ?? new Map();
    const places = takenPlaces(given, picks);
    return showing(
      null,
      [
        ...(given.words.trim() === '' ? [] : [given.words]),
        // What can't be shown in the text any more is told as it was.
        ...(places.length > 0 ? [] : takenWords(given, picks, text).map(quoted)),
        ...given.regions.map(({ x, y, width, height }) =>
          words.response.shownAt([x, y, width, height].join(', ')),
        ),
        ...given.files.flatMap((hash) => {
          const file = view.files.find((one) => one.hash === hash);
          return file === undefined ? [] : [words.response.inFile(file.name)];
        }),
      ],
      places,
    );
  }
  const isTicked = view.tasks.some(({ task }) => task.done && isAbout(task.about, ref.remarkId, ref.partId));
  const first = live?.proposals.get(key)?.at(0);
  if (first === undefined || first.likely < LIKELY)
    return {
      lines: [isTicked ? words.response.taskDone : words.response.taskOpen],
      shown: null,
      isSeen: false,
    };
  if (proposedWords(first, text).every((one) => one === ''))
    return { lines: [words.response.takenOut], shown: null, isSeen: true };
  return showing(words.response.answeredBy[first.where], [], first.places);
}

function whereIn(how: string | null, paper: Paper, place: Span, { pageStarts }: SheetSources): string {
  const { heading, paragraph } = inText(paper, place);
  return words.response.inText(how, heading, paragraph, pageAt(pageStarts, place.from));
}

function quoted(text: string): string {
  return text === '' ? words.response.takenOut : words.response.pick(text);
}

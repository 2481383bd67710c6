import type { Marking } from '#core/model/facts.ts';
import { paperOf } from '#core/paper/paper.ts';
import { readDocx } from '#formats/docx/read-docx.ts';
import { readMarkedPdf } from '#formats/pdf/read-marked-pdf.ts';
import type { DeskFolder } from '../desk/desk-folder.ts';
import { withFact } from '../desk/desk-state.ts';
import { attemptsIn, markingsIn, withdrawnIn } from '../desk/record.ts';
import { attemptIdOf, endOverdue } from '../desk/sittings.ts';
import { judgeResubmission } from './judge.ts';
import { markByRules } from './mark-by-rules.ts';
import { markSitting } from './mark-quiz.ts';
import { othersTexts } from './others.ts';
import { remarksFile } from './said.ts';
import { bytesOf, forMarking, markingOf, type Marked } from './marked.ts';

type Way = (given: Marked) => Promise<Marking | null>;

/** How an attempt is to be marked now; null where it isn't: it is marked, was taken back, or nobody has rules for it. */
function wayOf(
  { desk: { state }, attempt, assignment, rubric }: Marked,
  nowMs: number,
  afterSeconds: number,
): Way | null {
  const own = markingsIn(state, assignment).filter(({ attemptId }) => attemptId === attempt.id);
  const isDue = Date.parse(attempt.at) + afterSeconds * 1000 <= nowMs;
  if (state.sittings.some((sitting) => attemptIdOf(sitting) === attempt.id)) {
    if (own.length === 0) return (given) => markSitting(given, 'waiting');
    return isDue && own.length === 1 && !own[0].complete ? (given) => markSitting(given, 'marked') : null;
  }
  if (own.length > 0 || !isDue) return null;
  const rules = state.markingRules.works.find((work) => work.assignment === attempt.assignmentId);
  if (rules !== undefined) return (given) => markByRules(given, rules);
  const isReport = state.markingRules.passages.every(({ criterion }) =>
    rubric?.criteria.some(({ id }) => id === criterion),
  );
  return isReport ? markReport : null;
}

/** What came in here and is to be marked now; what the demo begins with is left to people. */
function dueForMarking(desk: DeskFolder, nowMs: number, leftOut: ReadonlySet<string>, afterSeconds: number) {
  const takenBack = withdrawnIn(desk.state);
  return attemptsIn(desk.state)
    .filter(({ id, receipt }) => receipt !== null && !takenBack.has(id) && !leftOut.has(id))
    .flatMap((attempt) => {
      const given = forMarking(desk, attempt, nowMs);
      const way = given === null ? null : wayOf(given, nowMs, afterSeconds);
      return given === null || way === null ? [] : [{ attempt, mark: () => way(given) }];
    });
}

/**
 * Ends the sittings whose time is over and marks every attempt that is due; returns how many facts that made. One that can't be marked is left out from then on, and told once.
 * @param leftOut ids of attempts that failed before; grows
 * @param afterSeconds how long after it came in an attempt is looked at; null: as the rules say
 */
export async function markPending(
  desk: DeskFolder,
  nowMs: number,
  leftOut: Set<string>,
  afterSeconds: number | null = null,
): Promise<number> {
  const after = afterSeconds ?? desk.state.markingRules.secondsUntilMarked;
  let marked = endOverdue(desk, nowMs);
  for (const { attempt, mark } of dueForMarking(desk, nowMs, leftOut, after)) {
    try {
      const marking = await mark();
      if (marking === null) continue;
      desk.update((state) => withFact(state, { kind: 'marking', value: marking }));
      marked++;
    } catch (error) {
      leftOut.add(attempt.id);
      console.error(`Attempt ${attempt.id} can't be marked until the server starts again:`, error);
    }
  }
  return marked;
}

/** Marks the report's second attempt: passage by passage, beside what was marked before. */
async function markReport(given: Marked): Promise<Marking> {
  const { desk, attempt, assignment, rubric } = given;
  const { markingRules } = desk.state;
  const markings = markingsIn(desk.state, assignment);
  const before = markings.at(-1);
  const markedFile = markings.flatMap(({ files }) => files).find((file) => file.role === 'marked');
  const sentFile = attempt.files.find((file) => file.role === 'paper');
  if (before === undefined || rubric === null || !markedFile || !sentFile)
    throw new Error(`attempt ${attempt.id} can't be marked again: nothing was marked before`);
  const pdf = await readMarkedPdf(await bytesOf(given, markedFile.hash), null);
  const submitted = paperOf(readDocx(await bytesOf(given, sentFile.hash)).blocks);
  const judgement = judgeResubmission(
    {
      marked: pdf.paper,
      passages: new Map(
        pdf.marks.flatMap((mark) =>
          mark.sourceId !== null && mark.anchor !== null ? [[mark.sourceId, mark.anchor]] : [],
        ),
      ),
      remarks: new Map(pdf.marks.map((mark) => [mark.sourceId ?? '', mark.text])),
      others: await othersTexts(given),
      submitted,
      rubric,
      before: before.criteria,
      wordsMax: assignment.requirements.wordsMax,
    },
    markingRules,
  );
  return markingOf(given, {
    marker: before.marker,
    score: judgement.score,
    overall: judgement.overall,
    criteria: [...judgement.criteria],
    files: await remarksFile(
      given,
      sentFile,
      judgement.remarks.map(({ quote, text }) => ({ text, selector: { kind: 'quote', exact: quote } })),
      'passage',
    ),
  });
}

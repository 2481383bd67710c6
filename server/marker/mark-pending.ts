import { readFile } from 'node:fs/promises';
import type { Attempt, Marking } from '#core/model/facts.ts';
import { asId, instantOf, MarkingId } from '#core/model/ids.ts';
import { paperOf } from '#core/paper/paper.ts';
import { readDocx } from '#formats/docx/read-docx.ts';
import { readMarkedPdf } from '#formats/pdf/read-marked-pdf.ts';
import type { DeskFolder } from '../desk/desk-folder.ts';
import { withFact, type DeskState } from '../desk/desk-state.ts';
import { judgeResubmission } from './judge.ts';

/** Whether the rules are about this assignment: its rubric has their criteria. */
function isMarkable(state: DeskState, attempt: Attempt): boolean {
  const rubricId = state.facts
    .flatMap((fact) =>
      fact.kind === 'assignment' && fact.value.id === attempt.assignmentId ? [fact.value] : [],
    )
    .at(-1)?.rubricId;
  const rubric = state.rubrics.find(({ id }) => id === rubricId);
  return state.markingRules.passages.every(({ criterion }) =>
    rubric?.criteria.some(({ id }) => id === criterion),
  );
}

/** Attempts that were sent again and not marked yet, and whose time has come. */
function dueForMarking({ state }: DeskFolder, nowMs: number): Attempt[] {
  // Neither what is marked already nor what was taken back.
  const marked = new Set(
    state.facts.flatMap((fact) =>
      fact.kind === 'marking' || fact.kind === 'withdrawal' ? [fact.value.attemptId] : [],
    ),
  );
  return (
    state.facts
      .flatMap((fact) => (fact.kind === 'attempt' ? [fact.value] : []))
      // Those that came in here; what the demo begins with is left to people.
      .filter((attempt) => attempt.receipt !== null && !marked.has(attempt.id))
      .filter((attempt) => isMarkable(state, attempt))
      .filter((attempt) => Date.parse(attempt.at) + state.markingRules.secondsUntilMarked * 1000 <= nowMs)
  );
}

/**
 * Marks every attempt that is due; returns how many. One that can't be marked is left out from then on, and told once.
 * @param leftOut ids of attempts that failed before; grows
 */
export async function markPending(desk: DeskFolder, nowMs: number, leftOut: Set<string>): Promise<number> {
  const due = dueForMarking(desk, nowMs).filter((attempt) => !leftOut.has(attempt.id));
  let marked = 0;
  for (const attempt of due) {
    try {
      const marking = await markAttempt(desk, attempt, nowMs);
      desk.update((state) => withFact(state, { kind: 'marking', value: marking }));
      marked++;
    } catch (error) {
      leftOut.add(attempt.id);
      console.error(`Attempt ${attempt.id} can't be marked until the server starts again:`, error);
    }
  }
  return marked;
}

async function bytesOf(desk: DeskFolder, hash: string): Promise<Uint8Array> {
  const path = desk.pathOfFile(hash);
  if (path === null) throw new Error(`the desk has no file ${hash}`);
  return new Uint8Array(await readFile(path));
}

async function markAttempt(desk: DeskFolder, attempt: Attempt, nowMs: number): Promise<Marking> {
  const { facts, rubrics, markingRules } = desk.state;
  const before = facts
    .flatMap((fact) =>
      fact.kind === 'marking' && fact.value.assignmentId === attempt.assignmentId ? [fact.value] : [],
    )
    .at(-1);
  const assignment = facts
    .flatMap((fact) =>
      fact.kind === 'assignment' && fact.value.id === attempt.assignmentId ? [fact.value] : [],
    )
    .at(-1);
  const rubric = rubrics.find((r) => r.id === assignment?.rubricId);
  const markedFile = facts
    .flatMap((fact) =>
      fact.kind === 'marking' && fact.value.assignmentId === attempt.assignmentId ? fact.value.files : [],
    )
    .find((file) => file.role === 'marked');
  const sentFile = attempt.files.find((file) => file.role === 'paper');
  if (before === undefined || assignment === undefined || rubric === undefined || !markedFile || !sentFile)
    throw new Error(`attempt ${attempt.id} can't be marked again: nothing was marked before`);
  const pdf = await readMarkedPdf(await bytesOf(desk, markedFile.hash), null);
  const submitted = paperOf(readDocx(await bytesOf(desk, sentFile.hash)).blocks);
  const judgement = judgeResubmission(
    {
      marked: pdf.paper,
      passages: new Map(
        pdf.marks.flatMap((mark) =>
          mark.sourceId !== null && mark.anchor !== null ? [[mark.sourceId, mark.anchor]] : [],
        ),
      ),
      remarkTexts: pdf.marks.map((mark) => mark.text),
      submitted,
      rubric,
      before: before.criteria,
      wordsMax: assignment.requirements.wordsMax,
    },
    markingRules,
  );
  return {
    id: asId(MarkingId, `${attempt.id}-marking`),
    attemptId: attempt.id,
    assignmentId: attempt.assignmentId,
    at: instantOf(nowMs),
    marker: before.marker,
    score: judgement.score,
    groupScore: null,
    result: null,
    overall: judgement.overall,
    criteria: [...judgement.criteria],
    files: [],
    complete: true,
    byHand: false,
  };
}

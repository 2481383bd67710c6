import type { Assignment, Attempt, Author, Fact, Marking, Rubric } from '#core/model/facts.ts';
import { asId, AssignmentId, AttemptId, type FileHash, MarkingId, RemarkId } from '#core/model/ids.ts';
import type { Remark } from '#core/model/remark.ts';
import type { StoredFile } from '#core/model/work.ts';
import { hashOf } from '#formats/hash.ts';
import { PDF_READER_VERSION, type MarkedPdf } from '#formats/pdf/marked-pdf.ts';
import { remarksOfMarkedPdf, type MarkedPaperContext } from '#formats/pdf/remarks.ts';
import { words } from '../words/en.ts';
import type { Writing } from './transact.ts';
import { now, runCommand, save } from './workspace.ts';

/** Overall words and criterion comments are remarks too; each is one. */
function remarksOfMarking(marking: Marking): Remark[] {
  const base = {
    assignmentId: marking.assignmentId,
    attemptId: marking.attemptId,
    markingId: marking.id,
    author: marking.marker,
    at: marking.at,
    kind: 'comment',
    color: null,
    fileHash: null,
  };
  const remarks: Remark[] = [];
  if (marking.overall.trim() !== '')
    remarks.push({
      ...base,
      id: asId(RemarkId, `${marking.id}/overall`),
      channel: 'overall',
      text: marking.overall,
      criterionId: null,
      target: { kind: 'whole' },
    });
  for (const { criterionId, comment } of marking.criteria)
    if (comment.trim() !== '')
      remarks.push({
        ...base,
        id: asId(RemarkId, `${marking.id}/criterion/${criterionId}`),
        channel: 'criterion',
        text: comment,
        criterionId,
        target: { kind: 'criterion', criterionId },
      });
  return remarks;
}

/** Copies facts of the desk into the workspace, all of a page or none. */
export function takeInFacts(
  facts: readonly Fact[],
  rubrics: readonly Rubric[],
  cursor: number,
): Promise<void> {
  return save(async (writing) => {
    for (const rubric of rubrics) await writing.put('rubrics', rubric);
    for (const fact of facts)
      switch (fact.kind) {
        case 'course':
          await writing.put('courses', fact.value);
          break;
        case 'assignment':
          await writing.put('assignments', fact.value);
          break;
        case 'attempt':
          await putAttempt(writing, fact.value);
          break;
        case 'marking':
          await writing.put('markings', fact.value);
          for (const remark of remarksOfMarking(fact.value)) await writing.put('remarks', remark);
          break;
      }
    writing.setMeta('cursor', cursor);
  });
}

/** An attempt that arrived at the desk settles the submission it came from. */
export async function putAttempt(writing: Writing, attempt: Attempt): Promise<void> {
  await writing.put('attempts', attempt);
  const { receipt } = attempt;
  if (receipt === null) return;
  for (const submission of await writing.all('submissions'))
    if (
      submission.assignmentId === attempt.assignmentId &&
      attempt.files.some((f) => f.hash === submission.paper.hash)
    )
      await writing.put('submissions', {
        ...submission,
        state: { kind: 'received', attemptId: attempt.id, receipt },
      });
}

interface ReadFile {
  readonly file: StoredFile;
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly pdf: MarkedPdf;
}

async function putMarkedFile(
  writing: Writing,
  { file, bytes, pdf }: ReadFile,
  context: MarkedPaperContext,
): Promise<void> {
  const { remarks, anchors } = remarksOfMarkedPdf(pdf, context);
  writing.putBytes(file.hash, bytes);
  writing.putPaper({
    hash: file.hash,
    readerVersion: PDF_READER_VERSION,
    pages: pdf.pages,
    paper: pdf.paper,
    anchors,
  });
  await writing.put('files', file);
  for (const remark of remarks) await writing.put('remarks', remark);
}

/** Takes in a marked file that came with a marking. */
export function takeInReturnedFile(read: ReadFile, marking: Marking, rubric: Rubric | null): Promise<void> {
  return save((writing) =>
    putMarkedFile(writing, read, {
      assignmentId: marking.assignmentId,
      attemptId: marking.attemptId,
      markingId: marking.id,
      fileHash: read.file.hash,
      marker: marking.marker,
      rubric,
    }),
  );
}

/** The name most of the marks carry; a file that names nobody has an unnamed marker. */
function markerOf(pdf: MarkedPdf): Author {
  const named = pdf.marks.map((mark) => mark.author).filter((author) => author !== '');
  const count = (name: string) => named.filter((other) => other === name).length;
  const name = named.reduce((most, next) => (count(next) > count(most) ? next : most), named.at(0) ?? '');
  return { name: name === '' ? words.takeIn.unnamedMarker : name, role: 'instructor' };
}

/** A marked paper that belongs to nothing becomes an assignment of its own; returns its id. */
export async function takeInDroppedPaper(
  name: string,
  bytes: Uint8Array<ArrayBuffer>,
  pdf: MarkedPdf,
): Promise<AssignmentId> {
  const hash: FileHash = await hashOf(bytes);
  const title = name.replace(/\.pdf$/i, '').replaceAll('_', ' ');
  const assignmentId = asId(AssignmentId, `own/${hash.slice(0, 24)}`);
  const attemptId = asId(AttemptId, `${assignmentId}/attempt-1`);
  const markingId = asId(MarkingId, `${assignmentId}/marking-1`);
  const at = now();
  const marker = markerOf(pdf);
  const assignment: Assignment = {
    id: assignmentId,
    courseId: null,
    title,
    possible: null,
    counts: null,
    opensAt: null,
    dueAt: null,
    closesAt: null,
    attemptsAllowed: 1,
    policy: { kind: 'latest' },
    rubricId: null,
    requirements: { wordsMin: null, wordsMax: null, fileTypes: [] },
    brief: '',
  };
  const fact = { role: 'marked' as const, name, mediaType: 'application/pdf', size: bytes.length, hash };
  const file: StoredFile = {
    hash,
    name,
    mediaType: fact.mediaType,
    size: bytes.length,
    cameAt: at,
    origin: 'dropped',
    assignmentId,
  };
  await runCommand(assignmentId, words.undo.takenIn(title), async (writing) => {
    await writing.put('assignments', assignment);
    await writing.put('attempts', {
      id: attemptId,
      assignmentId,
      number: 1,
      at,
      files: [],
      note: '',
      receipt: null,
    });
    await writing.put('markings', {
      id: markingId,
      attemptId,
      assignmentId,
      at,
      marker,
      score: null,
      overall: '',
      criteria: [],
      files: [fact],
      announced: { passage: pdf.marks.length },
    });
    await putMarkedFile(
      writing,
      { file, bytes, pdf },
      { assignmentId, attemptId, markingId, fileHash: hash, marker, rubric: null },
    );
  });
  return assignmentId;
}

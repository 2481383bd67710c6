import type { Assignment, Attempt, FileFact, Receipt, Withdrawal } from '#core/model/facts.ts';
import { asId, instantOf, AssignmentId, AttemptId, type FileHash } from '#core/model/ids.ts';
import { countWords } from '#core/text/words.ts';
import { readDocx } from '#formats/docx/read-docx.ts';
import { hashOf } from '#formats/hash.ts';
import { UnreadableFile } from '#formats/unreadable.ts';
import type { DeskFolder } from './desk-folder.ts';
import { withFact } from './desk-state.ts';

export interface UploadedFile {
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

export type Taken =
  | { readonly kind: 'taken'; readonly attempt: Attempt; readonly again: boolean }
  | { readonly kind: 'refused'; readonly status: 404 | 409 | 422; readonly why: string };

function refused(status: 404 | 409 | 422, why: string): Taken {
  return { kind: 'refused', status, why };
}

/** Takes another attempt within the assignment's rules, or says which rule bars it. The same key is taken once. */
export async function takeAttempt(
  desk: DeskFolder,
  nowMs: number,
  given: {
    readonly assignmentId: string;
    readonly key: string;
    readonly note: string;
    readonly paper: UploadedFile;
    readonly response: UploadedFile | null;
  },
): Promise<Taken> {
  const known = attemptsOf(desk).find((attempt) => attempt.id === desk.state.attemptByKey[given.key]);
  if (known !== undefined) return { kind: 'taken', attempt: known, again: true };
  const assignment = latestAssignment(desk, given.assignmentId);
  if (assignment === undefined) return refused(404, 'There is no such assignment.');
  const all = attemptsOf(desk).filter((attempt) => attempt.assignmentId === assignment.id);
  const takenBack = withdrawnIds(desk);
  const barred = ruleAgainst(assignment, all.filter(({ id }) => !takenBack.has(id)).length, nowMs);
  if (barred !== null) return refused(409, barred);
  const paper = await received(given.paper);
  if (paper === null)
    return refused(422, 'The file can’t be read as a Word file (.docx). Save it again and send that.');
  const files: (Received & { upload: UploadedFile; role: FileFact['role'] })[] = [
    { upload: given.paper, role: 'paper', ...paper },
  ];
  if (given.response !== null) {
    const response = await received(given.response);
    if (response === null) return refused(422, 'The response sheet can’t be read as a Word file (.docx).');
    files.push({ upload: given.response, role: 'response', ...response });
  }
  for (const file of files) desk.putFile(file.hash, file.upload.bytes);
  const number = all.length + 1;
  const id = asId(AttemptId, `${assignment.id}-attempt-${number}`);
  const receipt: Receipt = {
    id: `HC-${assignment.id}-${number}-${given.key.slice(0, 8)}`,
    at: instantOf(nowMs),
    attempt: number,
    attemptsAllowed: assignment.attemptsAllowed,
    rule: `Attempt ${number} of ${assignment.attemptsAllowed}, taken before closing time.`,
    files: files.map(({ upload, hash, words, pages, pagesEstimated }) => ({
      name: upload.name,
      size: upload.bytes.length,
      hash,
      words,
      pages,
      pagesEstimated,
    })),
  };
  const attempt: Attempt = {
    id,
    assignmentId: assignment.id,
    number,
    at: receipt.at,
    files: files.map(({ upload, role, hash }) => ({
      role,
      name: upload.name,
      mediaType: upload.mediaType,
      size: upload.bytes.length,
      hash,
      aboutHash: null,
      announced: {},
    })),
    note: given.note,
    receipt,
    dueAt: null,
    outside: false,
    atKnown: true,
  };
  desk.update((state) => ({
    ...withFact(state, { kind: 'attempt', value: attempt }),
    attemptByKey: { ...state.attemptByKey, [given.key]: id },
  }));
  return { kind: 'taken', attempt, again: false };
}

function attemptsOf(desk: DeskFolder): Attempt[] {
  return desk.state.facts.flatMap((fact) => (fact.kind === 'attempt' ? [fact.value] : []));
}

function withdrawnIds(desk: DeskFolder): Set<string> {
  return new Set(
    desk.state.facts.flatMap((fact) => (fact.kind === 'withdrawal' ? [fact.value.attemptId] : [])),
  );
}

export type TakenBack =
  | { readonly kind: 'taken back'; readonly withdrawal: Withdrawal; readonly again: boolean }
  | { readonly kind: 'refused'; readonly status: 404 | 409; readonly why: string };

/** Takes an attempt back where the rules allow it: before its time for that is over, and while it isn't marked. */
export function takeBack(
  desk: DeskFolder,
  nowMs: number,
  assignmentId: string,
  attemptId: string,
): TakenBack {
  const attempt = attemptsOf(desk).find((one) => one.id === attemptId && one.assignmentId === assignmentId);
  const assignment = latestAssignment(desk, assignmentId);
  if (attempt === undefined || assignment === undefined)
    return { kind: 'refused', status: 404, why: 'There is no such attempt.' };
  const known = desk.state.facts.flatMap((fact) =>
    fact.kind === 'withdrawal' && fact.value.attemptId === attempt.id ? [fact.value] : [],
  );
  if (known.length > 0) return { kind: 'taken back', withdrawal: known[0], again: true };
  const until = assignment.withdrawableUntil;
  if (until === null || Date.parse(until) < nowMs)
    return { kind: 'refused', status: 409, why: 'This attempt can’t be taken back any more.' };
  const marked = desk.state.facts.some(
    (fact) => fact.kind === 'marking' && fact.value.attemptId === attempt.id,
  );
  if (marked) return { kind: 'refused', status: 409, why: 'This attempt is marked already.' };
  const withdrawal = { attemptId: attempt.id, assignmentId: attempt.assignmentId, at: instantOf(nowMs) };
  desk.update((state) => withFact(state, { kind: 'withdrawal', value: withdrawal }));
  return { kind: 'taken back', withdrawal, again: false };
}

function latestAssignment(desk: DeskFolder, id: string): Assignment | undefined {
  const wanted = asId(AssignmentId, id);
  return desk.state.facts
    .flatMap((f) => (f.kind === 'assignment' && f.value.id === wanted ? [f.value] : []))
    .at(-1);
}

function ruleAgainst(assignment: Assignment, sent: number, nowMs: number): string | null {
  if (sent >= assignment.attemptsAllowed)
    return `All ${assignment.attemptsAllowed} attempts at this assignment have been used.`;
  if (assignment.excused) return 'You are excused from this assignment.';
  const first = assignment.closesAt ?? assignment.extendedTo ?? assignment.dueAt;
  const closes = sent === 0 ? first : assignment.closesAt;
  if (closes === null) return 'This assignment takes no other attempt.';
  return nowMs > Date.parse(closes) ? 'The closing time has passed; no attempt is taken any more.' : null;
}

/** Words on a page of plain type, for files that don't state their pages. */
const WORDS_ON_A_PAGE = 400;

interface Received {
  readonly hash: FileHash;
  readonly words: number;
  readonly pages: number;
  readonly pagesEstimated: boolean;
}

async function received(upload: UploadedFile): Promise<Received | null> {
  try {
    const { blocks, pages } = readDocx(upload.bytes);
    const words = countWords(blocks.map((block) => block.text).join('\n'));
    return {
      hash: await hashOf(upload.bytes),
      words,
      pages: pages ?? Math.max(1, Math.ceil(words / WORDS_ON_A_PAGE)),
      pagesEstimated: pages === null,
    };
  } catch (error) {
    if (error instanceof UnreadableFile) return null;
    throw error;
  }
}

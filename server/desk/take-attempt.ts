import { readFile } from 'node:fs/promises';
import type { Assignment, Attempt, Receipt, Withdrawal } from '#core/model/facts.ts';
import type { SentFile } from '#core/model/handed-in.ts';
import { asId, instantOf, AttemptId } from '#core/model/ids.ts';
import type { WorkKind } from '#core/model/work-kind.ts';
import { fileFault } from '#core/check/file-kind.ts';
import { countWords } from '#core/text/words.ts';
import { readDocx } from '#formats/docx/read-docx.ts';
import type { HandingIn } from '#formats/desk/handing-in.ts';
import { hashOf } from '#formats/hash.ts';
import { readPaper } from '#formats/read-paper.ts';
import { recogniseNamed } from '#formats/recognise.ts';
import { MOST_FILE_BYTES, UnreadableFile } from '#formats/unreadable.ts';
import type { DeskFolder } from './desk-folder.ts';
import { withFact } from './desk-state.ts';
import {
  assignmentIn,
  attemptsIn,
  countingAttempts,
  markingsIn,
  ownAttempts,
  ruleAgainst,
} from './record.ts';

/** What became of a handing-in; `again`: it was taken before, under the same key. */
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
  given: { readonly assignmentId: string; readonly key: string; readonly asked: HandingIn },
): Promise<Taken> {
  const { key, asked } = given;
  const askedHash = await hashOf(new TextEncoder().encode(JSON.stringify(asked)));
  const before = takenUnder(desk, key, askedHash);
  if (before !== null) return before;
  const assignment = assignmentIn(desk.state, given.assignmentId);
  if (assignment === undefined) return refused(404, 'There is no such assignment.');
  const barred = ruleAgainst(assignment, countingAttempts(desk.state, assignment).length, nowMs);
  if (barred !== null) return refused(409, barred);
  const wrong = wrongIn(asked, assignment);
  if (wrong !== null) return refused(422, wrong);
  const files: Received[] = [];
  for (const file of asked.files) {
    const found = await received(desk, file, asked.kind);
    if (typeof found === 'string') return refused(422, found);
    files.push(found);
  }
  // Reading took time: another request may have come first, under this key or at the last attempt.
  const meanwhile = takenUnder(desk, key, askedHash);
  if (meanwhile !== null) return meanwhile;
  const tooLate = ruleAgainst(assignment, countingAttempts(desk.state, assignment).length, nowMs);
  if (tooLate !== null) return refused(409, tooLate);
  const attempt = attemptFrom(
    asked,
    assignment,
    files,
    ownAttempts(desk.state, assignment).length + 1,
    key,
    nowMs,
  );
  desk.update((state) => ({
    ...withFact(state, { kind: 'attempt', value: attempt }),
    attemptByKey: { ...state.attemptByKey, [key]: attempt.id },
    askedByKey: { ...state.askedByKey, [key]: askedHash },
  }));
  return { kind: 'taken', attempt, again: false };
}

/** What was taken under a key; refused where that was something else; null for a new key. */
function takenUnder(desk: DeskFolder, key: string, askedHash: string): Taken | null {
  const known = attemptsIn(desk.state).find(({ id }) => id === desk.state.attemptByKey[key]);
  if (known === undefined) return null;
  const was = (desk.state.askedByKey as Readonly<Partial<Record<string, string>>>)[key];
  return was === undefined || was === askedHash
    ? { kind: 'taken', attempt: known, again: true }
    : refused(409, 'Another attempt was sent under this key.');
}

/** The desk's word for an attempt. @param key tells two receipts of one number apart */
export function receiptFor(
  { id, attemptsAllowed }: Assignment,
  number: number,
  key: string,
  atMs: number,
  files: Receipt['files'],
): Receipt {
  return {
    id: `HC-${id}-${number}-${key.slice(0, 8)}`,
    at: instantOf(atMs),
    attempt: number,
    attemptsAllowed,
    rule: `Attempt ${number} of ${attemptsAllowed}, taken before closing time.`,
    files,
  };
}

function attemptFrom(
  { note, post, items }: HandingIn,
  assignment: Assignment,
  files: readonly Received[],
  number: number,
  key: string,
  nowMs: number,
): Attempt {
  const receipt = receiptFor(
    assignment,
    number,
    key,
    nowMs,
    files.map(({ file: { name, size, hash }, words, pages, pagesEstimated }) => ({
      name,
      size,
      hash,
      words,
      pages,
      pagesEstimated,
    })),
  );
  return {
    id: asId(AttemptId, `${assignment.id}-attempt-${number}`),
    assignmentId: assignment.id,
    number,
    at: receipt.at,
    files: files.map(({ file }) => ({ ...file, aboutHash: null, announced: {} })),
    note,
    receipt,
    dueAt: null,
    outside: false,
    atKnown: true,
    post,
    items,
  };
}

/** Why a handing-in is not what the assignment asks for; null where it is. */
function wrongIn({ kind, files, post, items }: HandingIn, assignment: Assignment): string | null {
  if (assignment.kind !== null && assignment.kind !== kind)
    return `This assignment takes ${TAKEN[assignment.kind]}.`;
  switch (kind) {
    case 'paper':
    case 'files':
      return wrongFiles(
        files.filter(({ role }) => role === 'paper'),
        assignment.requirements.fileTypes,
      );
    case 'posts':
      return post === null || post.text.trim() === '' ? 'There is no text in the post.' : null;
    case 'items':
      return Object.values(items).every((text: string) => text.trim() === '') ? 'No item is answered.' : null;
    case 'quiz':
      return 'A quiz is taken at the course desk, question by question.';
  }
}

const TAKEN: Readonly<Record<WorkKind, string>> = {
  paper: 'a paper as a file',
  files: 'files',
  posts: 'a post',
  items: 'answers to its items',
  quiz: 'answers question by question',
};

function wrongFiles(files: readonly SentFile[], types: readonly string[]): string | null {
  if (files.length === 0) return 'An attempt needs a file.';
  for (const file of files) {
    const fault = fileFault(file, types, MOST_FILE_BYTES);
    if (fault?.kind === 'empty') return `“${file.name}” is empty.`;
    if (fault?.kind === 'too large') return `“${file.name}” is larger than 300 MB.`;
    if (fault?.kind === 'other kind')
      return `“${file.name}” is of no kind that this assignment takes: ${types.map((type) => `.${type}`).join(', ')}.`;
  }
  return null;
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
  const attempt = attemptsIn(desk.state).find(
    (one) => one.id === attemptId && one.assignmentId === assignmentId,
  );
  const assignment = assignmentIn(desk.state, assignmentId);
  if (attempt === undefined || assignment === undefined)
    return { kind: 'refused', status: 404, why: 'There is no such attempt.' };
  const known = desk.state.facts.flatMap((fact) =>
    fact.kind === 'withdrawal' && fact.value.attemptId === attempt.id ? [fact.value] : [],
  );
  if (known.length > 0) return { kind: 'taken back', withdrawal: known[0], again: true };
  const until = assignment.withdrawableUntil;
  if (until === null || Date.parse(until) < nowMs)
    return { kind: 'refused', status: 409, why: 'This attempt can’t be taken back any more.' };
  const marked = markingsIn(desk.state, assignment).some(({ attemptId: of }) => of === attempt.id);
  if (marked) return { kind: 'refused', status: 409, why: 'This attempt is marked already.' };
  const withdrawal = { attemptId: attempt.id, assignmentId: attempt.assignmentId, at: instantOf(nowMs) };
  desk.update((state) => withFact(state, { kind: 'withdrawal', value: withdrawal }));
  return { kind: 'taken back', withdrawal, again: false };
}

/** Words on a page of plain type, for files that don't state their pages. */
const WORDS_ON_A_PAGE = 400;

interface Received {
  readonly file: SentFile;
  /** null: it has no text. */
  readonly words: number | null;
  readonly pages: number | null;
  readonly pagesEstimated: boolean;
}

/** A file that was uploaded, with what a receipt tells of it; or why it can't be taken. */
async function received(desk: DeskFolder, sent: SentFile, kind: WorkKind): Promise<Received | string> {
  const name = sent.name.replace(/[\\/:*?"<>|\p{Cc}]/gu, '_').slice(0, 200);
  const path = desk.pathOfFile(sent.hash);
  if (path === null) return `“${name}” was not uploaded.`;
  const bytes = new Uint8Array(await readFile(path));
  const file = { ...sent, name, size: bytes.length, mediaType: sent.mediaType.slice(0, 200) };
  const text = await textIn(bytes, name);
  if (text === null)
    return kind === 'paper'
      ? `“${name}” can’t be read as a text. Save it again as a Word file (.docx) or PDF and send that.`
      : { file, words: null, pages: null, pagesEstimated: false };
  return {
    file,
    words: text.words,
    pages: text.pages ?? Math.max(1, Math.ceil(text.words / WORDS_ON_A_PAGE)),
    pagesEstimated: text.pages === null,
  };
}

/** Words of a file, and pages where it states them; null for what holds no text or can't be read. */
async function textIn(
  bytes: Uint8Array<ArrayBuffer>,
  name: string,
): Promise<{ readonly words: number; readonly pages: number | null } | null> {
  try {
    // A name that claims more than the file holds is no paper.
    if (recogniseNamed(bytes, name).kind === 'docx') {
      const { blocks, pages } = readDocx(bytes);
      return { words: countWords(blocks.map((block) => block.text).join('\n')), pages };
    }
    const { kind, paper, pages } = await readPaper(bytes, null);
    if (kind === 'picture') return null;
    return { words: countWords(paper.text), pages: pages.length === 0 ? null : pages.length };
  } catch (error) {
    if (error instanceof UnreadableFile) return null;
    throw error;
  }
}

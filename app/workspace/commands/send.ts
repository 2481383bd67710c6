import type { Workspace } from '../workspace.ts';
import type { SentFile, SentPost } from '#core/model/handed-in.ts';
import type { Receipt } from '#core/model/facts.ts';
import { asId, SubmissionId, VersionId, type Instant } from '#core/model/ids.ts';
import { outsideAttemptId } from '#core/model/own-ids.ts';
import type { Draft, DraftContent, StoredFile, Submission } from '#core/model/work.ts';
import type { WorkKind } from '#core/model/work-kind.ts';
import { hashOf } from '#formats/hash.ts';
import * as words from '../../words/en.ts';
import type { Body } from '../storage/bodies.ts';
import type { Writing } from '../storage/transact.ts';
import { newId } from './draft.ts';

export const WORD_TYPE = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';

/** A file that is written for this attempt, and kept with it. */
export interface WrittenFile {
  readonly role: SentFile['role'];
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** What is handed in. */
export interface Going {
  readonly kind: WorkKind;
  /** The text that was written here; null where nothing was. */
  readonly content: DraftContent | null;
  /** Files that are kept here already, and go byte for byte. */
  readonly kept: readonly SentFile[];
  readonly written: readonly WrittenFile[];
  readonly post: SentPost | null;
}

/** Keeps the note that goes to the instructor with the attempt. */
export function noteToInstructor(
  workspace: Workspace,
  draft: Draft,
  note: string,
  typing?: string,
): Promise<void> {
  return workspace.run(
    draft.assignmentId,
    words.undo.noteToInstructor,
    async (writing) => {
      const known = await writing.get('drafts', draft.id);
      if (known !== null) await writing.put('drafts', { ...known, note });
    },
    typing,
  );
}

/** A file that was written, with the record that it is kept by. */
interface Stored {
  readonly role: SentFile['role'];
  readonly file: StoredFile;
  readonly bytes: WrittenFile['bytes'];
}

/** Freezes the draft as it is and puts it on its way; what is sent is kept to the byte. */
export async function sendAttempt(workspace: Workspace, draft: Draft, going: Going): Promise<void> {
  const frozen = await frozenFrom(workspace, draft, going);
  await workspace.save(async (writing) => {
    await putFrozen(workspace, writing, draft, going, frozen, () => ({ kind: 'waiting to go' }));
  });
  await workspace.deliveries.deliver();
}

/**
 * Keeps that what is ready to go was handed in elsewhere, with an own receipt of it: names, sizes, fingerprints, when and how.
 * @param how in the student's words: to whom, by which way
 */
export async function recordHandedIn(
  workspace: Workspace,
  draft: Draft,
  going: Going,
  how: string,
): Promise<void> {
  const frozen = await frozenFrom(workspace, draft, going);
  await workspace.run(draft.assignmentId, words.undo.outsideAttempt, async (writing) => {
    const id = outsideAttemptId(newId());
    const own = (await writing.all('attempts')).filter(
      ({ assignmentId }) => assignmentId === draft.assignmentId,
    );
    const number = Math.max(0, ...own.map((attempt) => attempt.number)) + 1;
    const at = workspace.now();
    const submission = await putFrozen(workspace, writing, draft, going, frozen, (files) => ({
      kind: 'received',
      attemptId: id,
      receipt: ownReceipt(id, at, number, how, files),
    }));
    const { state, files, note, post, items } = submission;
    await writing.put('attempts', {
      id,
      assignmentId: draft.assignmentId,
      number,
      at,
      files: files.map((file) => ({ ...file, aboutHash: null, announced: {} })),
      note,
      receipt: state.kind === 'received' ? state.receipt : null,
      dueAt: null,
      outside: true,
      atKnown: true,
      post,
      items,
    });
  });
}

function ownReceipt(
  id: string,
  at: Instant,
  attempt: number,
  how: string,
  files: readonly SentFile[],
): Receipt {
  return {
    id,
    at,
    attempt,
    attemptsAllowed: attempt,
    rule: how.slice(0, 500),
    files: files.map(({ name, size, hash }) => ({
      name,
      size,
      hash,
      words: null,
      pages: null,
      pagesEstimated: false,
    })),
  };
}

async function frozenFrom(
  workspace: Workspace,
  draft: Draft,
  { content, written }: Going,
): Promise<{ readonly stored: readonly Stored[]; readonly body: Body | null }> {
  const cameAt = workspace.now();
  const stored = await Promise.all(
    written.map(async ({ role, name, mediaType, bytes }): Promise<Stored> => ({
      role,
      bytes,
      file: {
        hash: await hashOf(bytes),
        name,
        mediaType,
        size: bytes.length,
        cameAt,
        origin: 'written',
        assignmentId: draft.assignmentId,
        role: 'sent',
        aboutHash: null,
      },
    })),
  );
  return { stored, body: content === null ? null : await workspace.bodies.pack(content) };
}

/** Writes the version that goes, its files, and the handing-in. */
async function putFrozen(
  workspace: Workspace,
  writing: Writing,
  draft: Draft,
  { kind, kept, post }: Going,
  { stored, body }: Awaited<ReturnType<typeof frozenFrom>>,
  stateOf: (files: readonly SentFile[]) => Submission['state'],
): Promise<Submission> {
  const known = (await writing.get('drafts', draft.id)) ?? draft;
  const { note, files: ownFiles, items, headVersionId } = known;
  const at = workspace.now();
  const versionId = asId(VersionId, newId());
  if (body !== null) writing.putBody(body);
  await writing.put('versions', {
    id: versionId,
    draftId: draft.id,
    assignmentId: draft.assignmentId,
    parentId: headVersionId,
    at,
    why: 'sent',
    name: '',
    bodyHash: body?.hash ?? null,
    files: ownFiles,
    post: known.post,
    items,
    // A text that was written elsewhere is its file.
    fileHash: known.paperFile ?? stored.find(({ role }) => role === 'paper')?.file.hash ?? null,
  });
  await writing.put('drafts', { ...known, headVersionId: versionId });
  for (const { file, bytes } of stored) {
    writing.putBytes(file.hash, bytes);
    await writing.put('files', file);
  }
  const files = [...kept, ...stored.map(({ role, file }) => sentFile(role, file))];
  const submission: Submission = {
    id: asId(SubmissionId, newId()),
    assignmentId: draft.assignmentId,
    versionId,
    kind,
    note,
    files,
    post,
    items,
    at,
    state: stateOf(files),
  };
  await writing.put('submissions', submission);
  return submission;
}

/** A kept file as part of a handing-in. */
export function sentFile(role: SentFile['role'], { name, mediaType, size, hash }: StoredFile): SentFile {
  return { role, name, mediaType, size, hash };
}

import { asId, SubmissionId, VersionId } from '#core/model/ids.ts';
import type { Draft, StoredFile, Submission } from '#core/model/work.ts';
import { hashOf } from '#formats/hash.ts';
import { handIn } from './desk-client.ts';
import { newId } from './draft.ts';
import { putAttempt } from './facts.ts';
import { fileBytes, now, save, useWorkspace } from './workspace.ts';

export const WORD_TYPE = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';

interface WrittenFile {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** Freezes the draft as it is and puts it on its way; what is sent is kept to the byte. */
export async function sendAttempt(
  draft: Draft,
  paper: WrittenFile,
  response: WrittenFile,
  note: string,
): Promise<void> {
  const id = asId(SubmissionId, newId());
  const at = now();
  const stored = async ({ name, bytes }: WrittenFile): Promise<StoredFile> => ({
    hash: await hashOf(bytes),
    name,
    mediaType: WORD_TYPE,
    size: bytes.length,
    cameAt: at,
    origin: 'written',
    assignmentId: draft.assignmentId,
    role: 'sent',
    aboutHash: null,
  });
  const paperFile = await stored(paper);
  const responseFile = await stored(response);
  await save(async (writing) => {
    const known = (await writing.get('drafts', draft.id)) ?? draft;
    const versionId = asId(VersionId, newId());
    await writing.put('versions', {
      id: versionId,
      draftId: draft.id,
      assignmentId: draft.assignmentId,
      parentId: known.headVersionId,
      at,
      why: 'sent',
      content: draft.content,
      fileHash: paperFile.hash,
    });
    await writing.put('drafts', { ...known, headVersionId: versionId });
    writing.putBytes(paperFile.hash, paper.bytes);
    writing.putBytes(responseFile.hash, response.bytes);
    await writing.put('files', paperFile);
    await writing.put('files', responseFile);
    await writing.put('submissions', {
      id,
      assignmentId: draft.assignmentId,
      versionId,
      note,
      paper: { name: paper.name, hash: paperFile.hash },
      response: { name: response.name, hash: responseFile.hash },
      at,
      state: { kind: 'waiting to go' },
    });
  });
  await deliverWaiting();
}

let delivering: Promise<void> | null = null;

/** Tries to deliver what waits to go; one delivery at a time. */
export function deliverWaiting(): Promise<void> {
  delivering ??= deliverAll().finally(() => {
    delivering = null;
  });
  return delivering;
}

async function deliverAll(): Promise<void> {
  for (const submission of useWorkspace.getState().records.submissions.values())
    if (submission.state.kind === 'waiting to go') await deliver(submission);
}

async function deliver(submission: Submission): Promise<void> {
  const paper = await fileBytes(submission.paper.hash);
  const response = await fileBytes(submission.response.hash);
  if (paper === null || response === null) return;
  const answer = await handIn(submission, paper, response);
  switch (answer.kind) {
    case 'ok':
      await save((writing) => putAttempt(writing, answer.value));
      break;
    case 'refused':
      await save((writing) =>
        writing.put('submissions', { ...submission, state: { kind: 'refused', reason: answer.why } }),
      );
      break;
    case 'signed out':
    case 'not reached':
    case 'unreadable':
      useWorkspace.setState({ connection: answer.kind === 'signed out' ? 'signed out' : 'not reached' });
  }
}

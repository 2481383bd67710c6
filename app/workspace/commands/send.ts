import type { Workspace } from '../workspace.ts';
import { asId, SubmissionId, VersionId } from '#core/model/ids.ts';
import type { Draft, DraftContent, StoredFile } from '#core/model/work.ts';
import { hashOf } from '#formats/hash.ts';
import { newId } from './draft.ts';
export const WORD_TYPE = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';

interface WrittenFile {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** Freezes the draft as it is and puts it on its way; what is sent is kept to the byte. */
export async function sendAttempt(
  workspace: Workspace,
  draft: Draft,
  content: DraftContent,
  paper: WrittenFile,
  response: WrittenFile,
  note: string,
): Promise<void> {
  const id = asId(SubmissionId, newId());
  const at = workspace.now();
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
  const body = await workspace.bodies.pack(content);
  await workspace.save(async (writing) => {
    const known = (await writing.get('drafts', draft.id)) ?? draft;
    const versionId = asId(VersionId, newId());
    writing.putBody(body);
    await writing.put('versions', {
      id: versionId,
      draftId: draft.id,
      assignmentId: draft.assignmentId,
      parentId: known.headVersionId,
      at,
      why: 'sent',
      bodyHash: body.hash,
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
  await workspace.deliveries.deliver();
}

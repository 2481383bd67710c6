import type { Workspace } from '../workspace.ts';
import type { SentFile, SentPost } from '#core/model/handed-in.ts';
import { asId, SubmissionId, VersionId } from '#core/model/ids.ts';
import type { Draft, DraftContent, StoredFile } from '#core/model/work.ts';
import type { WorkKind } from '#core/model/work-kind.ts';
import { hashOf } from '#formats/hash.ts';
import * as words from '../../words/en.ts';
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

/** Freezes the draft as it is and puts it on its way; what is sent is kept to the byte. */
export async function sendAttempt(
  workspace: Workspace,
  draft: Draft,
  { kind, content, kept, written, post }: Going,
): Promise<void> {
  const id = asId(SubmissionId, newId());
  const at = workspace.now();
  const stored = await Promise.all(
    written.map(
      async (file): Promise<{ role: SentFile['role']; file: StoredFile; bytes: WrittenFile['bytes'] }> => ({
        role: file.role,
        bytes: file.bytes,
        file: {
          hash: await hashOf(file.bytes),
          name: file.name,
          mediaType: file.mediaType,
          size: file.bytes.length,
          cameAt: at,
          origin: 'written',
          assignmentId: draft.assignmentId,
          role: 'sent',
          aboutHash: null,
        },
      }),
    ),
  );
  const body = content === null ? null : await workspace.bodies.pack(content);
  await workspace.save(async (writing) => {
    const known = (await writing.get('drafts', draft.id)) ?? draft;
    const versionId = asId(VersionId, newId());
    if (body !== null) writing.putBody(body);
    await writing.put('versions', {
      id: versionId,
      draftId: draft.id,
      assignmentId: draft.assignmentId,
      parentId: known.headVersionId,
      at,
      why: 'sent',
      bodyHash: body?.hash ?? null,
      files: known.files,
      post: known.post,
      items: known.items,
      fileHash: stored.find(({ role }) => role === 'paper')?.file.hash ?? null,
    });
    await writing.put('drafts', { ...known, headVersionId: versionId });
    for (const { file, bytes } of stored) {
      writing.putBytes(file.hash, bytes);
      await writing.put('files', file);
    }
    await writing.put('submissions', {
      id,
      assignmentId: draft.assignmentId,
      versionId,
      kind,
      note: known.note,
      files: [...kept, ...stored.map(({ role, file }) => sentFile(role, file))],
      post,
      items: known.items,
      at,
      state: { kind: 'waiting to go' },
    });
  });
  await workspace.deliveries.deliver();
}

/** A kept file as part of a handing-in. */
export function sentFile(role: SentFile['role'], { name, mediaType, size, hash }: StoredFile): SentFile {
  return { role, name, mediaType, size, hash };
}

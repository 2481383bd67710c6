import { asId, type AssignmentId, DraftId, type FileHash, VersionId } from '#core/model/ids.ts';
import type { Draft, DraftContent, StoredFile, Version } from '#core/model/work.ts';
import { draftFrom } from '#core/paper/draft.ts';
import type { Block } from '#core/paper/paper.ts';
import { words } from '../words/en.ts';
import { now, runCommand, save } from './workspace.ts';

export function newId(): string {
  return crypto.randomUUID();
}

function versionOf(
  draft: Draft,
  why: Version['why'],
  content: DraftContent,
  fileHash: FileHash | null,
): Version {
  return {
    id: asId(VersionId, newId()),
    draftId: draft.id,
    assignmentId: draft.assignmentId,
    parentId: draft.headVersionId,
    at: now(),
    why,
    content,
    fileHash,
  };
}

/** Begins a draft from the text of the marked paper. */
export async function beginDraft(
  assignmentId: AssignmentId,
  attemptNumber: number,
  startedFrom: FileHash,
  blocks: readonly Block[],
): Promise<void> {
  await save(async (writing) => {
    const id = asId(DraftId, `draft/${assignmentId}/${attemptNumber}`);
    if ((await writing.get('drafts', id)) !== null) return;
    const content = draftFrom(blocks);
    const draft: Draft = {
      id,
      assignmentId,
      attemptNumber,
      startedFrom,
      content,
      headVersionId: null,
      savedAt: now(),
    };
    const version = versionOf(draft, 'started', content, null);
    await writing.put('versions', version);
    await writing.put('drafts', { ...draft, headVersionId: version.id });
  });
}

/** Keeps what was typed. */
export function saveDraft(draftId: string, content: DraftContent): Promise<void> {
  return save(async (writing) => {
    const draft = await writing.get('drafts', draftId);
    if (draft !== null) await writing.put('drafts', { ...draft, content, savedAt: now() });
  });
}

/** Makes a text written elsewhere the next version; what was written here is kept as the version before. */
export function bringInVersion(
  draft: Draft,
  blocks: readonly Block[],
  file: StoredFile,
  bytes: Uint8Array<ArrayBuffer>,
): Promise<void> {
  return runCommand(draft.assignmentId, words.undo.broughtIn, async (writing) => {
    const known = (await writing.get('drafts', draft.id)) ?? draft;
    const before = versionOf(known, 'before a file came in', known.content, null);
    const content = draftFrom(blocks);
    const version = versionOf({ ...known, headVersionId: before.id }, 'brought in', content, file.hash);
    writing.putBytes(file.hash, bytes);
    await writing.put('files', file);
    await writing.put('versions', before);
    await writing.put('versions', version);
    await writing.put('drafts', { ...known, content, headVersionId: version.id, savedAt: now() });
  });
}

import type { Workspace } from '../workspace.ts';
import { asId, type AssignmentId, type FileHash, VersionId } from '#core/model/ids.ts';
import type { Draft, DraftContent, StoredFile, Version } from '#core/model/work.ts';
import { draftFrom } from '#core/paper/draft.ts';
import type { Block } from '#core/paper/paper.ts';
import { words } from '../../words/en.ts';
import { draftIdOf } from '#core/model/own-ids.ts';

export function newId(): string {
  return crypto.randomUUID();
}

function versionOf(
  workspace: Workspace,
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
    at: workspace.now(),
    why,
    content,
    fileHash,
  };
}

/** Begins a draft from the text of the marked paper. */
export async function beginDraft(
  workspace: Workspace,
  assignmentId: AssignmentId,
  attemptNumber: number,
  startedFrom: FileHash,
  blocks: readonly Block[],
): Promise<void> {
  await workspace.save(async (writing) => {
    const id = draftIdOf(assignmentId, attemptNumber);
    if ((await writing.get('drafts', id)) !== null) return;
    const content = draftFrom(blocks);
    const draft: Draft = {
      id,
      assignmentId,
      attemptNumber,
      startedFrom,
      content,
      headVersionId: null,
      savedAt: workspace.now(),
    };
    const version = versionOf(workspace, draft, 'started', content, null);
    await writing.put('versions', version);
    await writing.put('drafts', { ...draft, headVersionId: version.id });
  });
}

/** Keeps what was typed. */
export function saveDraft(workspace: Workspace, draftId: string, content: DraftContent): Promise<void> {
  return workspace.save(async (writing) => {
    const draft = await writing.get('drafts', draftId);
    if (draft !== null) await writing.put('drafts', { ...draft, content, savedAt: workspace.now() });
  });
}

/** Makes a text written elsewhere the next version; what was written here is kept as the version before. */
export function bringInVersion(
  workspace: Workspace,
  draft: Draft,
  blocks: readonly Block[],
  file: StoredFile,
  bytes: Uint8Array<ArrayBuffer>,
): Promise<void> {
  return workspace.run(draft.assignmentId, words.undo.broughtIn, async (writing) => {
    const known = (await writing.get('drafts', draft.id)) ?? draft;
    const before = versionOf(workspace, known, 'before a file came in', known.content, null);
    const content = draftFrom(blocks);
    const version = versionOf(
      workspace,
      { ...known, headVersionId: before.id },
      'brought in',
      content,
      file.hash,
    );
    writing.putBytes(file.hash, bytes);
    await writing.put('files', file);
    await writing.put('versions', before);
    await writing.put('versions', version);
    await writing.put('drafts', { ...known, content, headVersionId: version.id, savedAt: workspace.now() });
  });
}

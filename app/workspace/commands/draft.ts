import type { Workspace } from '../workspace.ts';
import { asId, type AssignmentId, type FileHash, VersionId } from '#core/model/ids.ts';
import type { Draft, DraftContent, StoredFile, Version } from '#core/model/work.ts';
import { draftFrom } from '#core/paper/draft.ts';
import type { Block } from '#core/paper/paper.ts';
import * as words from '../../words/en.ts';
import { draftIdOf } from '#core/model/own-ids.ts';

export function newId(): string {
  return crypto.randomUUID();
}

function versionOf(
  workspace: Workspace,
  draft: Draft,
  why: Version['why'],
  bodyHash: FileHash,
  fileHash: FileHash | null,
): Version {
  return {
    id: asId(VersionId, newId()),
    draftId: draft.id,
    assignmentId: draft.assignmentId,
    parentId: draft.headVersionId,
    at: workspace.now(),
    why,
    bodyHash,
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
  const body = await workspace.bodies.pack(draftFrom(blocks));
  await workspace.save(async (writing) => {
    const id = draftIdOf(assignmentId, attemptNumber);
    if ((await writing.get('drafts', id)) !== null) return;
    const draft: Draft = {
      id,
      assignmentId,
      attemptNumber,
      startedFrom,
      bodyHash: body.hash,
      headVersionId: null,
      savedAt: workspace.now(),
    };
    const version = versionOf(workspace, draft, 'started', body.hash, null);
    writing.putBody(body);
    await writing.put('versions', version);
    await writing.put('drafts', { ...draft, headVersionId: version.id });
  });
}

/** Keeps what was typed. */
export async function saveDraft(workspace: Workspace, draftId: string, content: DraftContent): Promise<void> {
  const body = await workspace.bodies.pack(content);
  await workspace.save(async (writing) => {
    const draft = await writing.get('drafts', draftId);
    if (draft === null) return;
    writing.putBody(body);
    await writing.put('drafts', { ...draft, bodyHash: body.hash, savedAt: workspace.now() });
    // What was written over is no version: nobody comes back to it.
    const kept = [...(await writing.all('versions')), ...(await writing.all('drafts'))];
    if (kept.every(({ bodyHash }) => bodyHash !== draft.bodyHash)) writing.removeBody(draft.bodyHash);
  });
}

/** Makes a text written elsewhere the next version; what was written here is kept as the version before. */
export async function bringInVersion(
  workspace: Workspace,
  draft: Draft,
  blocks: readonly Block[],
  file: StoredFile,
  bytes: Uint8Array<ArrayBuffer>,
): Promise<void> {
  const body = await workspace.bodies.pack(draftFrom(blocks));
  await workspace.run(draft.assignmentId, words.undo.broughtIn, async (writing) => {
    const known = (await writing.get('drafts', draft.id)) ?? draft;
    const before = versionOf(workspace, known, 'before a file came in', known.bodyHash, null);
    const version = versionOf(
      workspace,
      { ...known, headVersionId: before.id },
      'brought in',
      body.hash,
      file.hash,
    );
    writing.putBody(body);
    writing.putBytes(file.hash, bytes);
    await writing.put('files', file);
    await writing.put('versions', before);
    await writing.put('versions', version);
    await writing.put('drafts', {
      ...known,
      bodyHash: body.hash,
      headVersionId: version.id,
      savedAt: workspace.now(),
    });
  });
}

import type { Workspace } from '../workspace.ts';
import type { PostPlace } from '#core/model/handed-in.ts';
import { asId, type AssignmentId, type FileHash, VersionId } from '#core/model/ids.ts';
import type { Draft, DraftContent, StoredFile, Version } from '#core/model/work.ts';
import { draftFrom } from '#core/paper/draft.ts';
import { blocksOfLines, type Block } from '#core/paper/paper.ts';
import * as words from '../../words/en.ts';
import type { Writing } from '../storage/transact.ts';
import { draftIdOf } from '#core/model/own-ids.ts';

export function newId(): string {
  return crypto.randomUUID();
}

function versionOf(
  workspace: Workspace,
  draft: Draft,
  why: Version['why'],
  bodyHash: FileHash | null,
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
    files: draft.files,
    post: draft.post,
    items: draft.items,
    fileHash,
  };
}

/**
 * Begins a draft from the text of a paper, or from nothing.
 * @param startedFrom the paper's file; null: from nothing
 */
export async function beginDraft(
  workspace: Workspace,
  assignmentId: AssignmentId,
  attemptNumber: number,
  startedFrom: FileHash | null,
  blocks: readonly Block[],
  post: PostPlace | null = null,
): Promise<void> {
  const body = await workspace.bodies.pack(draftFrom(blocks));
  await workspace.save(async (writing) => {
    const known = await draftFor(workspace, writing, assignmentId, attemptNumber);
    if (known.bodyHash !== null) return;
    const draft: Draft = { ...known, startedFrom, bodyHash: body.hash, post };
    const version = versionOf(workspace, draft, 'started', body.hash, null);
    writing.putBody(body);
    await writing.put('versions', version);
    await writing.put('drafts', { ...draft, headVersionId: version.id });
  });
}

/** The draft of an attempt; one with nothing in it where there is none. */
export async function draftFor(
  workspace: Workspace,
  writing: Writing,
  assignmentId: AssignmentId,
  attemptNumber: number,
): Promise<Draft> {
  const id = draftIdOf(assignmentId, attemptNumber);
  return (
    (await writing.get('drafts', id)) ?? {
      id,
      assignmentId,
      attemptNumber,
      startedFrom: null,
      bodyHash: null,
      files: [],
      post: null,
      items: {},
      note: '',
      headVersionId: null,
      savedAt: workspace.now(),
    }
  );
}

/** Begins a post: from a text, a line for each paragraph, and at its place in the thread. */
export async function beginPost(
  workspace: Workspace,
  assignmentId: AssignmentId,
  attemptNumber: number,
  text: string,
  post: PostPlace,
): Promise<void> {
  await beginDraft(workspace, assignmentId, attemptNumber, null, blocksOfLines(text), post);
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
    if (draft.bodyHash !== null && kept.every(({ bodyHash }) => bodyHash !== draft.bodyHash))
      writing.removeBody(draft.bodyHash);
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

/** Keeps an answer to an item of an activity; one without words is as if it were not answered again. */
export function answerItem(
  workspace: Workspace,
  assignmentId: AssignmentId,
  attemptNumber: number,
  itemId: string,
  text: string,
  typing?: string,
): Promise<void> {
  const work = async (writing: Writing) => {
    const draft = await draftFor(workspace, writing, assignmentId, attemptNumber);
    const others = Object.entries(draft.items).filter(([id]) => id !== itemId);
    const items = Object.fromEntries(text.trim() === '' ? others : [...others, [itemId, text]]);
    await writing.put('drafts', { ...draft, items, savedAt: workspace.now() });
  };
  return workspace.run(assignmentId, words.undo.itemAnswered, work, typing);
}

/** Says which post the new one answers, or which own one it takes the place of. */
export function placePost(workspace: Workspace, draft: Draft, post: PostPlace): Promise<void> {
  return workspace.run(draft.assignmentId, words.undo.postPlaced, async (writing) => {
    const known = await writing.get('drafts', draft.id);
    if (known !== null) await writing.put('drafts', { ...known, post });
  });
}

import type { Workspace } from '../workspace.ts';
import type { PostPlace } from '#core/model/handed-in.ts';
import { asId, type AssignmentId, type FileHash, VersionId } from '#core/model/ids.ts';
import type { Draft, DraftContent, StoredFile, Version } from '#core/model/work.ts';
import { draftFrom } from '#core/paper/begin-draft.ts';
import { blocksOfLines } from '#core/paper/paper.ts';
import * as words from '../../words/en.ts';
import type { Body } from '../storage/bodies.ts';
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
    name: '',
    bodyHash,
    files: draft.files,
    post: draft.post,
    items: draft.items,
    fileHash,
  };
}

/**
 * Begins a draft, from a paper or from nothing.
 * @param startedFrom the paper's file; null: from nothing
 */
export async function beginDraft(
  workspace: Workspace,
  assignmentId: AssignmentId,
  attemptNumber: number,
  startedFrom: FileHash | null,
  content: DraftContent,
  post: PostPlace | null = null,
): Promise<void> {
  const body = await workspace.bodies.pack(content);
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
      paperFile: null,
      note: '',
      headVersionId: null,
      savedAt: workspace.now(),
    }
  );
}

/**
 * The version that holds a text of the draft just as it is: one that is kept already, else one that is made. null where the
 * draft is gone.
 * @param body the document, put again in case it was written on since; null for a file
 */
export async function frozenAs(
  workspace: Workspace,
  writing: Writing,
  draftId: string,
  why: Version['why'],
  body: Body | null,
  textHash: FileHash,
): Promise<VersionId | null> {
  const draft = await writing.get('drafts', draftId);
  if (draft === null) return null;
  const holds = (one: Version) =>
    one.draftId === draftId && (body === null ? one.fileHash : one.bodyHash) === textHash;
  const known = (await writing.all('versions')).find(holds);
  if (known !== undefined) return known.id;
  const version = versionOf(workspace, draft, why, body?.hash ?? null, body === null ? textHash : null);
  if (body !== null) writing.putBody(body);
  await writing.put('versions', version);
  await writing.put('drafts', { ...draft, headVersionId: version.id });
  return version.id;
}

/** Begins a post: from a text, a line for each paragraph, and at its place in the thread. */
export async function beginPost(
  workspace: Workspace,
  assignmentId: AssignmentId,
  attemptNumber: number,
  text: string,
  post: PostPlace,
): Promise<void> {
  await beginDraft(workspace, assignmentId, attemptNumber, null, draftFrom(blocksOfLines(text)), post);
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

/**
 * Makes a file written elsewhere the draft, as it is: its text is followed, and the file itself is what goes. What was written
 * here, or the file before, is kept as the version before.
 */
export function bringInFile(
  workspace: Workspace,
  assignmentId: AssignmentId,
  attemptNumber: number,
  startedFrom: FileHash | null,
  file: StoredFile,
  bytes: Uint8Array<ArrayBuffer>,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.broughtIn, async (writing) => {
    let draft = await draftFor(workspace, writing, assignmentId, attemptNumber);
    if (draft.bodyHash === null && draft.paperFile === null) draft = { ...draft, startedFrom };
    else draft = await withVersion(workspace, writing, draft, 'before a file came in');
    writing.putBytes(file.hash, bytes);
    if ((await writing.get('files', file.hash)) === null) await writing.put('files', file);
    draft = { ...draft, bodyHash: null, paperFile: file.hash, savedAt: workspace.now() };
    await writing.put('drafts', await withVersion(workspace, writing, draft, 'brought in'));
  });
}

/** Puts down what the draft is now as a version, unless its last one is the same; the draft with that as its head. */
async function withVersion(
  workspace: Workspace,
  writing: Writing,
  draft: Draft,
  why: Version['why'],
): Promise<Draft> {
  const head = draft.headVersionId === null ? null : await writing.get('versions', draft.headVersionId);
  const isSame = head !== null && head.bodyHash === draft.bodyHash && head.fileHash === draft.paperFile;
  if (isSame) return draft;
  const version = versionOf(workspace, draft, why, draft.bodyHash, draft.paperFile);
  await writing.put('versions', version);
  return { ...draft, headVersionId: version.id };
}

/** Puts down as a version what the last stretch of work left, where that isn't one yet: nothing to be undone, it changes nothing. */
export function beginStretch(workspace: Workspace, draftId: string): Promise<void> {
  return workspace.save(async (writing) => {
    const draft = await writing.get('drafts', draftId);
    if (draft === null) return;
    const next = await withVersion(workspace, writing, draft, 'stretch');
    if (next !== draft) await writing.put('drafts', next);
  });
}

/** Goes on writing here what was a file: its text becomes a document of the editor; the file stays as a version. */
export async function writeOnHere(workspace: Workspace, draft: Draft, content: DraftContent): Promise<void> {
  const body = await workspace.bodies.pack(content);
  await workspace.run(draft.assignmentId, words.undo.writtenOn, async (writing) => {
    const known = await writing.get('drafts', draft.id);
    if (known === null) return;
    writing.putBody(body);
    const next = { ...known, bodyHash: body.hash, paperFile: null, savedAt: workspace.now() };
    await writing.put('drafts', await withVersion(workspace, writing, next, 'started'));
  });
}

/** Changes the text of a draft that is written here, as one step; what was there is kept as a version. */
export async function changeDraft(
  workspace: Workspace,
  draftId: string,
  label: string,
  change: (content: DraftContent) => DraftContent,
): Promise<void> {
  const draft = workspace.records.drafts.get(draftId);
  const content = await workspace.bodies.load(draft?.bodyHash ?? null);
  if (draft === undefined || content === null) return;
  const body = await workspace.bodies.pack(change(content));
  await workspace.run(draft.assignmentId, label, async (writing) => {
    const known = await writing.get('drafts', draftId);
    // It was written on in another tab meanwhile.
    if (known === null || known.bodyHash !== draft.bodyHash) return;
    writing.putBody(body);
    const kept = await withVersion(workspace, writing, known, 'stretch');
    await writing.put('drafts', { ...kept, bodyHash: body.hash, savedAt: workspace.now() });
  });
}

/** Goes back to a version; what is there now is kept as a version of its own. */
export function goBackTo(workspace: Workspace, draft: Draft, versionId: VersionId): Promise<void> {
  return workspace.run(draft.assignmentId, words.undo.wentBack, async (writing) => {
    const known = await writing.get('drafts', draft.id);
    const version = await writing.get('versions', versionId);
    if (known === null || version === null) return;
    const kept = await withVersion(workspace, writing, known, 'before going back');
    await writing.put('drafts', {
      ...kept,
      bodyHash: version.bodyHash,
      paperFile: version.bodyHash === null ? version.fileHash : null,
      headVersionId: version.id,
      savedAt: workspace.now(),
    });
  });
}

/** Gives a version a name of the student's own. */
export function nameVersion(workspace: Workspace, version: Version, name: string): Promise<void> {
  return workspace.run(version.assignmentId, words.undo.versionNamed, async (writing) => {
    const known = await writing.get('versions', version.id);
    if (known !== null) await writing.put('versions', { ...known, name: name.trim() });
  });
}

/** Keeps what the draft is now as a version with a name. */
export function keepVersion(workspace: Workspace, draft: Draft, name: string): Promise<void> {
  return workspace.run(draft.assignmentId, words.undo.versionKept, async (writing) => {
    const known = await writing.get('drafts', draft.id);
    if (known === null) return;
    const kept = await withVersion(workspace, writing, known, 'stretch');
    await writing.put('drafts', kept);
    const version = kept.headVersionId === null ? null : await writing.get('versions', kept.headVersionId);
    if (version !== null) await writing.put('versions', { ...version, name: name.trim() });
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

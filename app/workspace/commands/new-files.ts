import { placeIn, shareIn, type PictureSize } from '#core/check/picture-places.ts';
import type { AssignmentId, FileHash } from '#core/model/ids.ts';
import type { Draft, StoredFile } from '#core/model/work.ts';
import { placeAfter, type PictureEdit } from '#core/picture/edit.ts';
import { hashOf } from '#formats/hash.ts';
import * as words from '../../words/en.ts';
import type { Writing } from '../storage/transact.ts';
import type { Workspace } from '../workspace.ts';
import { draftFor } from './draft.ts';

/** New files towards the next attempt: brought in, put in order, taken out. */

export interface NewFile {
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** Brings files in, behind those that are there; one that is there already stays where it is. */
export async function addFiles(
  workspace: Workspace,
  assignmentId: AssignmentId,
  attemptNumber: number,
  files: readonly NewFile[],
): Promise<void> {
  const hashed = await Promise.all(files.map(async (file) => ({ ...file, hash: await hashOf(file.bytes) })));
  const label = words.undo.filesAdded(files.length);
  await workspace.run(assignmentId, label, async (writing) => {
    const draft = await draftFor(workspace, writing, assignmentId, attemptNumber);
    for (const file of hashed) await keepFile(workspace, writing, assignmentId, file);
    const all = [...new Set([...draft.files, ...hashed.map(({ hash }) => hash)])];
    await writing.put('drafts', { ...draft, files: all, savedAt: workspace.now() });
  });
}

/** Keeps a file that came in, unless it is there already. */
export async function keepFile(
  workspace: Workspace,
  writing: Writing,
  assignmentId: StoredFile['assignmentId'],
  { hash, name, mediaType, bytes }: NewFile & { readonly hash: FileHash },
  role: StoredFile['role'] = 'version',
): Promise<void> {
  writing.putBytes(hash, bytes);
  // What the workspace has already is that file, whatever it is called now.
  if ((await writing.get('files', hash)) !== null) return;
  await writing.put('files', {
    hash,
    name,
    mediaType,
    size: bytes.length,
    cameAt: workspace.now(),
    origin: 'dropped',
    assignmentId,
    role,
    aboutHash: null,
  });
}

/** Replaces a picture by what cutting or turning made of it; places that were shown on it go along. */
export async function replaceByEdited(
  workspace: Workspace,
  draft: Draft,
  old: FileHash,
  file: NewFile & { readonly was: PictureSize; readonly size: PictureSize; readonly edit: PictureEdit },
): Promise<FileHash> {
  const hash = await hashOf(file.bytes);
  await workspace.run(draft.assignmentId, words.undo.pictureEdited, async (writing) => {
    const known = await writing.get('drafts', draft.id);
    if (known === null) return;
    await keepFile(workspace, writing, draft.assignmentId, { ...file, hash });
    const files = known.files.map((one) => (one === old ? hash : one));
    await writing.put('drafts', { ...known, files, savedAt: workspace.now() });
    for (const answer of await writing.all('answers')) {
      if (!answer.regions.some(({ fileHash }) => fileHash === old)) continue;
      const regions = answer.regions.flatMap((place) => {
        if (place.fileHash !== old) return [place];
        const moved = placeAfter(shareIn(place, file.was), file.edit);
        return moved === null ? [] : [placeIn(hash, moved, file.size)];
      });
      await writing.put('answers', { ...answer, regions });
    }
  });
  return hash;
}

/** Replaces several files by the one that was made of them; they stay on the Shelf. */
export async function joinFiles(
  workspace: Workspace,
  draft: Draft,
  joined: readonly FileHash[],
  file: NewFile,
): Promise<void> {
  const hash = await hashOf(file.bytes);
  const parts = new Set(joined);
  await workspace.run(draft.assignmentId, words.undo.filesJoined(joined.length), async (writing) => {
    const known = await writing.get('drafts', draft.id);
    if (known === null) return;
    await keepFile(workspace, writing, draft.assignmentId, { ...file, hash });
    const first = known.files.findIndex((one) => parts.has(one));
    const files = known.files.toSpliced(first, 0, hash).filter((one) => !parts.has(one));
    await writing.put('drafts', { ...known, files, savedAt: workspace.now() });
  });
}

/** Takes a file out of what goes; it stays on the Shelf. */
export function takeFileOut(workspace: Workspace, draft: Draft, hash: FileHash): Promise<void> {
  return changeFiles(workspace, draft, words.undo.fileTakenOut, (files) =>
    files.filter((one) => one !== hash),
  );
}

/** Puts the files that go in an order; one that came meanwhile stays at the end. */
export function orderFiles(workspace: Workspace, draft: Draft, order: readonly string[]): Promise<void> {
  return changeFiles(workspace, draft, words.undo.filesOrdered, (files) => {
    const place = (hash: FileHash) => (order.includes(hash) ? order.indexOf(hash) : order.length);
    return [...files].sort((one, other) => place(one) - place(other));
  });
}

function changeFiles(
  workspace: Workspace,
  draft: Draft,
  label: string,
  how: (files: readonly FileHash[]) => readonly FileHash[],
): Promise<void> {
  return workspace.run(draft.assignmentId, label, async (writing) => {
    const known = await writing.get('drafts', draft.id);
    if (known !== null)
      await writing.put('drafts', { ...known, files: [...how(known.files)], savedAt: workspace.now() });
  });
}

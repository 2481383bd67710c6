import type { AssignmentId, FileHash } from '#core/model/ids.ts';
import type { Draft } from '#core/model/work.ts';
import { hashOf } from '#formats/hash.ts';
import * as words from '../../words/en.ts';
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
    for (const { hash, name, mediaType, bytes } of hashed) {
      // What the workspace has already is that file, whatever it is called now.
      if ((await writing.get('files', hash)) !== null) continue;
      writing.putBytes(hash, bytes);
      await writing.put('files', {
        hash,
        name,
        mediaType,
        size: bytes.length,
        cameAt: workspace.now(),
        origin: 'dropped',
        assignmentId,
        role: 'version',
        aboutHash: null,
      });
    }
    const all = [...new Set([...draft.files, ...hashed.map(({ hash }) => hash)])];
    await writing.put('drafts', { ...draft, files: all, savedAt: workspace.now() });
  });
}

/** Takes a file out of what goes; it stays on the Shelf. */
export function takeFileOut(workspace: Workspace, draft: Draft, hash: FileHash): Promise<void> {
  return changeFiles(workspace, draft, words.undo.fileTakenOut, (files) =>
    files.filter((one) => one !== hash),
  );
}

/** Moves a file up or down among those that go. */
export function moveFile(workspace: Workspace, draft: Draft, hash: FileHash, by: -1 | 1): Promise<void> {
  return changeFiles(workspace, draft, words.undo.filesOrdered, (files) => {
    const at = files.indexOf(hash);
    const to = at + by;
    if (at < 0 || to < 0 || to >= files.length) return files;
    return files.toSpliced(at, 1).toSpliced(to, 0, hash);
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

import type { DraftContent, StoredFile } from '#core/model/work.ts';
import type { ReadDraft } from '#formats/read-as-draft.ts';
import type { Workspace } from '../../../workspace/workspace.ts';
import { keepPicture } from '../../../shared/editor/pictures.ts';

/** A file as a document of the editor, its pictures kept here, and what of it the editor can't hold. */
export interface FileAsDraft {
  readonly content: DraftContent;
  readonly notHeld: ReadDraft['notHeld'];
}

/** Keeps the pictures of a file that was read as a draft, and names them in the document by their hash. */
export async function draftFromFile(
  workspace: Workspace,
  assignmentId: StoredFile['assignmentId'],
  { content, pictures, notHeld }: ReadDraft,
): Promise<FileAsDraft> {
  const hashes = new Map<string, string>();
  for (const picture of pictures)
    hashes.set(picture.name, await keepPicture(workspace, assignmentId, picture));
  const named = (node: unknown): unknown => {
    if (Array.isArray(node)) return node.map(named);
    if (typeof node !== 'object' || node === null) return node;
    return Object.fromEntries(
      Object.entries(node).map(([key, value]) => [
        key,
        key === 'hash' && typeof value === 'string' ? (hashes.get(value) ?? value) : named(value),
      ]),
    );
  };
  return { content: { schema: 1, doc: named(content.doc) as Record<string, unknown> }, notHeld };
}

import { asId, FileHash } from '#core/model/ids.ts';
import type { StoredFile } from '#core/model/work.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { keepFile, type NewFile } from '../../workspace/commands/new-files.ts';
import { hashOf } from '#formats/hash.ts';

/** Addresses of pictures that are kept here, made once each for as long as the page. */
export function urlsOf(workspace: Workspace): (hash: string) => Promise<string | null> {
  const made = new Map<string, Promise<string | null>>();
  const make = async (hash: string) => {
    const bytes = await workspace.fileBytes(asId(FileHash, hash));
    const mediaType = workspace.records.files.get(hash)?.mediaType ?? '';
    return bytes === null ? null : URL.createObjectURL(new Blob([bytes], { type: mediaType }));
  };
  return (hash) => {
    const known = made.get(hash) ?? make(hash);
    made.set(hash, known);
    return known;
  };
}

/** Keeps a picture that stands in a draft. */
export async function keepPicture(
  workspace: Workspace,
  assignmentId: StoredFile['assignmentId'],
  picture: NewFile,
): Promise<FileHash> {
  const hash = await hashOf(picture.bytes);
  await workspace.save((writing) =>
    keepFile(workspace, writing, assignmentId, { hash, ...picture }, 'figure'),
  );
  return hash;
}

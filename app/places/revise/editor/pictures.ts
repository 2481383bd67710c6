import { asId, FileHash } from '#core/model/ids.ts';
import type { StoredFile } from '#core/model/work.ts';
import type { Workspace } from '../../../workspace/workspace.ts';
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
  { name, mediaType, bytes }: Pick<StoredFile, 'name' | 'mediaType'> & { bytes: Uint8Array<ArrayBuffer> },
): Promise<FileHash> {
  const hash = await hashOf(bytes);
  await workspace.save(async (writing) => {
    writing.putBytes(hash, bytes);
    if ((await writing.get('files', hash)) !== null) return;
    await writing.put('files', {
      hash,
      name,
      mediaType,
      size: bytes.length,
      cameAt: workspace.now(),
      origin: 'dropped',
      assignmentId,
      role: 'figure',
      aboutHash: null,
    });
  });
  return hash;
}

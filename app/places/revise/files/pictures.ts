import { useEffect, useState } from 'react';
import { fittedByWidth, type Alignment } from '#core/picture/align.ts';
import type { PictureSize } from '#core/check/picture-places.ts';
import type { Sharpness } from '#core/picture/sharpness.ts';
import type { StoredFile } from '#core/model/work.ts';
import { reader } from '../../../workers/clients.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';

export function isPicture(mediaType: string): boolean {
  return mediaType.startsWith('image/');
}

/** How sharp a kept picture is; null for other files, and until it was looked at. */
export function useSharpness({ hash, mediaType }: StoredFile): Sharpness | null {
  const workspace = useWorkspace();
  const [found, setFound] = useState<{ readonly of: string; readonly is: Sharpness } | null>(null);
  const wanted = isPicture(mediaType);
  useEffect(() => {
    if (!wanted) return;
    const over = new AbortController();
    const isOver = () => over.signal.aborted;
    const look = async () => {
      const bytes = await workspace.fileBytes(hash);
      if (bytes === null || isOver()) return;
      const read = await reader.ask((worker) => worker.sharpnessIn(bytes));
      if (read.kind === 'read' && !isOver()) setFound({ of: hash, is: read.value });
    };
    void look();
    return () => over.abort();
  }, [hash, wanted, workspace]);
  return found?.of === hash ? found.is : null;
}

/** Where the marked picture lies on the new one; by its width until that is found. null while their sizes aren't known. */
export function useAlignment(
  older: { readonly hash: string; readonly size: PictureSize | null } | null,
  newer: { readonly hash: string; readonly size: PictureSize | null } | null,
): Alignment | null {
  const workspace = useWorkspace();
  const [found, setFound] = useState<{ readonly of: string; readonly is: Alignment } | null>(null);
  const [from, to] = [older?.hash ?? null, newer?.hash ?? null];
  const key = `${from} ${to}`;
  useEffect(() => {
    if (from === null || to === null) return;
    const over = new AbortController();
    const isOver = () => over.signal.aborted;
    const look = async () => {
      const [old, anew] = await Promise.all([workspace.fileBytes(from), workspace.fileBytes(to)]);
      if (old === null || anew === null || isOver()) return;
      const read = await reader.ask((worker) => worker.alignPictures(old, anew));
      if (read.kind === 'read' && !isOver()) setFound({ of: `${from} ${to}`, is: read.value });
    };
    void look();
    return () => over.abort();
  }, [from, to, workspace]);
  if (found?.of === key) return found.is;
  return older?.size == null || newer?.size == null
    ? null
    : { place: fittedByWidth(older.size, newer.size), sure: false };
}

import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { useEffect, useState } from 'react';
import type { FileHash } from '#core/model/ids.ts';

/** An address for a kept file, as long as it is shown; null until it is there. */
export function useFileUrl(hash: string): string | null {
  const workspace = useWorkspace();
  const [url, setUrl] = useState<string | null>(null);
  const mediaType = useWorkspaceState((state) => state.records.files.get(hash)?.mediaType ?? '');
  useEffect(() => {
    let made: string | null = null;
    let over = false;
    void workspace.fileBytes(hash).then((bytes) => {
      if (bytes === null || over) return;
      made = URL.createObjectURL(new Blob([bytes], { type: mediaType }));
      setUrl(made);
    });
    return () => {
      over = true;
      if (made !== null) URL.revokeObjectURL(made);
      setUrl(null);
    };
  }, [hash, mediaType, workspace]);
  return url;
}

/** The bytes of a kept file; null until they are there. */
export function useFileBytes(hash: FileHash): Uint8Array<ArrayBuffer> | null {
  const workspace = useWorkspace();
  const [found, setFound] = useState<{ readonly of: string; readonly bytes: Uint8Array<ArrayBuffer> } | null>(
    null,
  );
  useEffect(() => {
    const over = new AbortController();
    void workspace.fileBytes(hash).then((bytes) => {
      if (bytes !== null && !over.signal.aborted) setFound({ of: hash, bytes });
    });
    return () => over.abort();
  }, [hash, workspace]);
  return found?.of === hash ? found.bytes : null;
}

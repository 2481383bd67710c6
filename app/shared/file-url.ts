import { useEffect, useState } from 'react';
import { fileBytes, useWorkspace } from '../workspace/workspace.ts';

/** An address for a kept file, as long as it is shown; null until it is there. */
export function useFileUrl(hash: string): string | null {
  const [url, setUrl] = useState<string | null>(null);
  const mediaType = useWorkspace((state) => state.records.files.get(hash)?.mediaType ?? '');
  useEffect(() => {
    let made: string | null = null;
    let over = false;
    void fileBytes(hash).then((bytes) => {
      if (bytes === null || over) return;
      made = URL.createObjectURL(new Blob([bytes], { type: mediaType }));
      setUrl(made);
    });
    return () => {
      over = true;
      if (made !== null) URL.revokeObjectURL(made);
      setUrl(null);
    };
  }, [hash, mediaType]);
  return url;
}

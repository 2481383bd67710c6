import { useEffect, useState } from 'react';
import type { FileHash } from '#core/model/ids.ts';
import { WorkerStopped } from '../../workers/worker-client.ts';
import type { ReadResult } from '../../workers/protocol.ts';
import { useWorkspace, useWorkspaceState } from '../use-workspace.ts';

/** What some kept files hold, in their order; null while they are read. Those that can't be read, or are not here, are left out. */
export function useReadAgain<Value>(
  hashes: readonly FileHash[],
  read: (bytes: Uint8Array) => Promise<ReadResult<Value>>,
): readonly Value[] | null {
  const workspace = useWorkspace();
  const [known, know] = useState<{ readonly of: string; readonly values: readonly Value[] } | null>(null);
  // One that comes later is read when it is here.
  const of = useWorkspaceState(({ records }) => hashes.filter((hash) => records.files.has(hash)).join(' '));
  useEffect(() => {
    let over = false;
    const readOne = async (hash: string): Promise<Value[]> => {
      const bytes = await workspace.fileBytes(hash);
      const result = bytes === null ? null : await read(bytes);
      return result?.kind === 'read' ? [result.value] : [];
    };
    Promise.all(of.split(' ').filter(Boolean).map(readOne))
      .then((values) => {
        if (!over) know({ of, values: values.flat() });
      })
      .catch((error: unknown) => {
        if (!(error instanceof WorkerStopped)) throw error;
        if (!over) know({ of, values: [] });
      });
    return () => {
      over = true;
    };
  }, [of, read, workspace]);
  return known?.of === of ? known.values : null;
}

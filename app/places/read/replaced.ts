import { useState } from 'react';
import type { AssignmentId, FileHash } from '#core/model/ids.ts';
import type { PaperFile } from '#core/assignment/papers.ts';
import { usePaper } from '../../workspace/state/papers.ts';
import type { ReadPaper } from '../../workspace/storage/records.ts';

interface Showing {
  readonly assignmentId: AssignmentId;
  readonly hash: string;
  /** The hash of the first form of the file that is shown. */
  readonly key: string;
  readonly paper: ReadPaper | null;
}

/**
 * The paper of a file. One that came back changed while it is read takes the place of its older form only once it was
 * read itself; until then the older one stands under its name.
 * @returns the paper, the hash of the older form while that stands, and a key that stays the same over the forms of one file
 */
export function useShownPaper(
  assignmentId: AssignmentId,
  file: PaperFile | null,
  files: readonly PaperFile[],
): { readonly paper: ReadPaper | null; readonly older: FileHash | null; readonly key: string } {
  const read = usePaper(file?.hash ?? null);
  const [showing, show] = useState<Showing | null>(null);
  if (file === null) return { paper: null, older: null, key: '' };
  const { hash } = file;
  const before = showing?.assignmentId === assignmentId ? showing : null;
  const takesPlace =
    before !== null && before.hash !== hash && !files.some((one) => one.hash === before.hash);
  const stays = before !== null && (before.hash === hash || takesPlace);
  const now: Showing = {
    assignmentId,
    hash,
    key: stays ? before.key : hash,
    paper: read ?? (stays ? before.paper : null),
  };
  if (showing === null || before === null || before.hash !== hash || before.paper !== now.paper) show(now);
  const { paper, key } = now;
  if (read !== null || paper === null) return { paper, older: null, key };
  return { paper: { ...paper, hash }, older: paper.hash, key };
}

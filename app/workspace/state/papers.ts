import { useWorkspace, useWorkspaceState } from '../use-workspace.ts';
import type { Workspace } from '../workspace.ts';
import { useEffect, useState } from 'react';
import type { FileHash } from '#core/model/ids.ts';
import type { Remark } from '#core/model/remark.ts';
import { READER_VERSION, type Anchor, type Mark } from '#formats/marked-paper.ts';
import { remarksOfMarks, type MarkContext } from '#formats/remarks.ts';
import { reader } from '../../workers/clients.ts';
import { WorkerStopped } from '../../workers/worker-client.ts';
import type { ReadPaper } from '../storage/records.ts';
import { matchReturned } from '../desk/returned.ts';
import { readPaperOf } from '../commands/read-files.ts';

/** A paper's text and anchors: as kept, or derived again from its bytes. null where the file isn't here. */
export async function paperFor(workspace: Workspace, hash: FileHash): Promise<ReadPaper | null> {
  const kept = await workspace.readPaper(hash);
  if (kept !== null && kept.readerVersion === READER_VERSION) return kept;
  const bytes = await workspace.fileBytes(hash);
  if (bytes === null) return null;
  const result = await reader.ask((worker) => worker.readPaper(bytes));
  if (result.kind === 'unreadable') return null;
  const onIt = [...workspace.records.remarks.values()].filter((remark) => remark.paperHash === hash);
  let anchors = anchorsOf(
    result.value.marks,
    onIt.filter((remark) => remark.fileHash === hash),
  );
  for (const own of new Set(
    onIt.flatMap(({ fileHash }) => (fileHash === null || fileHash === hash ? [] : [fileHash])),
  )) {
    const marksBytes = await workspace.fileBytes(own);
    const marks =
      marksBytes === null ? null : await reader.ask((worker) => worker.readRemarksOnto(marksBytes, bytes));
    if (marks?.kind === 'read')
      anchors = {
        ...anchors,
        ...anchorsOf(
          marks.value,
          onIt.filter((remark) => remark.fileHash === own),
        ),
      };
  }
  const read = readPaperOf(hash, result.value, anchors);
  await workspace.save((writing) => {
    writing.putPaper(read);
    return Promise.resolve();
  });
  return read;
}

/** Anchors of marks that were read again, for the remarks that they are. */
function anchorsOf(marks: readonly Mark[], remarks: readonly Remark[]): Record<string, Anchor> {
  const [first] = remarks;
  if ((first as Remark | undefined) === undefined || first.fileHash === null) return {};
  const { assignmentId, attemptId, markingId, fileHash, paperHash } = first;
  const context = {
    assignmentId,
    attemptId,
    markingId,
    fileHash,
    paperHash: paperHash ?? fileHash,
    marker: null,
    channel: first.channel as MarkContext['channel'],
    people: [],
    rubric: null,
  };
  const read = remarksOfMarks(marks, context);
  // A remark that was matched to one of an older form of the file goes by the older one's name.
  const { idBefore } = matchReturned(remarks, read.remarks);
  return Object.fromEntries(
    Object.entries(read.anchors).map(([id, anchor]) => [idBefore.get(id) ?? id, anchor]),
  );
}

/** What the reader dies over again and again is not shown. */
function notReadable(error: unknown): null {
  if (error instanceof WorkerStopped) return null;
  throw error;
}

/** The paper of a kept file; null while it is being read, and where there is none. */
export function usePaper(hash: FileHash | null): ReadPaper | null {
  const workspace = useWorkspace();
  const [paper, setPaper] = useState<ReadPaper | null>(null);
  const isHere = useWorkspaceState((state) => hash !== null && state.records.files.has(hash));
  const placed = useWorkspaceState((state) => state.records.remarks);
  useEffect(() => {
    let over = false;
    if (hash === null || !isHere) return;
    const open = async () => {
      const read = await paperFor(workspace, hash).catch(notReadable);
      if (!over) setPaper(read);
    };
    void open();
    return () => {
      over = true;
    };
  }, [hash, isHere, placed, workspace]);
  return paper?.hash === hash ? paper : null;
}

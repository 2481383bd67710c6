import { useEffect, useState } from 'react';
import type { FileHash } from '#core/model/ids.ts';
import { PDF_READER_VERSION } from '#formats/pdf/marked-pdf.ts';
import { remarksOfMarkedPdf } from '#formats/pdf/remarks.ts';
import { readerInWorker } from '../workers/reader-client.ts';
import type { ReadPaper } from './records.ts';
import { fileBytes, readPaper, save, useWorkspace } from './workspace.ts';

/** A paper's text and anchors: as kept, or derived again from its bytes. null where the file isn't here. */
async function paperFor(hash: FileHash): Promise<ReadPaper | null> {
  const kept = await readPaper(hash);
  if (kept !== null && kept.readerVersion === PDF_READER_VERSION) return kept;
  const bytes = await fileBytes(hash);
  const { markings, assignments, rubrics } = useWorkspace.getState().records;
  const marking = [...markings.values()].find((m) => m.files.some((file) => file.hash === hash));
  if (bytes === null || marking === undefined) return null;
  const pdf = await readerInWorker().readMarkedPdf(bytes);
  if (pdf.kind === 'unreadable') return null;
  const { anchors } = remarksOfMarkedPdf(pdf.value, {
    assignmentId: marking.assignmentId,
    attemptId: marking.attemptId,
    markingId: marking.id,
    fileHash: hash,
    marker: marking.marker,
    rubric: rubrics.get(assignments.get(marking.assignmentId)?.rubricId ?? '') ?? null,
  });
  const { pages, paper } = pdf.value;
  const read: ReadPaper = { hash, readerVersion: PDF_READER_VERSION, pages, paper, anchors };
  await save((writing) => {
    writing.putPaper(read);
    return Promise.resolve();
  });
  return read;
}

/** The paper of a marked file; null while it is being read, and where there is none. */
export function usePaper(hash: FileHash | null): ReadPaper | null {
  const [paper, setPaper] = useState<ReadPaper | null>(null);
  const isHere = useWorkspace((state) => hash !== null && state.records.files.has(hash));
  useEffect(() => {
    let over = false;
    if (hash === null || !isHere) return;
    void paperFor(hash).then((read) => {
      if (!over) setPaper(read);
    });
    return () => {
      over = true;
    };
  }, [hash, isHere]);
  return paper?.hash === hash ? paper : null;
}

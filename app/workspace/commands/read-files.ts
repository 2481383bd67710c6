import type { FileHash } from '#core/model/ids.ts';
import { READER_VERSION, type Anchor, type MarkedPaper } from '#formats/marked-paper.ts';
import type { ReadPaper } from '../storage/records.ts';
import type { Writing } from '../storage/transact.ts';

/** What was read from files, as it is kept. */

/** A paper's text and anchors. */
export function readPaperOf(
  hash: FileHash,
  { kind, pages, pageStarts, paper, layout, unknownKinds }: MarkedPaper,
  anchors: Readonly<Record<string, Anchor>>,
): ReadPaper {
  return {
    hash,
    readerVersion: READER_VERSION,
    kind,
    pages,
    pageStarts,
    paper,
    layout,
    anchors,
    unknownKinds,
  };
}

/** The words of a recording that came without them. */
export async function addTranscript(
  writing: Writing,
  recording: FileHash | null,
  text: string,
): Promise<void> {
  for (const remark of await writing.all('remarks'))
    if (remark.paperHash === recording && remark.kind === 'recording' && remark.text === '')
      await writing.put('remarks', { ...remark, text });
}

import type { Span } from '#core/anchors/locate.ts';
import type { Outcome } from '#core/anchors/outcome.ts';
import type { ResponseSheet } from '#core/check/response-sheet.ts';
import type { Comparison } from '#core/difference/display.ts';
import type { RichBlock } from '#core/paper/draft.ts';
import type { Paper } from '#core/paper/paper.ts';
import type { WordText } from '#formats/docx/read-docx.ts';
import type { Payload } from '#formats/bag/bag.ts';
import type { MarkedPdf } from '#formats/pdf/marked-pdf.ts';
import type { UnreadableReason } from '#formats/unreadable.ts';

/** What the workers take and give. Files that can't be read cross as values. */
export type ReadResult<T> =
  | { readonly kind: 'read'; readonly value: T }
  | { readonly kind: 'unreadable'; readonly reason: UnreadableReason; readonly detail: string };

export interface ReaderWorker {
  readMarkedPdf(
    bytes: Uint8Array,
    progress: (done: number, of: number) => void,
  ): Promise<ReadResult<MarkedPdf>>;
  readDocx(bytes: Uint8Array): Promise<ReadResult<WordText>>;
  readBag(bytes: Uint8Array): Promise<ReadResult<Payload>>;
  writeDraftDocx(blocks: readonly RichBlock[], title: string): Promise<Uint8Array<ArrayBuffer>>;
  writeResponseSheetDocx(sheet: ResponseSheet): Promise<Uint8Array<ArrayBuffer>>;
  writeBag(root: string, payload: Payload, date: string): Promise<Uint8Array<ArrayBuffer>>;
}

export interface TextWorker {
  /** What became of passages of one paper in another; remembers the older paper by its key. */
  follow(olderKey: string, older: Paper, newer: Paper, passages: readonly Span[]): Outcome[];
  compare(older: Paper, newer: Paper): Comparison;
}

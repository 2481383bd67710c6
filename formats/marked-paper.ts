import type { Span } from '#core/text/span.ts';
import type { DecimalString, Instant } from '#core/model/ids.ts';
import type { Change, Target } from '#core/model/remark.ts';
import type { Layout } from '#core/paper/layout.ts';
import type { Paper } from '#core/paper/paper.ts';

/** A marked paper as it was read, whatever its format. The readers stand apart, since they bring large libraries along. */

/** Raised when the same bytes would be read to other text or anchors, so that kept results are computed again. */
export const READER_VERSION = 8;

/** Where a remark hangs in the paper's text: its very words, or the paragraph nearest to it. */
export interface Anchor extends Span {
  readonly exactly: boolean;
}

/** An answer within the file, nested as there. */
export interface MarkReply {
  readonly author: string;
  readonly at: Instant | null;
  readonly text: string;
  readonly replies: readonly MarkReply[];
}

/** One remark as its file has it. */
export interface Mark {
  /** The source's own id (annotation NM, comment id, IRI); null where it has none. */
  readonly sourceId: string | null;
  /** The format's own name in lower case: highlight, strikeout, comment, insertion ... */
  readonly kind: string;
  readonly author: string;
  /** The file itself says that no person wrote it. */
  readonly byMachine: boolean;
  readonly at: Instant | null;
  /** #rrggbb; null where the format or the mark has none. */
  readonly color: string | null;
  readonly text: string;
  readonly subject: string | null;
  /** What it was marked with; not there where no points stand beside it. */
  readonly points?: DecimalString | null;
  /** What it is about, at least one. */
  readonly targets: readonly Target[];
  /** In the paper's text; null where it hangs on nothing there. */
  readonly anchor: Anchor | null;
  /** Where in the text it is come to by reading, where that isn't the anchor's beginning. */
  readonly textAt?: number | null;
  readonly replies: readonly MarkReply[];
  /** The last state, in the source's own word. */
  readonly state: string | null;
  readonly change: Change | null;
}

/** A page as it is shown at 72 dots to the inch, and how PDF points become places on it (a b c d e f). */
export interface PageSize {
  readonly width: number;
  readonly height: number;
  readonly transform: readonly number[];
}

/** A file that is attached to a paper. */
export interface AttachedFile {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** What a paper is shown as. */
export type PaperKind = 'pdf' | 'docx' | 'odt' | 'text' | 'picture' | 'quiz' | 'posts';

/** A paper as any reader gives it: its text, how it looks, and the marks on it. */
export interface MarkedPaper {
  readonly kind: PaperKind;
  /** Empty for a paper without pages of its own. */
  readonly pages: readonly PageSize[];
  /** For each page the offset in the paper's text from which on words stand on it; empty without pages. */
  readonly pageStarts: readonly number[];
  readonly paper: Paper;
  /** What a paper without pages is shown from; null for PDF and pictures. */
  readonly layout: Layout | null;
  readonly marks: readonly Mark[];
  /** Kinds of annotation that are not known, each once. */
  readonly unknownKinds: readonly string[];
  readonly attached: readonly AttachedFile[];
  /** It is a copy with remarks that Juncture wrote, which somebody may have added to. */
  readonly isOwnCopy?: boolean;
}

/** The words that a mark is about, as the source says it; null where it hangs on none. */
export function exactOf(mark: Mark): string | null {
  const exact = mark.targets.flatMap((target) =>
    target.kind === 'words' && target.quote.exact !== '' ? [target.quote.exact] : [],
  );
  return exact.length === 0 ? null : exact.join(' ');
}

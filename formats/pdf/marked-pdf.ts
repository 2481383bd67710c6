import type { Span } from '#core/anchors/locate.ts';
import type { Instant } from '#core/model/ids.ts';
import type { TextQuote } from '#core/model/remark.ts';
import type { Paper } from '#core/paper/paper.ts';

/** A marked PDF as it was read. What reads it stands apart, since it brings a large library along. */

/** Raised when the same bytes would be read to other text or anchors, so that kept results are computed again. */
export const PDF_READER_VERSION = 1;

/** Where a remark hangs in the paper's text: its very words, or the paragraph nearest to it. */
export interface Anchor extends Span {
  readonly exactly: boolean;
}

/** One annotation of a marked PDF. */
export interface Mark {
  /** The annotation's own name (NM); null where it has none. */
  readonly sourceId: string | null;
  /** The format's name in lower case: highlight, strikeout, text ... */
  readonly kind: string;
  readonly page: number;
  readonly rect: readonly number[];
  readonly quads: readonly (readonly number[])[];
  /** The words under it with their context; null where it hangs on none. */
  readonly quote: TextQuote | null;
  readonly text: string;
  readonly author: string;
  readonly at: Instant | null;
  readonly color: string | null;
  readonly subject: string | null;
  readonly anchor: Anchor | null;
}

/** A page as it is shown at 72 dots to the inch, and how PDF points become places on it (a b c d e f). */
export interface PageSize {
  readonly width: number;
  readonly height: number;
  readonly transform: readonly number[];
}

export interface MarkedPdf {
  readonly pages: readonly PageSize[];
  readonly paper: Paper;
  readonly marks: readonly Mark[];
  /** Kinds of annotation that are not known, each once. */
  readonly unknownKinds: readonly string[];
}

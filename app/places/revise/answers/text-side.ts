import type { Span } from '#core/text/span.ts';
import type { Taken } from '../../../workspace/commands/answer.ts';

/** What the list of remarks asks of the draft beside it, written here or in a file. */
export interface TextSide {
  /** Brings a place of the draft's text into sight. */
  readonly show: (place: Span) => void;
  /** The words that are chosen in the draft; null for none, and while the text that they stand in is not followed yet. */
  readonly chosen: () => Taken | null;
  /**
   * Puts words in the stead of a place of the draft's text; false where that text isn't the one that is written any more. null
   * where the draft is a file that is written elsewhere.
   */
  readonly put: ((place: Span, words: string) => boolean) | null;
}

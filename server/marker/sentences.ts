import { sentenceSpans } from '#core/text/sentences.ts';
import { wordKeysOf } from '#core/text/words.ts';

export interface Sentence {
  readonly text: string;
  /** Where it begins and ends in the whole text. */
  readonly from: number;
  readonly to: number;
  /** Its words in comparable form. */
  readonly keys: readonly string[];
}

/** The sentences of a text; headings count as sentences of their own. */
export function sentencesOf(text: string): Sentence[] {
  return sentenceSpans(text).map(({ from, to }) => ({
    text: text.slice(from, to),
    from,
    to,
    keys: wordKeysOf(text.slice(from, to)),
  }));
}

import { newVocabulary, wordKey, wordsOf } from '#core/text/words.ts';

export interface Sentence {
  readonly text: string;
  /** Where it begins and ends in the whole text. */
  readonly from: number;
  readonly to: number;
  /** Its words in comparable form. */
  readonly keys: readonly string[];
}

const END = /[.!?]["'”’)]*(?=\s|$)|\n|$/g;
/** A full stop after one of these ends no sentence. */
const ABBREVIATION = /(?:\b[A-Z]|\b(?:al|cf|e\.g|i\.e|vs|Dr|approx|p))\.$/;

/** The sentences of a text; headings count as sentences of their own. */
export function sentencesOf(text: string): Sentence[] {
  const sentences: Sentence[] = [];
  let from = 0;
  for (const end of text.matchAll(END)) {
    const to = end.index + end[0].length;
    if (ABBREVIATION.test(text.slice(from, to)) && to < text.length) continue;
    const raw = text.slice(from, to);
    const start = from + (raw.length - raw.trimStart().length);
    if (raw.trim() !== '') {
      const words = wordsOf(raw, newVocabulary());
      const keys = Array.from(words.from, (at, i) => wordKey(raw.slice(at, words.to[i])));
      sentences.push({ text: raw.trim(), from: start, to, keys });
    }
    from = to;
  }
  return sentences;
}

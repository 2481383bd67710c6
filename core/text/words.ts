const segmenter = new Intl.Segmenter('en', { granularity: 'word' });
const JOINER = /^[-\u2010\u2011'\u2019]$/;
const JOINERS = /[-\u2010\u2011'\u2019]/g;

/** Gives each different word a number, the same for all texts that share it. */
export interface Vocabulary {
  readonly idByWord: Map<string, number>;
}

export function newVocabulary(): Vocabulary {
  return { idByWord: new Map() };
}

/** The words of a text: for each its vocabulary number and where it begins and ends (UTF-16 offsets). */
export interface Words {
  readonly text: string;
  readonly ids: Int32Array;
  readonly from: Int32Array;
  readonly to: Int32Array;
}

/** A word's form for comparing: NFKC, lower case, without the apostrophes and hyphens inside it. */
export function wordKey(raw: string): string {
  return raw.normalize('NFKC').toLowerCase().replace(JOINERS, '');
}

function idOf(vocabulary: Vocabulary, key: string): number {
  const known = vocabulary.idByWord.get(key);
  if (known !== undefined) return known;
  const id = vocabulary.idByWord.size;
  vocabulary.idByWord.set(key, id);
  return id;
}

/**
 * Splits a text into words after Unicode's word boundaries (UAX 29), words joined by one apostrophe or hyphen counting
 * as one.
 */
export function wordsOf(text: string, vocabulary: Vocabulary): Words {
  const from: number[] = [];
  const to: number[] = [];
  for (const { segment, index, isWordLike } of segmenter.segment(text)) {
    if (isWordLike !== true) continue;
    const last = to.length - 1;
    if (last >= 0 && index === to[last] + 1 && JOINER.test(text[to[last]])) to[last] = index + segment.length;
    else {
      from.push(index);
      to.push(index + segment.length);
    }
  }
  const ids = Int32Array.from(from, (start, i) => idOf(vocabulary, wordKey(text.slice(start, to[i]))));
  return { text, ids, from: Int32Array.from(from), to: Int32Array.from(to) };
}

/** Joins the words of several texts to those of the texts joined by one character each. */
export function joinWords(parts: readonly Words[]): Words {
  let count = 0;
  for (const part of parts) count += part.ids.length;
  const ids = new Int32Array(count);
  const from = new Int32Array(count);
  const to = new Int32Array(count);
  let at = 0;
  let shift = 0;
  for (const part of parts) {
    ids.set(part.ids, at);
    for (let i = 0; i < part.ids.length; i++) {
      from[at + i] = part.from[i] + shift;
      to[at + i] = part.to[i] + shift;
    }
    at += part.ids.length;
    shift += part.text.length + 1;
  }
  return { text: parts.map((p) => p.text).join('\n'), ids, from, to };
}

/** How many words a text has. */
export function countWords(text: string): number {
  return wordsOf(text, newVocabulary()).ids.length;
}

/** The range of words that touch the characters `fromChar` up to `toChar`; empty between two words. */
export function wordRange(words: Words, fromChar: number, toChar: number): { from: number; to: number } {
  const from = firstAfter(words.to, fromChar);
  const to = Math.max(from, firstAfter(words.from, toChar - 1));
  return { from, to };
}

/** The first index whose value is greater than `limit`; values ascend. */
function firstAfter(values: Int32Array, limit: number): number {
  let low = 0;
  let high = values.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (values[middle] <= limit) low = middle + 1;
    else high = middle;
  }
  return low;
}

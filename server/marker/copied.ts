import { sentencesOf, type Sentence } from './sentences.ts';

/** A new sentence that has this share of its word triples from a remark was copied from it. */
const COPIED_SHARE = 0.5;

function triplesOf(keys: readonly string[]): string[] {
  return keys.slice(2).map((key, i) => `${keys[i]} ${keys[i + 1]} ${key}`);
}

/** Tells the sentences that were copied from these texts. */
export function copiedFrom(texts: readonly string[]): (sentence: Sentence) => boolean {
  const known = new Set(texts.flatMap((text) => sentencesOf(text).flatMap(({ keys }) => triplesOf(keys))));
  return ({ keys }) => {
    const triples = triplesOf(keys);
    return triples.length > 0 && triples.filter((t) => known.has(t)).length > COPIED_SHARE * triples.length;
  };
}

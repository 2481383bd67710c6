import { sentencesOf, type Sentence } from './sentences.ts';

/** A sentence that has this share of its word triples from elsewhere was copied from there. */
const COPIED_SHARE = 0.5;

function triplesOf(keys: readonly string[]): string[] {
  return keys.slice(2).map((key, i) => `${keys[i]} ${keys[i + 1]} ${key}`);
}

const triplesIn = (text: string) => sentencesOf(text).flatMap(({ keys }) => triplesOf(keys));

/**
 * Tells the sentences that were copied from these texts.
 * @param before what was written before: words that stood there already are not looked at
 */
export function copiedFrom(texts: readonly string[], before: string): (sentence: Sentence) => boolean {
  const known = new Set(texts.flatMap(triplesIn));
  const old = new Set(triplesIn(before));
  return ({ keys }) => {
    const triples = triplesOf(keys).filter((triple) => !old.has(triple));
    return triples.length > 0 && triples.filter((t) => known.has(t)).length >= COPIED_SHARE * triples.length;
  };
}

/**
 * How many of these sentences are another one of them again, but for a few words.
 * @param before what was written before: words that stood there already are not looked at
 */
export function repeatedAmong(sentences: readonly Sentence[], before: string): number {
  const old = new Set(triplesIn(before));
  const seen = new Map<string, Set<number>>();
  return sentences.filter(({ keys }, index) => {
    const triples = triplesOf(keys).filter((triple) => !old.has(triple));
    const shared = new Map<number, number>();
    for (const triple of triples) {
      const earlier = seen.get(triple) ?? new Set<number>();
      for (const one of earlier) shared.set(one, (shared.get(one) ?? 0) + 1);
      seen.set(triple, earlier.add(index));
    }
    shared.delete(index);
    return Math.max(0, ...shared.values()) > COPIED_SHARE * triples.length;
  }).length;
}

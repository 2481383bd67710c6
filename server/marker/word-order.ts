import { sentencesOf, type Sentence } from './sentences.ts';

/** Where a sentence begins and ends. */
const EDGE = '|';
/** Shorter words have no ending that tells what they are. */
const ENDED_LETTERS = 4;
const ENDINGS = ['ing', 'ed', 'ly', 's'] as const;

/** What a word is to word order: itself where it is a function word, else its ending. */
function kindOf(key: string, functionWords: ReadonlySet<string>): string {
  if (functionWords.has(key)) return key;
  if (/\d/.test(key)) return '#';
  const ending = key.length < ENDED_LETTERS ? undefined : ENDINGS.find((one) => key.endsWith(one));
  return ending === undefined ? '*' : `*${ending}`;
}

/**
 * Tells whether words stand in an order that English has: how much likelier, in nats a word, each word is behind the one
 * before it than it would be on average over all orders of its sentence's words. About 0 for words that were scrambled or
 * listed, whatever they are; well above it for writing. Bigrams of word kinds, each count one more than seen (Laplace).
 * @param sample English text from which the pairs are learnt
 */
export function wordOrderOf(
  sample: string,
  functionWords: ReadonlySet<string>,
): (sentences: readonly Sentence[]) => number {
  const counts = new Map<string, Map<string, number>>();
  const totals = new Map<string, number>();
  const kindsOf = ({ keys }: Sentence) => keys.map((key) => kindOf(key, functionWords));
  const known = new Set<string>([EDGE]);
  for (const sentence of sentencesOf(sample)) {
    const kinds = [EDGE, ...kindsOf(sentence), EDGE];
    for (const [index, kind] of kinds.slice(1).entries()) {
      const before = kinds[index];
      known.add(kind);
      const row = counts.get(before) ?? new Map<string, number>();
      counts.set(before, row.set(kind, (row.get(kind) ?? 0) + 1));
      totals.set(before, (totals.get(before) ?? 0) + 1);
    }
  }
  const likely = (before: string, kind: string) =>
    Math.log(((counts.get(before)?.get(kind) ?? 0) + 1) / ((totals.get(before) ?? 0) + known.size));
  return (sentences) => {
    let gain = 0;
    let words = 0;
    for (const sentence of sentences) {
      const kinds = kindsOf(sentence);
      const n = kinds.length;
      if (n < 2) continue;
      words += n;
      const whole = [EDGE, ...kinds, EDGE];
      for (const [index, kind] of whole.slice(1).entries()) gain += likely(whole[index], kind);
      // Of all orders, each pair stands together in one of n, and each word at either end in one of n.
      for (const [i, kind] of kinds.entries()) {
        gain -= (likely(EDGE, kind) + likely(kind, EDGE)) / n;
        for (const [j, other] of kinds.entries()) if (i !== j) gain -= likely(kind, other) / n;
      }
    }
    return words === 0 ? 0 : gain / words;
  };
}

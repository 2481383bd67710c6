import type { Span } from '../text/span.ts';
import { seeded, type Seeded } from '../saying/training/seeded.ts';

/** Made-up sources, and drafts with passages of them that are known: for tests and the bench. */

/** What was done to a copied passage. */
export const copyings = [
  'verbatim',
  'replaced',
  'replaced evenly',
  'inserted',
  'left out',
  'reordered',
] as const;
/** One of them. */
export type Copying = (typeof copyings)[number];

/** Sources, each a list of words, and where more such words come from. */
export interface MadeCorpus {
  readonly sources: readonly string[][];
  /** A word as often as it would stand in a text. */
  readonly word: (chance: Seeded) => string;
}

const SYLLABLES = [
  'ba',
  'ke',
  'ri',
  'so',
  'tun',
  'mel',
  'dra',
  'pho',
  'lin',
  'gor',
  'ves',
  'ta',
  'ni',
  'um',
  'el',
  'sk',
];

/** Sources of made-up words, a few of them very frequent and most rare (Zipf's law). */
export function madeCorpus(words: number, sources: number, seed: number): MadeCorpus {
  const chance = seeded(seed);
  const vocabulary = Array.from({ length: 20_000 }, (_, i) => {
    let word = '';
    for (let rest = i + 7; rest > 0; rest = Math.floor(rest / SYLLABLES.length))
      word += SYLLABLES[rest % SYLLABLES.length];
    return word;
  });
  const word = (by: Seeded) => {
    // The inverse of the sum of 1/rank, near enough.
    const rank = Math.floor(vocabulary.length ** (by.below(1_000_000) / 1_000_000)) - 1;
    return vocabulary[rank];
  };
  const size = Math.floor(words / sources);
  return {
    word,
    sources: Array.from({ length: sources }, () => Array.from({ length: size }, () => word(chance))),
  };
}

/** A draft as a list of words, with what of it is copied. */
export interface CopiedDraft {
  readonly words: readonly string[];
  readonly passages: readonly {
    readonly span: Span;
    readonly source: number;
    /** Of each word in the span whether it is the source's. */
    readonly isCopied: readonly boolean[];
  }[];
}

/** A draft of filler with passages of 8 to 200 words copied from the sources in one way, half of it about. */
export function copiedDraft(corpus: MadeCorpus, size: number, copying: Copying, seed: number): CopiedDraft {
  const chance = seeded(seed);
  const words: string[] = [];
  const passages: CopiedDraft['passages'][number][] = [];
  const fill = (count: number) => {
    for (let i = 0; i < count; i++) words.push(corpus.word(chance));
  };
  while (words.length < size) {
    fill(30 + chance.below(150));
    const length = 8 + chance.below(193);
    const source = chance.below(corpus.sources.length);
    const at = chance.below(corpus.sources[source].length - length);
    const copied = copy(corpus.sources[source].slice(at, at + length), copying, corpus, chance);
    passages.push({
      span: { from: words.length, to: words.length + copied.length },
      source,
      isCopied: copied.map(({ isCopied }) => isCopied),
    });
    words.push(...copied.map(({ word }) => word));
  }
  fill(60);
  return { words, passages };
}

interface CopiedWord {
  readonly word: string;
  readonly isCopied: boolean;
}

/** So many words of a sentence, when sentences change places. */
const SENTENCE = 22;

function copy(
  passage: readonly string[],
  copying: Copying,
  corpus: MadeCorpus,
  chance: Seeded,
): CopiedWord[] {
  const same = (word: string): CopiedWord => ({ word, isCopied: true });
  const other = (): CopiedWord => ({ word: `${corpus.word(chance)}x`, isCopied: false });
  const every = 8 + chance.below(3);
  const isEdited = (i: number) => (copying === 'replaced' ? chance.below(10) === 0 : i % every === every - 1);
  switch (copying) {
    case 'verbatim':
      return passage.map(same);
    case 'replaced':
    case 'replaced evenly':
      return passage.map((word, i) => (isEdited(i) ? other() : same(word)));
    case 'inserted':
      return passage.flatMap((word, i) => (isEdited(i) ? [other(), same(word)] : [same(word)]));
    case 'left out':
      return passage.flatMap((word, i) => (isEdited(i) ? [] : [same(word)]));
    case 'reordered': {
      const sentences: string[][] = [];
      for (let at = 0; at < passage.length; at += SENTENCE) sentences.push(passage.slice(at, at + SENTENCE));
      chance.shuffle(sentences);
      return sentences.flat().map(same);
    }
  }
}

/** How many of the copied words were found, and how many of the found words are in a copied passage; 0 to 1. */
export function recallAndPrecision(
  { words, passages }: CopiedDraft,
  found: readonly { readonly draftFrom: number; readonly draftTo: number }[],
): { recall: number; precision: number } {
  const isFound = new Uint8Array(words.length);
  for (const { draftFrom, draftTo } of found) isFound.fill(1, draftFrom, draftTo);
  const isIn = new Uint8Array(words.length);
  let copied = 0;
  let copiedFound = 0;
  for (const { span, isCopied } of passages) {
    isIn.fill(1, span.from, span.to);
    isCopied.forEach((is, i) => {
      if (!is) return;
      copied++;
      copiedFound += isFound[span.from + i];
    });
  }
  const all = isFound.reduce((sum, is) => sum + is, 0);
  const right = isFound.reduce((sum, is, i) => sum + (is & isIn[i]), 0);
  return { recall: copiedFound / copied, precision: all === 0 ? 1 : right / all };
}

import type { Difference } from '../difference/difference.ts';
import { sentencesOfWords } from '../text/sentences-of-words.ts';
import type { Words } from '../text/words.ts';

/** At least this share of a sentence's words must stand for it to be said what became of it. */
const LEAST_STANDING = 0.5;
/** A piece of a sentence has at least this share of what stands of it, and so many words. */
const PIECE = { share: 0.2, words: 2 };
/** A neighbour was joined where at least this share of it stands in the same sentence, and so many words. */
const NEIGHBOUR = { share: 0.5, words: 2 };

/** A text's words by sentence and by line. */
interface Lines {
  /** The number of the sentence and of the line that each word is in. */
  readonly sentence: Int32Array;
  readonly line: Int32Array;
  /** The first word of each sentence, and the number of words behind the last. */
  readonly begins: readonly number[];
}

const known = new WeakMap<Words, Lines>();

function linesOf(words: Words): Lines {
  const before = known.get(words);
  if (before !== undefined) return before;
  const count = words.ids.length;
  const sentence = new Int32Array(count);
  const line = new Int32Array(count);
  const ends = sentencesOfWords(words).to;
  const begins: number[] = [];
  let at = -1;
  let index = 0;
  let lines = 0;
  let lineEnd = words.text.indexOf('\n');
  for (let i = 0; i < count; i++) {
    while (index < ends.length && ends[index] < words.to[i]) index++;
    if (index !== at) begins.push(i);
    at = index;
    while (lineEnd >= 0 && words.from[i] > lineEnd) {
      lines++;
      lineEnd = words.text.indexOf('\n', lineEnd + 1);
    }
    sentence[i] = begins.length - 1;
    line[i] = lines;
  }
  begins.push(count);
  const made = { sentence, line, begins };
  known.set(words, made);
  return made;
}

/**
 * Whether the sentence of some words became several, or the words stand in several paragraphs (`split`), or their sentence and
 * a neighbour became one (`joined`); null for neither. @param from, to the words in the older text
 */
export function partedOrJoined(difference: Difference, from: number, to: number): 'split' | 'joined' | null {
  const a = linesOf(difference.a);
  const b = linesOf(difference.b);
  if (from >= to) return null;
  const { toB } = difference;
  if (a.line[from] === a.line[to - 1] && piecesIn(toB, b.line, from, to).length > 1) return 'split';
  for (let s = a.sentence[from]; s <= a.sentence[to - 1]; s++) {
    const pieces = piecesIn(toB, b.sentence, a.begins[s], a.begins[s + 1]);
    if (pieces.length > 1) return 'split';
    if (pieces.length === 1 && [s - 1, s + 1].some((other) => isIn(toB, a, b, other, pieces[0])))
      return 'joined';
  }
  return null;
}

/** The sentences or lines of B in which a good part of some words of A stands; none where too few of them stand. */
function piecesIn(toB: Int32Array, numbers: Int32Array, from: number, to: number): number[] {
  const count = new Map<number, number>();
  let standing = 0;
  for (let i = from; i < to; i++) {
    if (toB[i] < 0) continue;
    standing++;
    const number = numbers[toB[i]];
    count.set(number, (count.get(number) ?? 0) + 1);
  }
  if (standing < LEAST_STANDING * (to - from)) return [];
  const least = Math.max(PIECE.words, PIECE.share * standing);
  return [...count].filter(([, words]) => words >= least).map(([number]) => number);
}

/** Whether most of a sentence of A stands in one of B, on its own line in neither. */
function isIn(toB: Int32Array, a: Lines, b: Lines, sentence: number, inB: number): boolean {
  if (sentence < 0 || sentence + 1 >= a.begins.length) return false;
  let there = 0;
  for (let i = a.begins[sentence]; i < a.begins[sentence + 1]; i++)
    if (toB[i] >= 0 && b.sentence[toB[i]] === inB) there++;
  const size = a.begins[sentence + 1] - a.begins[sentence];
  return there >= NEIGHBOUR.words && there >= NEIGHBOUR.share * size;
}

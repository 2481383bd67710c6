import type { Span } from '../text/span.ts';
import { sentenceSpans } from '../text/sentences.ts';

/** A place where a remark may turn from one thing to another: the end of a sentence, or a turn within one. */
type Turn = 'sentence' | 'turn' | 'comma';

/** The smallest pieces that parts are made of, in order, each with what is before it (null for the first). */
export interface Piece extends Span {
  readonly after: Turn | null;
}

/** A sentence turns before these, with a comma or without. */
const TURNS =
  /(?:[;,:]? +(?=(?:but|although|though|however|yet|except)\b))|; +| +[–—] +|, (?=(?:while|whereas|and yet|only|now|and then)\b)/giu;
const COMMA = /, +/gu;
/** What stands between turns has at least so many letters, so that "Yes, but ..." is no turn of a comma. */
const LEAST_LETTERS = 6;
/** More turns than this are not looked for in one sentence: a list is no row of turns. */
const MOST_COMMAS = 3;

/** The pieces of a remark. */
export function piecesOf(text: string): Piece[] {
  return sentenceSpans(text).flatMap(({ from, to }, index) =>
    withinSentence(text, from, to).map((piece, at) => ({
      ...piece,
      after: at > 0 ? piece.after : index > 0 ? ('sentence' as const) : null,
    })),
  );
}

function withinSentence(text: string, from: number, to: number): Piece[] {
  const sentence = text.slice(from, to);
  const at = (pattern: RegExp, after: Turn) =>
    [...sentence.matchAll(pattern)].map((found) => ({ at: found.index + found[0].length, after }));
  const cuts: { at: number; after: Turn | null }[] = at(TURNS, 'turn');
  const commas = at(COMMA, 'comma');
  if (commas.length <= MOST_COMMAS)
    cuts.push(...commas.filter((comma) => cuts.every((cut) => cut.at !== comma.at)));
  cuts.sort((x, y) => x.at - y.at);
  const pieces: Piece[] = [];
  let start = 0;
  let after: Turn | null = null;
  for (const cut of [...cuts, { at: sentence.length, after: null }]) {
    const isLast = cut.at === sentence.length;
    const short =
      letters(sentence.slice(start, cut.at)) < LEAST_LETTERS ||
      letters(sentence.slice(cut.at)) < LEAST_LETTERS;
    if (!isLast && short) continue;
    pieces.push({ from: from + start, to: from + sentence.slice(0, cut.at).trimEnd().length, after });
    start = cut.at;
    after = cut.after;
  }
  return pieces;
}

function letters(text: string): number {
  return text.match(/\p{L}/gu)?.length ?? 0;
}

/** A part is made of at most so many pieces: a longer one is about several things. */
const MOST_PIECES = 6;
/**
 * What a cut costs or is worth, in the logarithm of a probability; found on held-out voices. Sentences are rather parted than
 * not: a hint must not drown in what is said around it, and neighbours that say the same are one part again.
 */
const CUT_COST: Readonly<Record<Turn, number>> = { sentence: -0.6, turn: -0.5, comma: 0 };

/**
 * The cut of pieces into parts in which each part is most surely one thing: the sum over parts of the logarithm of how sure
 * it is, less what each cut costs, is highest (by dynamic programming over the pieces).
 * @param sureness of the text between two places, above 0 and at most 1
 */
export function cutIntoParts(pieces: readonly Piece[], sureness: (span: Span) => number): Span[] {
  const best = [{ sum: 0, from: 0 }];
  for (let to = 1; to <= pieces.length; to++) {
    let found = { sum: -Infinity, from: 0 };
    for (let from = Math.max(0, to - MOST_PIECES); from < to; from++) {
      const { after } = pieces[from];
      const cost = from === 0 || after === null ? 0 : CUT_COST[after];
      const sum =
        best[from].sum - cost + Math.log(sureness({ from: pieces[from].from, to: pieces[to - 1].to }));
      if (sum > found.sum) found = { sum, from };
    }
    best.push(found);
  }
  const parts: Span[] = [];
  for (let to = pieces.length; to > 0; to = best[to].from)
    parts.unshift({ from: pieces[best[to].from].from, to: pieces[to - 1].to });
  return parts;
}

import type { Difference } from '../difference/difference.ts';
import { firstFrom } from '../text/ascending.ts';
import { sentencesOfWords } from '../text/sentences-of-words.ts';
import type { Span } from '../text/span.ts';
import { wordRange, type Words } from '../text/words.ts';

/** A sentence beside a passage is an addition from this share of new words on: fewer are a change of what stood there. */
const NEW_SENTENCE = 0.6;
/** Words came in beside others, and not in place of them, where those that went are at most this share of them. */
const IN_PLACE_OF = 0.34;

/**
 * What was added beside words that stand in the newer text: new words within their sentence, and new sentences directly before
 * or after it; a paragraph of its own counts where the sentence is the first or last of its own (computation.md 3). In the
 * newer text, in its order; empty where nothing was.
 * @param place of the words in the newer text; empty for a gap
 */
export function additionsBeside(difference: Difference, place: Span): Span[] {
  const { text } = difference.b;
  const block = blockAround(text, place);
  const sentences = sentencesIn(difference.b, block);
  const touching = sentences.filter((one) => one.from <= place.to && one.to >= place.from);
  const first = sentences.indexOf(touching[0]);
  const last = sentences.indexOf(touching[touching.length - 1]);
  const own = touching.flatMap((sentence) => newRuns(difference, sentence, place));
  if (touching.length === 0) return own;
  const before = first > 0 ? sentences[first - 1] : blockBefore(text, block);
  const after = last + 1 < sentences.length ? sentences[last + 1] : blockAfter(text, block);
  const beside = [before, after].filter((one) => one !== null && isNew(difference, one)) as Span[];
  return [...own, ...beside].sort((x, y) => x.from - y.from);
}

/** The block that holds a place: blocks are lines of a paper's text. */
function blockAround(text: string, { from, to }: Span): Span {
  const end = text.indexOf('\n', to);
  return { from: text.lastIndexOf('\n', from - 1) + 1, to: end < 0 ? text.length : end };
}

function blockBefore(text: string, { from }: Span): Span | null {
  return from === 0 ? null : blockAround(text, { from: from - 1, to: from - 1 });
}

function blockAfter(text: string, { to }: Span): Span | null {
  return to >= text.length ? null : blockAround(text, { from: to + 1, to: to + 1 });
}

function sentencesIn(words: Words, block: Span): Span[] {
  const { from, to } = sentencesOfWords(words);
  const found: Span[] = [];
  for (let s = firstFrom(from, block.from); s < from.length && to[s] <= block.to; s++)
    found.push({ from: from[s], to: to[s] });
  return found;
}

const cameIn = new WeakMap<Difference, Uint8Array>();

/** For each word of the newer text whether it came in (1), and not in place of others: neither stayed nor moved there. */
export function newWords(difference: Difference): Uint8Array {
  const known = cameIn.get(difference);
  if (known !== undefined) return known;
  const fresh = new Uint8Array(difference.b.ids.length);
  for (const { kind, fromA, toA, fromB, toB } of difference.stretches) {
    const isBeside = toA - fromA <= IN_PLACE_OF * (toB - fromB);
    if (kind === 'changed' && isBeside) fresh.fill(1, fromB, toB);
  }
  for (const { pairs } of difference.moves) for (const [, j] of pairs) fresh[j] = 0;
  cameIn.set(difference, fresh);
  return fresh;
}

function isNew(difference: Difference, sentence: Span): boolean {
  const fresh = newWords(difference);
  const { from, to } = wordRange(difference.b, sentence.from, sentence.to);
  let count = 0;
  for (let j = from; j < to; j++) count += fresh[j];
  return to > from && count >= NEW_SENTENCE * (to - from);
}

/** Runs of new words in a sentence, but for those of the passage itself. */
function newRuns(difference: Difference, sentence: Span, place: Span): Span[] {
  const { b } = difference;
  const fresh = newWords(difference);
  const { from, to } = wordRange(b, sentence.from, sentence.to);
  const runs: Span[] = [];
  for (let j = from; j < to; j++) {
    const isOwn = b.from[j] >= place.from && b.to[j] <= place.to && place.to > place.from;
    if (fresh[j] === 0 || isOwn) continue;
    const before = runs.at(-1);
    if (before !== undefined && j > from && before.to === b.to[j - 1])
      runs[runs.length - 1] = { from: before.from, to: b.to[j] };
    else runs.push({ from: b.from[j], to: b.to[j] });
  }
  return runs;
}

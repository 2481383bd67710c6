import { newWords } from '../anchors/additions.ts';
import type { Difference } from '../difference/difference.ts';
import { blockAt, type Paper } from '../paper/paper.ts';
import { sentencesOfWords } from '../text/sentences-of-words.ts';
import { firstFrom } from '../text/ascending.ts';
import type { Span } from '../text/span.ts';
import { wordRange, type Words } from '../text/words.ts';

/** Something that is new in the newer text, within one sentence of it. */
export interface Changed {
  /** The whole sentence where nearly all of it is new, else its new words. In UTF-16 units. */
  readonly place: Span;
  /** It came in beside what stood there; else in place of something, or from elsewhere. */
  readonly how: 'came in' | 'instead' | 'moved';
  /** The number of its sentence. */
  readonly sentence: number;
}

/** A newer text, sentence by sentence, with what changed in it. */
export interface ChangedText {
  readonly sentences: readonly Sentence[];
  /** Where each sentence ends. */
  readonly ends: readonly number[];
  readonly changes: readonly Changed[];
  /** Where each change ends; they follow one another. */
  readonly changeEnds: readonly number[];
}

interface Sentence extends Span {
  readonly block: number;
  /** How many headings stand before it, itself one or not. */
  readonly section: number;
}

/** From this share of new words on a sentence is new as a whole. */
const WHOLE = 0.6;
/** New words of one sentence that so few others part are one change. */
const BETWEEN = 3;

const NEW = 1;
const INSTEAD = 2;
const MOVED = 3;

/** What changed, sentence by sentence of the newer text, in its order. @param newer the text of `difference.b` */
export function changedIn(difference: Difference, newer: Paper): ChangedText {
  const sentences = sentencesIn(newer, difference.b);
  const state = statesOf(difference);
  const changes = sentences.flatMap((sentence, index) => changesOf(difference, state, sentence, index));
  return {
    sentences,
    ends: sentences.map(({ to }) => to),
    changes,
    changeEnds: changes.map(({ place }) => place.to),
  };
}

function sentencesIn(paper: Paper, words: Words): Sentence[] {
  const places = sentencesOfWords(words);
  const sentences: Sentence[] = [];
  let section = 0;
  let s = 0;
  for (const [block, { kind, text }] of paper.blocks.entries()) {
    if (kind === 'heading') section++;
    const end = paper.starts[block] + text.length;
    for (; s < places.from.length && places.to[s] <= end; s++)
      sentences.push({ from: places.from[s], to: places.to[s], block, section });
  }
  return sentences;
}

/** For each word of the newer text what it is: 0 for one that stayed. */
function statesOf(difference: Difference): Uint8Array {
  const { b, stretches, moves } = difference;
  const state = new Uint8Array(b.ids.length);
  for (const { kind, fromB, toB } of stretches) if (kind === 'changed') state.fill(INSTEAD, fromB, toB);
  for (const [j, cameIn] of newWords(difference).entries()) if (cameIn === 1) state[j] = NEW;
  for (const { pairs } of moves) for (const [, j] of pairs) state[j] = MOVED;
  return state;
}

function changesOf({ b }: Difference, state: Uint8Array, sentence: Sentence, index: number): Changed[] {
  const { from, to } = wordRange(b, sentence.from, sentence.to);
  const runs: { from: number; to: number; is: number }[] = [];
  let changed = 0;
  for (let j = from; j < to; j++) {
    if (state[j] === 0) continue;
    changed++;
    const last = runs.at(-1);
    if (last !== undefined && (last.is === MOVED) === (state[j] === MOVED) && j - last.to <= BETWEEN) {
      last.to = j + 1;
      // What took the place of something by one word took its place.
      if (state[j] === INSTEAD) last.is = INSTEAD;
    } else runs.push({ from: j, to: j + 1, is: state[j] });
  }
  const how = (is: number): Changed['how'] => (is === NEW ? 'came in' : is === MOVED ? 'moved' : 'instead');
  if (runs.length === 0) return [];
  if (changed >= WHOLE * (to - from)) {
    const main = runs.reduce((x, y) => (y.to - y.from > x.to - x.from ? y : x));
    return [{ place: { from: sentence.from, to: sentence.to }, how: how(main.is), sentence: index }];
  }
  return runs.map((run) => ({
    place: { from: b.from[run.from], to: b.to[run.to - 1] },
    how: how(run.is),
    sentence: index,
  }));
}

/** The numbers of the sentences that a place touches, first and behind the last; of a gap those beside it in its block. */
export function sentencesAt({ sentences, ends }: ChangedText, paper: Paper, place: Span): [number, number] {
  const first = blockAt(paper, place.from);
  const last = blockAt(paper, place.to);
  let from = firstFrom(ends, place.from);
  while (from < sentences.length && sentences[from].block < first) from++;
  let to = from;
  while (to < sentences.length && sentences[to].from <= place.to && sentences[to].block <= last) to++;
  return [from, to];
}

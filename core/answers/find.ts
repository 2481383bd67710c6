import { followerOf, type Outcome } from '../anchors/outcome.ts';
import { blockAt, type Paper } from '../paper/paper.ts';
import { stemsOf } from '../text/stems.ts';
import { sentenceSpans } from '../text/sentences.ts';
import type { Span } from '../text/span.ts';
import { changedIn } from './changed.ts';
import { proposeAnswers, type Asking, type Proposal, type Stems } from './propose.ts';

/** A remark whose answer is looked for in a newer text. */
export interface Sought extends Omit<Asking, 'outcomes' | 'about'> {
  /** What it is about in the older text, a passage for each of its targets; empty for one about no words. */
  readonly passages: readonly Span[];
}

/** What a newer text shows of a remark. */
export interface Found {
  /** What became of each of its passages. */
  readonly outcomes: readonly Outcome[];
  /** What may answer it, likeliest first. */
  readonly proposals: readonly Proposal[];
}

/** Finds what answers the remarks on one paper in newer texts. Remembers words and sentences, so that each call costs little. */
export interface AnswerFinder {
  find(newer: Paper, remarks: readonly Sought[]): Map<string, Found>;
}

/** A finder for the remarks on `older`. What it returns depends on the two texts and the remarks alone. */
export function answerFinderOf(older: Paper): AnswerFinder {
  const follower = followerOf(older);
  const stems = remembering();
  return {
    find(newer, remarks) {
      const { difference, outcomes } = follower.followAll(
        newer,
        remarks.map(({ passages }) => passages),
      );
      const changed = changedIn(difference, newer);
      const asking = remarks.map((remark, index): Asking => ({
        ...remark,
        about: remark.passages.map((passage) => aboutAt(older, passage)).join('\n'),
        outcomes: outcomes[index],
      }));
      const proposals = proposeAnswers(changed, newer, asking, stems);
      return new Map(
        remarks.map(({ id }, index) => [
          id,
          { outcomes: outcomes[index], proposals: proposals.get(id) ?? [] },
        ]),
      );
    },
  };
}

/** Pieces whose stems are remembered at most: those of a long paper, old and new. */
const MOST_REMEMBERED = 20_000;

/** The stems of a text, which are not worked out again for the same one: finding them costs more than all else. */
function remembering(): Stems {
  const known = new Map<string, readonly string[]>();
  return (text) => {
    const before = known.get(text);
    if (before !== undefined) return before;
    if (known.size >= MOST_REMEMBERED) known.clear();
    const stems = stemsOf(text);
    known.set(text, stems);
    return stems;
  };
}

/** The words of a passage; of a gap the sentence that it stands in or before. */
function aboutAt(paper: Paper, { from, to }: Span): string {
  if (to > from) return paper.text.slice(from, to);
  const index = blockAt(paper, from);
  const block = paper.blocks.at(index);
  if (block === undefined) return '';
  const at = from - paper.starts[index];
  const sentence = sentenceSpans(block.text).find((one) => one.to > at);
  return sentence === undefined ? '' : block.text.slice(sentence.from, sentence.to);
}

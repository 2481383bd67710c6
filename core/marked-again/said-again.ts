import { quotedWords, type Remark } from '../model/remark.ts';
import type { GivenAnswer } from '../model/work.ts';
import { likenessOf } from '../plan/likeness.ts';
import { stemsOf } from '../text/stems.ts';
import { wordKeysOf } from '../text/words.ts';

/** A remark of a later marking with the earlier one that it comes back to. */
export interface SaidAgain {
  readonly remark: Remark;
  readonly earlier: Remark;
}

/** Texts as alike as this speak of one thing: a marker who says it again uses some of the same words. */
const ALIKE = 0.3;
/** So much of the words that a later remark hangs on stood in the earlier one's place, or in what answered it. */
const SAME_PLACE = 0.5;

const exactOf = (remark: Remark) => quotedWords(remark) ?? '';

/** The share of some words that stand in a place, by words in pairs. */
function shareIn(words: string, place: string): number {
  const pairs = (text: string) => {
    const keys = wordKeysOf(text);
    return keys.slice(1).map((key, i) => `${keys[i]} ${key}`);
  };
  const own = pairs(words);
  const known = new Set(pairs(place));
  return own.length === 0 ? 0 : own.filter((pair) => known.has(pair)).length / own.length;
}

/**
 * For each remark of a later marking the earlier remark that it comes back to: the one whose words it uses again, or in whose
 * place, or in whose answer, it hangs. Remarks that come back to none are left out.
 * @param answersOf the words that the student gave as answers to a remark
 */
export function comesBackTo(
  later: readonly Remark[],
  earlier: readonly Remark[],
  answersOf: (remark: Remark) => readonly string[],
): SaidAgain[] {
  const sets = [...earlier, ...later].map(({ text }) => new Set(stemsOf(text)));
  const alike = likenessOf(sets);
  return later.flatMap((remark, index) => {
    const own = exactOf(remark);
    const scored = earlier.map((one, i) => {
      const place = [exactOf(one), ...answersOf(one)].join('\n');
      const near = shareIn(own, place);
      const like = alike(earlier.length + index, i);
      return { one, score: Math.max(like / ALIKE, near / SAME_PLACE) };
    });
    const best = scored.reduce<(typeof scored)[number] | null>(
      (most, next) => (most === null || next.score > most.score ? next : most),
      null,
    );
    return best === null || best.score < 1 ? [] : [{ remark, earlier: best.one }];
  });
}

/** The words that a student gave as the answer to a remark: what was picked in the draft, and own words. */
export function answerWords(given: GivenAnswer | undefined): string[] {
  if (given === undefined) return [];
  return [...given.places.map(({ exact }) => exact), given.words].filter((text) => text !== '');
}

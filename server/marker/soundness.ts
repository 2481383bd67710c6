import { endsSentence } from '#core/text/sentences.ts';
import { wordKeysOf } from '#core/text/words.ts';
import { repeatedAmong } from './copied.ts';
import type { TextRules } from './marking-rules.ts';
import { sentencesOf, type Sentence } from './sentences.ts';
import { wordOrderOf } from './word-order.ts';

const BEGINS = /^["'“‘(]?[\p{Lu}\d]/u;
/** The share of function words tells little of shorter sentences. */
const SHARE_WORDS = 10;
/** With fewer, so many other words can stand behind one another. */
const THICK_RUN = 5;
/** Parts of a sentence that stand by themselves. */
const PARTED = /[;:()]/;
/** Shorter pieces are headings, names in the reference list and the like. */
const SHORT_WORDS = 6;

type TextFault = 'unreadable' | 'repeated';

/** Judges whether new text is writing: sentences in which words stand in an order that English has. */
interface TextJudge {
  isSound(sentence: Sentence): boolean;
  /** What is wrong with the new text as a whole; null where nothing is. */
  faultOf(sentences: readonly Sentence[]): TextFault | null;
  /** The sentences that the marked text didn't have. */
  newAmong(sentences: readonly Sentence[]): Sentence[];
}

function keyOf(sentence: Sentence): string {
  return sentence.keys.join(' ');
}

/** A judge that knows the marked text: its sentences aren't new, and its word order is English. */
export function textJudgeFor(markedText: string, rules: TextRules): TextJudge {
  const functionWords = new Set(rules.functionWords.map((word) => word.replaceAll("'", '')));
  const determiners = new Set(rules.determiners);
  const never = new Set(rules.neverAfterDeterminer);
  const known = sentencesOf(markedText);
  const knownKeys = new Set(known.map(keyOf));
  const orderGain = wordOrderOf(`${markedText}\n${rules.sample}`, functionWords);

  const hasImpossiblePair = ({ keys }: Sentence) =>
    keys.some((key, i) => determiners.has(key) && (i + 1 === keys.length || never.has(keys[i + 1])));
  const longestRun = ({ text }: Sentence) => {
    let longest = 0;
    for (const piece of text.split(PARTED)) {
      let run = 0;
      for (const key of wordKeysOf(piece)) {
        run = functionWords.has(key) ? 0 : run + 1;
        longest = Math.max(longest, run);
      }
    }
    return longest;
  };
  const isSound = (sentence: Sentence): boolean => {
    const { keys, text } = sentence;
    if (
      !BEGINS.test(text) ||
      !(endsSentence(text) || text.endsWith(':')) ||
      keys.length > rules.mostWordsInSentence
    )
      return false;
    if (keys.length < SHORT_WORDS) return true;
    const share = keys.filter((key) => functionWords.has(key)).length / keys.length;
    const run = longestRun(sentence);
    const isThick = share < rules.leastFunctionWordShare;
    return (
      !(isThick && (keys.length >= SHARE_WORDS || run > THICK_RUN)) &&
      run <= rules.longestRunWithoutFunctionWord &&
      !hasImpossiblePair(sentence)
    );
  };
  const newAmong = (sentences: readonly Sentence[]) =>
    sentences.filter((sentence) => !knownKeys.has(keyOf(sentence)));

  return {
    isSound,
    newAmong,
    faultOf(sentences) {
      const long = sentences.filter((sentence) => sentence.keys.length >= SHORT_WORDS);
      const seen = new Set<string>();
      const repeated = long.filter((sentence) => seen.size === seen.add(keyOf(sentence)).size);
      if (repeated.length > rules.mostRepeatedShare * long.length) return 'repeated';
      const fresh = newAmong(sentences).filter((sentence) => sentence.keys.length >= SHORT_WORDS);
      if (repeatedAmong(fresh, markedText) > Math.max(1, rules.mostAlikeShare * fresh.length))
        return 'repeated';
      const words = (list: readonly Sentence[]) =>
        list.reduce((sum, sentence) => sum + sentence.keys.length, 0);
      const unsound = fresh.filter((sentence) => !isSound(sentence));
      if (words(unsound) > rules.mostUnsoundShare * words(fresh)) return 'unreadable';
      const isOrdered = words(fresh) < rules.leastOrderWords || orderGain(fresh) >= rules.leastOrderGain;
      return isOrdered ? null : 'unreadable';
    },
  };
}

import { endsSentence } from '#core/text/sentences.ts';
import type { TextRules } from './marking-rules.ts';
import { sentencesOf, type Sentence } from './sentences.ts';

const BEGINS = /^["'“‘(]?[\p{Lu}\d]/u;
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

/** A judge that knows the marked text: its sentences aren't new, and its pairs of function words are English. */
export function textJudgeFor(markedText: string, rules: TextRules): TextJudge {
  const functionWords = new Set(rules.functionWords.map((word) => word.replaceAll("'", '')));
  const determiners = new Set(rules.determiners);
  const never = new Set(rules.neverAfterDeterminer);
  const known = sentencesOf(markedText);
  const knownKeys = new Set(known.map(keyOf));
  const pairsOf = ({ keys }: Sentence) =>
    keys
      .slice(1)
      .flatMap((key, i) =>
        functionWords.has(keys[i]) && functionWords.has(key) ? [`${keys[i]} ${key}`] : [],
      );
  const knownPairs = new Set([...known, ...sentencesOf(rules.sample)].flatMap(pairsOf));

  const hasImpossiblePair = ({ keys }: Sentence) =>
    keys.some((key, i) => determiners.has(key) && (i + 1 === keys.length || never.has(keys[i + 1])));
  const longestRun = ({ keys }: Sentence) => {
    let run = 0;
    let longest = 0;
    for (const key of keys) {
      run = functionWords.has(key) ? 0 : run + 1;
      longest = Math.max(longest, run);
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
    return (
      share >= rules.leastFunctionWordShare &&
      longestRun(sentence) <= rules.longestRunWithoutFunctionWord &&
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
      const words = (list: readonly Sentence[]) =>
        list.reduce((sum, sentence) => sum + sentence.keys.length, 0);
      const unsound = fresh.filter((sentence) => !isSound(sentence));
      if (words(unsound) > rules.mostUnsoundShare * words(fresh)) return 'unreadable';
      const pairs = fresh.flatMap(pairsOf);
      const odd = pairs.filter((pair) => !knownPairs.has(pair)).length;
      return pairs.length >= rules.leastPairs && odd > rules.mostOddPairShare * pairs.length
        ? 'unreadable'
        : null;
    },
  };
}

import * as v from 'valibot';
import { CriterionId, DecimalString } from '#core/model/ids.ts';

/** The marker's rules, kept as data with the desk's content. Patterns are regular expressions. */
const pattern = v.pipe(
  v.string(),
  v.check((source) => {
    new RegExp(source, 'u');
    return true;
  }),
);

export const PassageRule = v.object({
  /** The marked annotation that it is about, by its own name. */
  remark: v.string(),
  criterion: CriterionId,
  points: DecimalString,
  /** Each group needs one of its patterns in the new sentences. */
  needs: v.array(v.array(pattern)),
  without: v.array(pattern),
  leastNewWords: v.number(),
  /** What the marker says where the rule isn't met. */
  missing: v.string(),
});
export type PassageRule = v.InferOutput<typeof PassageRule>;

export const TextRules = v.object({
  leastFunctionWordShare: v.number(),
  longestRunWithoutFunctionWord: v.number(),
  mostUnsoundShare: v.number(),
  mostOddPairShare: v.number(),
  leastPairs: v.number(),
  mostRepeatedShare: v.number(),
  mostWordsInSentence: v.number(),
  leastKeptShare: v.number(),
  determiners: v.array(v.string()),
  neverAfterDeterminer: v.array(v.string()),
  functionWords: v.array(v.string()),
});
export type TextRules = v.InferOutput<typeof TextRules>;

export const MarkingRules = v.object({
  secondsUntilMarked: v.number(),
  text: TextRules,
  passages: v.array(PassageRule),
  words: v.object({
    better: v.string(),
    same: v.string(),
    unreadable: v.string(),
    repeated: v.string(),
    tooLong: v.string(),
    otherText: v.string(),
    criterionBetter: v.string(),
    criterionSame: v.string(),
  }),
});
export type MarkingRules = v.InferOutput<typeof MarkingRules>;

import * as v from 'valibot';
import { CriterionId, DecimalString } from '#core/model/ids.ts';
import { Demand, pattern } from './demand.ts';

/** The marker's rules, kept as data with the desk's content. Patterns are regular expressions. */

export const PassageRule = v.object({
  /** The marked annotation that it is about, by its own name. */
  remark: v.string(),
  criterion: CriterionId,
  points: DecimalString,
  /** Each group needs one of its patterns in the new sentences. */
  needs: v.array(v.array(pattern)),
  without: v.array(pattern),
  leastNewWords: v.number(),
  /** Whether a citation that leads to an entry of the list of what was sent is what it needs. */
  cites: v.optional(v.boolean(), false),
  /** Whether it may be said in another place: a claim has to be put right where it stands. */
  elsewhere: v.optional(v.boolean(), false),
  /** What the marker says where the rule isn't met. */
  missing: v.string(),
  /** What it says of the words that meet it; nothing where it says nothing. */
  met: v.optional(v.string(), ''),
});
export type PassageRule = v.InferOutput<typeof PassageRule>;

export const TextRules = v.object({
  leastFunctionWordShare: v.number(),
  longestRunWithoutFunctionWord: v.number(),
  mostUnsoundShare: v.number(),
  /** How much likelier than in any order the new words have to stand, in nats a word, where there are so many of them. */
  leastOrderGain: v.number(),
  leastOrderWords: v.number(),
  mostRepeatedShare: v.number(),
  /** How many of the new sentences may be another one again, but for a few words. */
  mostAlikeShare: v.number(),
  mostWordsInSentence: v.number(),
  leastKeptShare: v.number(),
  determiners: v.array(v.string()),
  neverAfterDeterminer: v.array(v.string()),
  functionWords: v.array(v.string()),
  /** English text from which the marker knows what may stand beside what; beside what was marked. */
  sample: v.optional(v.string(), ''),
});
export type TextRules = v.InferOutput<typeof TextRules>;

const Words = v.object({
  /** Where all, some or none of what is looked for was found; {met} of {all}. */
  all: v.string(),
  some: v.string(),
  none: v.string(),
});

const Base = v.object({ criterion: v.optional(v.nullable(CriterionId), null), points: DecimalString });

const common = {
  assignment: v.string(),
  /** What there is for having sent something that can be read. */
  base: v.array(Base),
  words: Words,
};

/** What a region of a drawing has to show that it didn't show before. */
const RegionRule = v.object({
  criterion: CriterionId,
  points: DecimalString,
  /** In pixels of the marked picture: left, top, width, height. */
  box: v.tuple([v.number(), v.number(), v.number(), v.number()]),
  missing: v.string(),
  met: v.optional(v.string(), ''),
});
export type RegionRule = v.InferOutput<typeof RegionRule>;

/** By what one assignment's work is marked, whether something of it was marked before or not. */
export const WorkRules = v.variant('kind', [
  v.object({ kind: v.literal('paper'), ...common, demands: v.array(Demand) }),
  v.object({
    kind: v.literal('posts'),
    ...common,
    demands: v.array(Demand),
    /** For taking up what another student wrote: so many words of theirs, of some length, stand in the post. */
    answering: v.object({ points: DecimalString, leastWords: v.number(), missing: v.string() }),
  }),
  v.object({ kind: v.literal('items'), ...common, demands: v.array(Demand) }),
  v.object({
    kind: v.literal('files'),
    ...common,
    regions: v.array(RegionRule),
    /** The share of a region's pixels that has to differ before it counts as drawn anew. */
    leastChanged: v.number(),
    /** The share of the whole picture that may differ: more is another drawing. */
    mostChanged: v.number(),
    /** The share of dark pixels that a drawing has, from and to: less is an empty sheet, more is scribble. */
    dark: v.tuple([v.number(), v.number()]),
    empty: v.string(),
    other: v.string(),
    unreadable: v.string(),
  }),
]);
export type WorkRules = v.InferOutput<typeof WorkRules>;

export const MarkingRules = v.object({
  secondsUntilMarked: v.number(),
  text: TextRules,
  /** The rules of the report's second attempt. */
  passages: v.array(PassageRule),
  /** The rules of every other assignment that is marked here. */
  works: v.optional(v.array(WorkRules), []),
  words: v.object({
    better: v.string(),
    same: v.string(),
    unreadable: v.string(),
    repeated: v.string(),
    tooLong: v.string(),
    otherText: v.string(),
    criterionBetter: v.string(),
    /** What was found, in {words} of the new text. */
    criterionFound: v.string(),
    criterionSame: v.string(),
  }),
});
export type MarkingRules = v.InferOutput<typeof MarkingRules>;

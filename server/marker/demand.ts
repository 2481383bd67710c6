import * as v from 'valibot';
import { CriterionId, DecimalString } from '#core/model/ids.ts';

/** A regular expression, as it stands in the marker's rules. */
export const pattern = v.pipe(
  v.string(),
  v.check((source) => {
    new RegExp(source, 'iu');
    return true;
  }),
);

/** One thing that the marker looks for in what was sent. */
export const Demand = v.object({
  /** Where its points go; null: to the score alone. */
  criterion: v.optional(v.nullable(CriterionId), null),
  points: DecimalString,
  /** Each group needs one of its patterns, all within sentences that are sentences. */
  needs: v.array(v.array(pattern)),
  without: v.optional(v.array(pattern), []),
  /** How many different places its first group has to be found in. */
  times: v.optional(v.number(), 1),
  /** It is looked for in all of the text: lists and figures are no sentences. */
  anywhere: v.optional(v.boolean(), false),
  /** What the marker says where it isn't met, and of which words; no such words: of all of it. */
  missing: v.string(),
  about: v.optional(pattern),
  /** What the marker says of the words that meet it; nothing where it says nothing. */
  met: v.optional(v.string(), ''),
});
export type Demand = v.InferOutput<typeof Demand>;

/** Words as a pattern of the rules finds them, in large letters or small. */
export function finds(source: string, text: string): boolean {
  return new RegExp(source, 'iu').test(text);
}

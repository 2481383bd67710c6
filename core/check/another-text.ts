/**
 * Below this share of common words two texts are not versions of one another: chance leaves a tenth of the words of unrelated
 * texts of one trade in the same order, and even a paper that was written anew keeps its names, headings and references.
 */
const LEAST_SHARED = 0.15;

/** Whether a text is likely not a version of another at all. @param share of the older text's words that stand in it, 0 to 1 */
export function isAnotherText(share: number): boolean {
  return share < LEAST_SHARED;
}

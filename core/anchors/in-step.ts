import { firstFrom } from '../text/ascending.ts';

/** An offset in one text and the one that it became in another. */
export type Pair = readonly [here: number, there: number];

/**
 * Pairs that rise in both texts, as many as possible of those given (longest increasing run, by patience): what was moved is left
 * out, so that what lies between two pairs can be measured out.
 */
export function risingPairs(pairs: readonly Pair[]): Pair[] {
  const sorted = pairs.toSorted((x, y) => x[0] - y[0] || x[1] - y[1]);
  const ends: number[] = [];
  const lasts: number[] = [];
  const before = new Int32Array(sorted.length).fill(-1);
  for (const [index, [, there]] of sorted.entries()) {
    const length = firstFrom(ends, there);
    if (length > 0) before[index] = lasts[length - 1];
    ends[length] = there;
    lasts[length] = index;
  }
  const rising: Pair[] = [];
  for (let index = lasts.at(-1) ?? -1; index >= 0; index = before[index]) rising.unshift(sorted[index]);
  return rising;
}

/**
 * Where in the other text stands what stands at an offset of this one: measured out between the pairs on both sides.
 * @param rising as risingPairs gives them
 * @param ends the lengths of both texts
 */
export function inStep(rising: readonly Pair[], [endHere, endThere]: Pair, offset: number): number {
  const next = firstFrom(
    rising.map(([here]) => here),
    offset,
  );
  const [fromHere, fromThere] = next === 0 ? [0, 0] : rising[next - 1];
  const [toHere, toThere] = next < rising.length ? rising[next] : [endHere, endThere];
  if (toHere <= fromHere) return toThere;
  const share = Math.min(1, Math.max(0, (offset - fromHere) / (toHere - fromHere)));
  return Math.round(fromThere + share * (toThere - fromThere));
}

import { HUNDRED, multiply, shownParts, toShown, type Fraction } from '#core/scores/fraction.ts';

/** Points as shown, to two decimals where there are any. */
export function shownPoints(points: Fraction): string {
  return toShown(points, 2);
}

/** Points more or fewer, with their sign. */
export function shownChange(change: Fraction): string {
  return change.n > 0n
    ? `+${shownPoints(change)}`
    : change.n === 0n
      ? '±0'
      : shownPoints(change).replace('-', '−');
}

/** A share as shown in per cent, to one decimal. */
export function shownShare(share: Fraction): string {
  return toShown(multiply(share, HUNDRED), 1);
}

/** Shares in per cent to one decimal each, such that those shown add up to their sum as it is shown. */
export function shownShares(shares: readonly Fraction[]): string[] {
  return shownParts(
    shares.map((share) => multiply(share, HUNDRED)),
    1,
  );
}

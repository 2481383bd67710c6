/** More digits than this after the point are taken for those of a calculation, and rounded off. */
const MOST = 9;

/** How many digits a number has after the point, as it is written; at most 9. */
export function decimalsOf(value: number): number {
  const [, digits = '', exponent = '0'] = /^-?\d+(?:\.(\d+))?(?:e([-+]\d+))?$/.exec(String(value)) ?? [];
  return Math.min(MOST, Math.max(0, digits.length - Number(exponent)));
}

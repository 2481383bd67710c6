import type { DecimalString } from '../model/ids.ts';

/** An exact rational number; the denominator is positive and the fraction is in lowest terms. */
export interface Fraction {
  readonly n: bigint;
  readonly d: bigint;
}

/** 0. */
export const ZERO: Fraction = { n: 0n, d: 1n };
/** 1. */
export const ONE: Fraction = { n: 1n, d: 1n };
/** Shares times this are per cent. */
export const HUNDRED: Fraction = { n: 100n, d: 1n };

/** n / d in lowest terms. */
function fraction(n: bigint, d: bigint): Fraction {
  let x = n < 0n ? -n : n;
  let y = d < 0n ? -d : d;
  while (y !== 0n) [x, y] = [y, x % y];
  const divisor = (d < 0n ? -1n : 1n) * (x === 0n ? 1n : x);
  return { n: n / divisor, d: d / divisor };
}

/** The exact value of a decimal. */
export function fromDecimal(decimal: DecimalString): Fraction {
  const [whole, part = ''] = decimal.split('.');
  return fraction(BigInt(whole + part), 10n ** BigInt(part.length));
}

/** x + y. */
export function add(x: Fraction, y: Fraction): Fraction {
  return fraction(x.n * y.d + y.n * x.d, x.d * y.d);
}
/** x − y. */
export function subtract(x: Fraction, y: Fraction): Fraction {
  return fraction(x.n * y.d - y.n * x.d, x.d * y.d);
}
/** x · y. */
export function multiply(x: Fraction, y: Fraction): Fraction {
  return fraction(x.n * y.n, x.d * y.d);
}
/** Throws on division by zero: a caller must not get there. */
export function divide(x: Fraction, y: Fraction): Fraction {
  if (y.n === 0n) throw new RangeError(`division of ${x.n}/${x.d} by zero`);
  return fraction(x.n * y.d, x.d * y.n);
}
/** -1, 0 or 1: x is smaller than y, equal, larger. */
export function compare(x: Fraction, y: Fraction): number {
  const difference = x.n * y.d - y.n * x.d;
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
}
/** The larger of the two. */
export function larger(x: Fraction, y: Fraction): Fraction {
  return compare(x, y) >= 0 ? x : y;
}
/** The smaller of the two. */
export function smaller(x: Fraction, y: Fraction): Fraction {
  return compare(x, y) <= 0 ? x : y;
}

/** Rounded half up (away from zero for negative numbers) to `places` decimal places, trailing zeros left off. */
export function toShown(x: Fraction, places: number): string {
  const scale = 10n ** BigInt(places);
  const sign = x.n < 0n ? '-' : '';
  const absolute = x.n < 0n ? -x.n : x.n;
  const rounded = (2n * absolute * scale + x.d) / (2n * x.d);
  const digits = rounded.toString().padStart(places + 1, '0');
  const whole = digits.slice(0, digits.length - places);
  const part = digits.slice(digits.length - places).replace(/0+$/, '');
  return (rounded === 0n ? '' : sign) + whole + (part === '' ? '' : `.${part}`);
}

/** Rounded up to `places` decimal places: what has to be reached is, when it is shown so. */
export function toShownUp(x: Fraction, places: number): string {
  const scale = 10n ** BigInt(places);
  const up = -floorOf({ n: -x.n * scale, d: x.d });
  return toShown({ n: up, d: scale }, places);
}

/** How many out of how many, both whole; `of` is not 0. */
export function shareOf(count: number, of: number): Fraction {
  return fraction(BigInt(count), BigInt(of));
}

/** In whole hundredths, rounded half up. */
export function toHundredths(x: Fraction): number {
  const absolute = x.n < 0n ? -x.n : x.n;
  const rounded = Number((200n * absolute + x.d) / (2n * x.d));
  return x.n < 0n ? -rounded : rounded;
}

/** The nearest floating-point number, for what is handed to other programs. */
export function toNumber(x: Fraction): number {
  return Number(toShown(x, 40));
}

/** The nearest points as they are stored, to at most six decimal places. */
export function toDecimal(x: Fraction): DecimalString {
  return toShown(x, 6) as DecimalString;
}

function floorOf(x: Fraction): bigint {
  const quotient = x.n / x.d;
  return x.n < 0n && quotient * x.d !== x.n ? quotient - 1n : quotient;
}

/**
 * Parts rounded to `places` decimal places such that they add up to their sum as `toShown` rounds it: largest remainder,
 * equal remainders going to the earlier part. In units of the last place.
 */
export function roundedParts(parts: readonly Fraction[], places: number): bigint[] {
  const scale: Fraction = { n: 10n ** BigInt(places), d: 1n };
  const scaled = parts.map((part) => multiply(part, scale));
  const rounded = scaled.map(floorOf);
  const total = BigInt(toShown(scaled.reduce(add, ZERO), 0));
  const left = total - rounded.reduce((x, y) => x + y, 0n);
  const byRemainder = scaled
    .map((part, index) => ({ index, remainder: subtract(part, { n: rounded[index], d: 1n }) }))
    .sort((x, y) => compare(y.remainder, x.remainder) || x.index - y.index);
  for (const { index } of byRemainder.slice(0, Number(left))) rounded[index]++;
  return rounded;
}

/** `roundedParts` as text, trailing zeros kept: they stand in a column. */
export function shownParts(parts: readonly Fraction[], places: number): string[] {
  return roundedParts(parts, places).map((units) => {
    const digits = (units < 0n ? -units : units).toString().padStart(places + 1, '0');
    const whole = digits.slice(0, digits.length - places);
    return `${units < 0n ? '-' : ''}${whole}${places === 0 ? '' : `.${digits.slice(-places)}`}`;
  });
}

import type { DecimalString } from '#core/model/ids.ts';

/** Points as they stand in tables: "8", "7,5", "6–8 points", "(4)", "Sound (6.5)". */

const NUMBER = String.raw`\d{1,6}(?:[.,]\d{1,4})?`;
const RANGE = String.raw`(${NUMBER})(?:\s*(?:–|—|-|to)\s*(${NUMBER}))?`;
const UNIT = String.raw`(?:points?|pts?\.?|marks?)`;

const WHOLE = new RegExp(String.raw`^[([]?\s*${RANGE}\s*${UNIT}?\s*[)\]]?\s*:?$`, 'i');
const BEFORE = [
  new RegExp(String.raw`^${RANGE}\s*${UNIT}\s*(?:[:.–—-]\s*|\s)`, 'i'),
  new RegExp(String.raw`^[([]\s*${RANGE}\s*${UNIT}?\s*[)\]]\s*[:.–—-]?\s*`, 'i'),
];
const AFTER = [
  new RegExp(String.raw`\s*[([]\s*${RANGE}\s*${UNIT}?\s*[)\]]$`, 'i'),
  new RegExp(String.raw`\s*[,:–—-]?\s+${RANGE}\s*${UNIT}$`, 'i'),
];

/** Points that were found in a text. */
export interface ReadPoints {
  readonly points: DecimalString;
  /** The lower end of a range. */
  readonly from: DecimalString | null;
  /** The text without them. */
  readonly rest: string;
}

function read(match: RegExpExecArray, rest: string): ReadPoints {
  const [, first, second] = match as unknown as [string, string, string | undefined];
  const one = first.replace(',', '.') as DecimalString;
  if (second === undefined) return { points: one, from: null, rest };
  const other = second.replace(',', '.') as DecimalString;
  return Number(one) <= Number(other)
    ? { points: other, from: one, rest }
    : { points: one, from: other, rest };
}

/** The points that a text begins with, ends with, or has on a line of their own; null where it has none. */
export function pointsIn(text: string): ReadPoints | null {
  const lines = text.split('\n');
  const own = [0, lines.length - 1, ...lines.keys()].find((i) => WHOLE.test(lines[i].trim()));
  if (own !== undefined) {
    const match = WHOLE.exec(lines[own].trim());
    if (match !== null) return read(match, lines.toSpliced(own, 1).join('\n').trim());
  }
  for (const pattern of BEFORE) {
    const match = pattern.exec(text);
    if (match !== null) return read(match, text.slice(match[0].length).trim());
  }
  for (const pattern of AFTER) {
    const match = pattern.exec(lines[0]);
    if (match !== null)
      return read(match, [lines[0].slice(0, match.index), ...lines.slice(1)].join('\n').trim());
  }
  for (const pattern of AFTER) {
    const match = pattern.exec(text);
    if (match !== null) return read(match, text.slice(0, match.index).trim());
  }
  return null;
}

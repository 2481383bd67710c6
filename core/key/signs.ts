import type { Remark } from '../model/remark.ts';
import type { MarkKey, MarkSign } from '../model/work.ts';
import { shortMarkIn } from '../saying/abbreviations.ts';
import { colorName } from './colors.ts';

/** What a remark is known by in its author's hand: its short mark, its colour, its kind of mark. */
export function signsOf({ text, color, kind }: Pick<Remark, 'text' | 'color' | 'kind'>): MarkSign[] {
  const short = shortMarkIn(text);
  return [
    ...(short === null ? [] : [{ kind: 'short' as const, name: short.toLowerCase() }]),
    ...(color === null ? [] : [{ kind: 'color' as const, name: colorName(color) }]),
    { kind: 'mark', name: kind },
  ];
}

/** What tells most of a remark comes first: an abbreviation before a colour, that before a kind of mark. */
export function entryFor(
  remark: Pick<Remark, 'text' | 'color' | 'kind'>,
  key: readonly MarkKey[],
): MarkKey | null {
  for (const sign of signsOf(remark)) {
    const entry = key.find((one) => isSame(one.sign, sign));
    if (entry !== undefined && entry.meaning !== '') return entry;
  }
  return null;
}

/** Whether two are the same sign. */
export function isSame(x: MarkSign, y: MarkSign): boolean {
  return x.kind === y.kind && x.name === y.name;
}

/** The name of a remark's colour; null for one without. */
export function colorOf({ color }: Pick<Remark, 'color'>): string | null {
  return color === null ? null : colorName(color);
}

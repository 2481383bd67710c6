import type { Remark } from '../model/remark.ts';
import type { Span } from '../text/span.ts';
import type { ShownMatch } from './items.ts';

/** Half of the shorter of two places in the other: they are about the same words. */
const SAME_WORDS = 0.5;

function isSame(x: Span, y: Span): boolean {
  const shared = Math.min(x.to, y.to) - Math.max(x.from, y.from);
  return shared > 0 && shared >= SAME_WORDS * Math.min(x.to - x.from, y.to - y.from);
}

/** What came back about the words of a match. */
export interface CameBack {
  /** The match of a report that came back; null where none did. */
  readonly reported: Remark | null;
  /** Other remarks about the same passage. */
  readonly beside: readonly Remark[];
}

/** @param placeOf where a remark's words are in the text; null where they are not */
export function cameBackAbout(
  match: ShownMatch,
  remarks: readonly Remark[],
  placeOf: (remark: Remark) => Span | null,
): CameBack {
  const about = remarks.filter((remark) => {
    const place = placeOf(remark);
    return place !== null && isSame(place, match.place);
  });
  return {
    reported: about.find(({ channel, computed }) => channel === 'overlap' && computed !== true) ?? null,
    beside: about.filter(({ channel }) => channel !== 'overlap'),
  };
}

/** The matches of reports that came back for which nothing was found here: their source's text is not. */
export function onlyReported(
  matches: readonly ShownMatch[],
  remarks: readonly Remark[],
  placeOf: (remark: Remark) => Span | null,
): Remark[] {
  return remarks.filter((remark) => {
    if (remark.channel !== 'overlap' || remark.computed === true) return false;
    const place = placeOf(remark);
    return place === null || !matches.some((match) => isSame(place, match.place));
  });
}

import type { ShownMatch } from './items.ts';

/** A match on the map of a text. */
interface Tick {
  readonly match: ShownMatch;
  /** Where it begins, and how much it takes, of the whole text: 0 to 1. */
  readonly top: number;
  readonly height: number;
  /** The band of its source, 0 and up, in the order in which sources come first. */
  readonly band: number;
  /** Whether its letter stands beside it. */
  readonly isNamed: boolean;
}

/** A text as a map: its matches, and how many bands they stand in. */
export interface TextMap {
  readonly ticks: readonly Tick[];
  /** One for each source, as long as they can be told apart. */
  readonly bands: number;
}

/** Bands that are narrower can't be told apart: sources that come later share the last one. */
const MOST_BANDS = 8;

/**
 * A text as a map: each match at its height in the band of its source, with its letter where there is room for one.
 * @param length of the text, in UTF-16 units
 * @param room a letter's height as a share of the map's
 */
export function mapOf(length: number, matches: readonly ShownMatch[], room: number): TextMap {
  const bandOf = new Map<string, number>();
  const inOrder = [...matches].sort((x, y) => x.place.from - y.place.from);
  let free = 0;
  const ticks = inOrder.map((match): Tick => {
    const band = bandOf.get(match.sourceId) ?? Math.min(bandOf.size, MOST_BANDS - 1);
    bandOf.set(match.sourceId, band);
    const top = match.place.from / Math.max(1, length);
    const isNamed = top >= free;
    if (isNamed) free = top + room;
    return {
      match,
      top,
      height: (match.place.to - match.place.from) / Math.max(1, length),
      band,
      isNamed,
    };
  });
  return { ticks, bands: Math.max(1, Math.min(bandOf.size, MOST_BANDS)) };
}

/** A line of a text that is set to be read has no more letters, so what begins farther apart begins in two. */
const LONGEST_LINE = 80;

/**
 * The columns of the margin that letters stand in: all in the first, but one that may begin in the line of the one before.
 * @param begins where matches begin in a paragraph, ascending
 */
export function columnsOf(begins: readonly number[]): (0 | 1)[] {
  const columns: (0 | 1)[] = [];
  begins.forEach((at, i) => {
    const isNear = i > 0 && at - begins[i - 1] < LONGEST_LINE;
    columns.push(isNear && columns[i - 1] === 0 ? 1 : 0);
  });
  return columns;
}

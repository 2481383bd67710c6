import type { Target } from '#core/model/remark.ts';
import { boundsOf } from '../pdf/bounds.ts';
import type { LaidOut } from '../pdf/write-pdf.ts';

/** Where a remark is marked on a PDF. Numbers are points from the lower left corner of the page's media box. */
export interface MarkPlace {
  /** From 0. */
  readonly page: number;
  /** Left, bottom, right, top. */
  readonly rect: readonly number[];
  /** A quad for each line: top left, top right, bottom left, bottom right; none for what lies on no words. */
  readonly quads: readonly (readonly number[])[];
  /** Strokes or corners as x y x y ...; none for what has no shape of its own. */
  readonly shape: readonly (readonly number[])[];
}

/** Places that a PDF's own remarks name. */
export function placesOfTargets(targets: readonly Target[]): MarkPlace[] {
  return targets.flatMap((target): MarkPlace[] => {
    if (target.kind === 'point')
      return [{ page: target.page - 1, rect: target.rect, quads: [], shape: target.shape }];
    if (target.kind !== 'words' || target.page === null) return [];
    const rect = target.rect ?? (target.quads.length === 0 ? null : boundsOf(target.quads.flat()));
    return rect === null ? [] : [{ page: target.page - 1, rect, quads: target.quads, shape: [] }];
  });
}

/** Places of words that were laid out line by line: one for each page they stand on. */
export function placesOfLines(lines: readonly LaidOut[]): MarkPlace[] {
  const places: MarkPlace[] = [];
  for (const page of new Set(lines.map((line) => line.page))) {
    const quads = joinedOnLines(lines.filter((line) => line.page === page)).map(quadOfRect);
    places.push({ page, rect: boundsOf(quads.flat()), quads, shape: [] });
  }
  return places;
}

/** Pieces of one line that follow one another, as one. */
function joinedOnLines(lines: readonly LaidOut[]): number[][] {
  const joined: number[][] = [];
  for (const { rect } of lines) {
    const last = joined.at(-1);
    const goesOn = last !== undefined && Math.abs(last[1] - rect[1]) < 1 && Math.abs(last[2] - rect[0]) < 2;
    if (goesOn) last[2] = rect[2];
    else joined.push([...rect]);
  }
  return joined;
}

function quadOfRect([left, bottom, right, top]: readonly number[]): number[] {
  return [left, top, right, top, left, bottom, right, bottom];
}

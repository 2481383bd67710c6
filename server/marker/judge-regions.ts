import type { Grey } from '#core/picture/grey.ts';
import type { RegionRule, WorkRules } from './marking-rules.ts';

type PictureFault = 'empty' | 'other';
export type RegionsJudged =
  | { readonly fault: PictureFault; readonly met: null }
  | { readonly fault: null; readonly met: readonly RegionRule[] };

/** Pixels darker than this were drawn. */
const DARK = 140;
/** Pixels on a side of the squares that are compared: a stroke that moved by a pixel or two is the same stroke. */
const SQUARE = 8;
/** A square in which the share of dark pixels differs by more than this was drawn anew. */
const DIFFERENT = 0.12;
/** How far a square may lie from where it was, in pixels: what is laid over one another never fits to the pixel. */
const SHIFTS = [-3, -2, -1, 0, 1, 2, 3];
/** Less of a region than this is dark where what was drawn there was only rubbed out. */
const LEAST_DRAWN = 0.004;

/**
 * Judges a new drawing by where it differs from the one that was marked: in each region something has to be drawn anew.
 * @param anew the new one, laid on the marked one and of its size in pixels
 */
export function judgeRegions(
  marked: Grey,
  anew: Grey,
  rules: Extract<WorkRules, { kind: 'files' }>,
): RegionsJudged {
  const whole = { left: 0, top: 0, width: marked.width, height: marked.height };
  const dark = darkShare(anew, whole);
  if (dark < rules.dark[0] || dark > rules.dark[1]) return { fault: 'empty', met: null };
  if (changedShare(marked, anew, whole) > rules.mostChanged) return { fault: 'other', met: null };
  const met = rules.regions.filter(({ box: [left, top, width, height] }) => {
    const region = { left, top, width, height };
    const drawn = darkShare(anew, region);
    return (
      drawn >= LEAST_DRAWN &&
      drawn <= rules.dark[1] &&
      changedShare(marked, anew, region) >= rules.leastChanged
    );
  });
  return { fault: null, met };
}

interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

function darkShare({ width, height, values }: Grey, box: Box): number {
  const [right, bottom] = [Math.min(width, box.left + box.width), Math.min(height, box.top + box.height)];
  let dark = 0;
  let all = 0;
  for (let y = Math.max(0, box.top); y < bottom; y++)
    for (let x = Math.max(0, box.left); x < right; x++) {
      all++;
      if (values[y * width + x] < DARK) dark++;
    }
  return all === 0 ? 0 : dark / all;
}

function changedShare(marked: Grey, anew: Grey, box: Box): number {
  let changed = 0;
  let all = 0;
  for (let top = box.top; top < box.top + box.height; top += SQUARE)
    for (let left = box.left; left < box.left + box.width; left += SQUARE) {
      const was = darkShare(marked, { left, top, width: SQUARE, height: SQUARE });
      all++;
      if (!isThere(anew, left, top, was)) changed++;
    }
  return all === 0 ? 0 : changed / all;
}

/** Whether what was dark in a square is so in the new drawing, there or right beside. */
function isThere(anew: Grey, left: number, top: number, was: number): boolean {
  return SHIFTS.some((down) =>
    SHIFTS.some((across) => {
      const square = { left: left + across, top: top + down, width: SQUARE, height: SQUARE };
      return Math.abs(was - darkShare(anew, square)) <= DIFFERENT;
    }),
  );
}

import { scaledTo, type Grey } from './grey.ts';

/** Width at which sharpness is looked at: a page of text photographed is read at about this width. */
const WIDTH = 1000;
/**
 * Softer edges than this are hard to read. Measured on pages of the demo's papers at 1,000, 1,600 and 2,400 pixels of
 * width: sharp 0.52 to 0.65; blurred (Gaussian, in pixels at this width) by 0.7: 0.47, by 1.5: 0.35, by 3: 0.23.
 */
const SHARP = 0.3;

/** How sharp a picture is, and whether that is enough to read small writing by. */
export interface Sharpness {
  /** From 0 (even or blurred) to 1 (edges within a pixel). */
  readonly edge: number;
  readonly sharp: boolean;
}

/**
 * How sharp a photographed page is: how much of its strongest edges lies within one pixel. At the steepest hundredth of
 * its pixels the step to the next pixel is set against the step over six pixels; a sharp edge has all of it in one.
 */
export function sharpnessOf(grey: Grey): Sharpness {
  const page =
    grey.width <= WIDTH
      ? grey
      : scaledTo(grey, WIDTH, Math.max(1, Math.round((grey.height / grey.width) * WIDTH)));
  const REACH = 3;
  const steps: { readonly near: number; readonly far: number }[] = [];
  const { width, height, values } = page;
  for (let y = REACH; y < height - REACH; y++)
    for (let x = REACH; x < width - REACH; x++) {
      const at = y * width + x;
      const far = Math.max(
        Math.abs(values[at + REACH] - values[at - REACH]),
        Math.abs(values[at + REACH * width] - values[at - REACH * width]),
      );
      const near = Math.max(Math.abs(values[at + 1] - values[at]), Math.abs(values[at + width] - values[at]));
      if (far > 0) steps.push({ near, far });
    }
  if (steps.length === 0) return { edge: 0, sharp: false };
  steps.sort((one, other) => other.far - one.far);
  const strongest = steps.slice(0, Math.max(50, Math.floor(steps.length / 100)));
  const near = strongest.map((step) => step.near).sort((one, other) => other - one);
  // The upper quarter: where the edge itself lies, not beside it.
  const upper = near.slice(0, Math.max(1, Math.floor(near.length / 4)));
  const mean = (list: readonly number[]) => list.reduce((sum, one) => sum + one, 0) / list.length;
  const edge = Math.min(1, mean(upper) / mean(strongest.map((step) => step.far)));
  return { edge, sharp: edge >= SHARP };
}

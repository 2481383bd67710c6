import { usePreferences } from '../../../shared/page/preferences.ts';
import { LEAST_SLIP } from '../slips/SlipEdge.tsx';

/** Between the paper and its slips, for the curves that join them. */
const CURVE_ROOM = 64;
/** Between the slips and the edge of the window. */
export const MARGIN = 20;

/** How wide the paper and its slips are in a place of this width: `fit` is all that is left beside the slips. */
export function useRooms(width: number, narrow: boolean, isText: boolean) {
  const chosenWidth = usePreferences((preferences) => preferences.slipWidth);
  const mostWidth = Math.max(LEAST_SLIP, width * 0.6);
  const usualWidth = Math.max(300, Math.min(486, width * 0.395));
  const slipWidth = narrow ? 0 : Math.max(LEAST_SLIP, Math.min(mostWidth, chosenWidth ?? usualWidth));
  const fit = Math.max(200, width - (narrow ? 0 : slipWidth + CURVE_ROOM + 44));
  const room = narrow ? width - 16 : Math.min(fit, isText ? 720 : 760);
  return { mostWidth, slipWidth, fit, room };
}

/** Where a paper of this width begins. */
export function leftOfPaper(
  narrow: boolean,
  side: 'left' | 'right',
  slipWidth: number,
  fit: number,
  paperWidth: number,
): number {
  const inFit = Math.max(22, (fit - paperWidth) / 2 + 22);
  return narrow ? 8 : side === 'left' ? MARGIN + slipWidth + CURVE_ROOM - 22 + inFit : inFit;
}

/** Where the slips stand beside a paper that ends at `right`, in a place of this width. */
export function besidePaper(
  narrow: boolean,
  side: 'left' | 'right',
  width: number,
  slipWidth: number,
  right: number,
) {
  const slipLeft = side === 'left' ? MARGIN : width - slipWidth - MARGIN;
  // What is wider than its room goes on below the slips, which stay in sight.
  const over = !narrow && (side === 'left' ? right > width : right + CURVE_ROOM - 1 > slipLeft);
  const edge = side === 'left' ? slipLeft + slipWidth + CURVE_ROOM / 2 : slipLeft - CURVE_ROOM / 2;
  return { slipLeft, over, edge };
}

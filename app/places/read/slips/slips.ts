import { useMemo } from 'react';
import { placeSlips, roomAbove, type SlipToPlace } from './slip-layout.ts';
import { COMPACT_SLIP, likelyHeight, sizeKey, SLIP_GAP, useHeights } from './slip-sizes.ts';
import type { Wanted } from '../paper/wanted.ts';

/** Stands for the slips that stand aside. */
export const ASIDE = 'aside';
/** How far above the middle of its passage's line a slip begins. */
const ABOVE = 16;
const MARGIN_BELOW = 24;
/** No slip stands above this. */
export const SLIPS_TOP = 12;

/** Where each slip stands, and which are folded to a line or stand aside so that the one in focus is level. */
export function useSlips(
  wants: readonly Wanted[],
  crowded: ReadonlySet<string>,
  focusedId: string | null,
  width: number,
) {
  const [heights, measure] = useHeights();
  const sizes = useMemo(
    () =>
      wants.map(({ id, y, remark }) => {
        const line = heights.get(sizeKey(id, true)) ?? COMPACT_SLIP;
        const full = heights.get(sizeKey(id, false)) ?? likelyHeight(remark, width);
        return { id, want: y - ABOVE, line, height: crowded.has(id) && id !== focusedId ? line : full };
      }),
    [wants, heights, crowded, focusedId, width],
  );
  return useMemo(() => {
    const { lines, aside } = roomAbove(sizes, SLIP_GAP, SLIPS_TOP, focusedId);
    const shown = sizes
      .filter(({ id }) => !aside.has(id))
      .map((slip) => (lines.has(slip.id) ? { ...slip, height: slip.line } : slip));
    const slips: readonly SlipToPlace[] =
      aside.size === 0 ? shown : [{ id: ASIDE, want: sizes[0].want, height: COMPACT_SLIP }, ...shown];
    const places = placeSlips(slips, SLIP_GAP, SLIPS_TOP, focusedId);
    const last = slips.at(-1);
    const end = last === undefined ? 0 : (places.get(last.id) ?? 0) + last.height + MARGIN_BELOW;
    return { slips, places, end, lines, aside, heights, measure };
  }, [sizes, focusedId, heights, measure]);
}

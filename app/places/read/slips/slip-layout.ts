/** One slip to be placed: where it would stand alone, and how tall it is, in pixels. */
export interface SlipToPlace {
  readonly id: string;
  readonly want: number;
  readonly height: number;
}

/** How much more than the others the slip in focus keeps its place. */
const FOCUS_WEIGHT = 10_000;

/**
 * Tops of slips below one another: in the given order, never overlapping, none above `top`, and as near to where each
 * wants to be as that allows (least squares with order constraints: pool adjacent violators). The one in focus stays
 * level with its passage.
 */
export function placeSlips(
  slips: readonly SlipToPlace[],
  gap: number,
  top: number,
  focusedId: string | null,
): Map<string, number> {
  // With the heights above taken off, "no overlap" becomes "not descending".
  const pools: { sum: number; weight: number; members: number }[] = [];
  let above = 0;
  const shifts: number[] = [];
  for (const { id, want, height } of slips) {
    const weight = id === focusedId ? FOCUS_WEIGHT : 1;
    let pool = { sum: (want - above) * weight, weight, members: 1 };
    shifts.push(above);
    above += height + gap;
    for (
      let last = pools.at(-1);
      last !== undefined && last.sum / last.weight > pool.sum / pool.weight;
      last = pools.at(-1)
    ) {
      pool = {
        sum: pool.sum + last.sum,
        weight: pool.weight + last.weight,
        members: pool.members + last.members,
      };
      pools.pop();
    }
    pools.push(pool);
  }
  const placed = new Map<string, number>();
  let index = 0;
  for (const { sum, weight, members } of pools)
    for (let i = 0; i < members; i++, index++)
      placed.set(slips[index].id, Math.max(top, sum / weight) + shifts[index]);
  return placed;
}

export interface SlipWithLine extends SlipToPlace {
  /** How tall it is when it is folded to one line. */
  readonly line: number;
}

/**
 * What makes room above the slip in focus, so that it can stand level with its passage: slips that fold to one line, and
 * where that isn't enough, slips that stand aside under one line that counts them; from the farthest on. Nothing where
 * there is room already, or nothing is in focus.
 */
export function roomAbove(
  slips: readonly SlipWithLine[],
  gap: number,
  top: number,
  focusedId: string | null,
): { readonly lines: ReadonlySet<string>; readonly aside: ReadonlySet<string> } {
  const lines = new Set<string>();
  const aside = new Set<string>();
  const focus = slips.findIndex(({ id }) => id === focusedId);
  if (focus < 1) return { lines, aside };
  const above = slips.slice(0, focus);
  let missing = above.reduce((sum, { height }) => sum + height + gap, top - slips[focus].want);
  for (const { id, height, line } of above) {
    if (missing <= 0) return { lines, aside };
    if (line >= height) continue;
    lines.add(id);
    missing -= height - line;
  }
  // The line that counts them needs room as well.
  if (missing > 0) missing += above[0].line + gap;
  for (const { id, line } of above) {
    if (missing <= 0) break;
    aside.add(id);
    missing -= line + gap;
  }
  return { lines, aside };
}

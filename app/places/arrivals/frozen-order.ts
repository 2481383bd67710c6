import { useState } from 'react';

interface Row {
  readonly id: string;
  readonly group: string;
}

/**
 * Keeps rows where they stand while they are looked at: one that is gone through stays in its place; one that comes in is
 * put where it belongs, unless it is held back. `again` sorts everything anew, with all that was held.
 */
export function useFrozenOrder(
  sorted: readonly Row[],
  held: ReadonlySet<string>,
): { rows: readonly Row[]; heldBack: number; again: () => void } {
  const [kept, setKept] = useState<readonly Row[]>([]);
  const wanted = new Set(sorted.map(({ id }) => id));
  const known = new Set(kept.map(({ id }) => id));
  const rows = kept.filter(({ id }) => wanted.has(id));
  let heldBack = 0;
  sorted.forEach((row, index) => {
    if (known.has(row.id)) return;
    if (held.has(row.id)) heldBack++;
    else rows.splice(index, 0, row);
  });
  const same = rows.length === kept.length && rows.every(({ id }, i) => id === kept[i].id);
  if (!same) setKept(rows);
  return { rows, heldBack, again: () => setKept(sorted) };
}

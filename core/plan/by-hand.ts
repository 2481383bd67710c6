import type { PlacedBlock } from './place.ts';
import type { Span } from './spans.ts';

/** Why a block can't be set to a time by hand. */
export type NotThen =
  | { readonly kind: 'over' }
  /** Another block was set there by hand. */
  | { readonly kind: 'taken'; readonly by: PlacedBlock }
  | { readonly kind: 'busy'; readonly title: string };

/** Why a block can't be set to a time; null where it can: whatever is placed there goes elsewhere. */
export function whyNotThen(
  block: PlacedBlock,
  to: Span,
  blocks: readonly PlacedBlock[],
  busy: readonly (Span & { readonly title: string })[],
  nowMs: number,
): NotThen | null {
  const meets = (one: Span) => one.from < to.to && to.from < one.to;
  if (to.to <= nowMs) return { kind: 'over' };
  const by = blocks.find((one) => one.pinned && one.id !== block.id && meets(one));
  if (by !== undefined) return { kind: 'taken', by };
  const at = busy.find(meets);
  return at === undefined ? null : { kind: 'busy', title: at.title };
}

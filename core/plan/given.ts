import type { Instant } from '../model/ids.ts';
import { instantOf } from '../model/ids.ts';
import type { PlacedBlock } from './place.ts';

/** What a calendar was given of the blocks. */

/** A block as an event of a calendar. */
export interface GivenBlock {
  /** The first of its tasks, and which of that task's blocks it is: the same whenever it is given again. */
  readonly uid: string;
  readonly title: string;
  readonly from: Instant;
  readonly to: Instant;
  /** How often it was changed since it was first given. */
  readonly sequence: number;
}

/**
 * The blocks to give now, and those that were given and are no more, with their numbers counted on where they changed.
 * @param known what was given last
 */
export function blocksToGive(
  known: readonly GivenBlock[],
  blocks: readonly PlacedBlock[],
  titleOf: (block: PlacedBlock) => string,
): { readonly blocks: readonly GivenBlock[]; readonly gone: readonly GivenBlock[] } {
  const knownByUid = new Map(known.map((one) => [one.uid, one]));
  const ordinals = new Map<string, number>();
  const now = blocks.map((block): GivenBlock => {
    const [taskId] = block.taskIds;
    const ordinal = ordinals.get(taskId) ?? 0;
    ordinals.set(taskId, ordinal + 1);
    const uid = `${taskId}/${ordinal}`;
    const next = { uid, title: titleOf(block), from: instantOf(block.from), to: instantOf(block.to) };
    const before = knownByUid.get(uid);
    if (before === undefined) return { ...next, sequence: 0 };
    const isSame = before.title === next.title && before.from === next.from && before.to === next.to;
    return { ...next, sequence: before.sequence + (isSame ? 0 : 1) };
  });
  const uids = new Set(now.map(({ uid }) => uid));
  const gone = known.filter(({ uid }) => !uids.has(uid));
  return { blocks: now, gone: gone.map((one) => ({ ...one, sequence: one.sequence + 1 })) };
}

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
  /** It was cancelled when it was given last. */
  readonly gone: boolean;
}

/** What a calendar is given now, and what is known of it from then on. */
interface Giving {
  readonly blocks: readonly GivenBlock[];
  /** What was given and is no more. */
  readonly gone: readonly GivenBlock[];
  readonly known: readonly GivenBlock[];
}

/**
 * The blocks to give now, and those that were given and are no more, with their numbers counted on where they changed. What is
 * over is left as it stands in the calendar.
 * @param known what is known of what was given before
 */
export function blocksToGive(
  known: readonly GivenBlock[],
  blocks: readonly PlacedBlock[],
  titleOf: (block: PlacedBlock) => string,
  nowMs: number,
): Giving {
  const knownByUid = new Map(known.map((one) => [one.uid, one]));
  const ordinals = new Map<string, number>();
  const now = blocks.map((block): GivenBlock => {
    const [taskId] = block.taskIds;
    const ordinal = ordinals.get(taskId) ?? 0;
    ordinals.set(taskId, ordinal + 1);
    const uid = `${taskId}/${ordinal}`;
    const next = {
      uid,
      title: titleOf(block),
      from: instantOf(block.from),
      to: instantOf(block.to),
      gone: false,
    };
    const before = knownByUid.get(uid);
    if (before === undefined) return { ...next, sequence: 0 };
    const isSame =
      !before.gone && before.title === next.title && before.from === next.from && before.to === next.to;
    return { ...next, sequence: before.sequence + (isSame ? 0 : 1) };
  });
  const uids = new Set(now.map(({ uid }) => uid));
  const others = known.filter(({ uid }) => !uids.has(uid));
  const isGone = ({ gone, to }: GivenBlock) => !gone && Date.parse(to) > nowMs;
  const gone = others.filter(isGone).map((one) => ({ ...one, gone: true, sequence: one.sequence + 1 }));
  // A number that was used is never used again for less, whatever comes of the task.
  return { blocks: now, gone, known: [...now, ...gone, ...others.filter((one) => !isGone(one))] };
}

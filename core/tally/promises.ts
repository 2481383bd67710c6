import type { PromiseId } from '../model/ids.ts';
import type { Channel } from '../model/channels.ts';
import { CHANNELS_BY_PROMISE, type PromisePlace } from '../model/promises.ts';
import type { Remark } from '../model/remark.ts';
import type { PromiseNote } from '../model/work.ts';
import type { Saying } from '../saying/saying.ts';
import { promiseIdOf } from '../model/own-ids.ts';

/** More feedback that is said to be somewhere, and whether it is. */
export interface Promised {
  readonly id: PromiseId;
  /** The remark that says so; null for a promise made elsewhere, put in by hand. */
  readonly remark: Remark | null;
  readonly said: string;
  readonly place: PromisePlace;
  /** kept: it is here; coming: files that may hold it are announced and not read yet. */
  readonly state: 'kept' | 'missing' | 'coming' | 'in person' | 'dismissed';
  /** What it means, where it is kept. */
  readonly kept: readonly Remark[];
}

/** Remarks in these channels speak of the work as a whole; within the paper "see above" is no promise of more. */
const SPEAKS_OF_ALL: ReadonlySet<Channel> = new Set([
  'overall',
  'criterion',
  'recording',
  'question',
  'post',
]);

/**
 * What was promised for an assignment: found in remarks about the whole, or put in by hand; each kept, missing, or set
 * aside by the student.
 * @param announced by channel, how many remarks files that were not read yet are said to hold
 * @param sayings what remarks were found to say, by their ids
 */
export function promisesOf(
  remarks: readonly Remark[],
  notes: readonly PromiseNote[],
  announced: Partial<Record<Channel, number>>,
  sayings: ReadonlyMap<string, Saying>,
): Promised[] {
  const noteById = new Map(notes.map((note) => [note.id as string, note]));
  const stateOf = (place: PromisePlace, maker: Remark | null, dismissed: boolean) => {
    const channels = CHANNELS_BY_PROMISE[place];
    const kept = remarks.filter(
      (remark) =>
        channels.includes(remark.channel) &&
        remark.id !== maker?.id &&
        !remark.withdrawn &&
        (maker === null ||
          (remark.attemptId === maker.attemptId && remark.author.name === maker.author.name)),
    );
    if (dismissed) return { state: 'dismissed' as const, kept };
    if (kept.length > 0) return { state: 'kept' as const, kept };
    if (channels.length === 0) return { state: 'in person' as const, kept };
    const coming = channels.some((channel) => (announced[channel] ?? 0) > 0);
    return { state: coming ? ('coming' as const) : ('missing' as const), kept };
  };
  const found = remarks.flatMap((remark): Promised[] => {
    if (!SPEAKS_OF_ALL.has(remark.channel) || remark.withdrawn) return [];
    const saying = sayings.get(remark.id);
    const place = saying?.promise ?? null;
    if (saying === undefined || place === null) return [];
    const id = promiseIdOf(remark.id);
    const said = saying.promiseSaid ?? remark.text;
    return [{ id, remark, said, place, ...stateOf(place, remark, noteById.get(id)?.dismissed === true) }];
  });
  const byHand = notes
    .filter(({ remarkId }) => remarkId === null)
    .map(({ id, said, place, dismissed }): Promised => ({
      id,
      remark: null,
      said,
      place,
      ...stateOf(place, null, dismissed),
    }));
  return [...found, ...byHand];
}

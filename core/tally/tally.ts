import { channels, type Channel } from '../model/channels.ts';
import type { Remark } from '../model/remark.ts';
import type { Judgement, Reading } from '../model/work.ts';
import { wordingMark } from '../reading/need.ts';
import { isDecided } from './decided.ts';

interface ChannelCount {
  readonly channel: Channel;
  readonly received: number;
  readonly read: number;
  readonly decided: number;
  /** Said to have come by the school, but not counted yet since their file was not read. */
  readonly announced: number;
}

/** What came back for an assignment, by channel; channels in which nothing came are left out. */
export interface Tally {
  readonly byChannel: readonly ChannelCount[];
  readonly received: number;
  readonly read: number;
  readonly decided: number;
}

/** Whether a remark was read as it stands now: what the school changed later is unread again. */
export function isRead(remark: Remark, reading: Reading | undefined): boolean {
  return reading?.read === true && reading.of === wordingMark(remark);
}

/**
 * Counts remarks by channel; what was found here by comparing is none that came back.
 * @param announced by channel, how many remarks files that were not read yet are said to hold
 */
export function tallyOf(
  remarks: readonly Remark[],
  readings: ReadonlyMap<string, Reading>,
  judgements: ReadonlyMap<string, Judgement>,
  announced: Partial<Record<Channel, number>> = {},
): Tally {
  const byChannel = channels
    .map((channel) => {
      const own = remarks.filter((remark) => remark.channel === channel && remark.computed !== true);
      return {
        channel,
        received: own.length,
        read: own.filter((remark) => isRead(remark, readings.get(remark.id))).length,
        decided: own.filter((remark) => isDecided(judgements.get(remark.id))).length,
        announced: announced[channel] ?? 0,
      };
    })
    .filter((count) => count.received > 0 || count.announced > 0);
  const sum = (of: (count: ChannelCount) => number) =>
    byChannel.reduce((total, count) => total + of(count), 0);
  return {
    byChannel,
    received: sum((c) => c.received),
    read: sum((c) => c.read),
    decided: sum((c) => c.decided),
  };
}

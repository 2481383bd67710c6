import ical, { ICalAlarmType, ICalCalendarMethod, ICalEventStatus } from 'ical-generator';
import type { GivenBlock } from '#core/plan/given.ts';
import type { Instant } from '#core/model/ids.ts';

/** Minutes before a block at which a calendar reminds of it. */
const ALARM_MINUTES = 10;

/**
 * Blocks as a calendar (RFC 5545). One that was given before keeps its id and counts on, so that it is moved and not put in
 * twice; one that is no more is cancelled.
 * @param says what is done in each block, by its uid
 */
export function writeCalendar(
  name: string,
  blocks: readonly GivenBlock[],
  gone: readonly GivenBlock[],
  says: (block: GivenBlock) => string,
  at: Instant,
): string {
  const calendar = ical({ name, method: ICalCalendarMethod.PUBLISH });
  calendar.prodId({ company: 'Juncture', product: 'Juncture', language: 'EN' });
  const put = (block: GivenBlock, isGone: boolean) => {
    const event = calendar.createEvent({
      id: block.uid,
      start: new Date(block.from),
      end: new Date(block.to),
      stamp: new Date(at),
      summary: block.title,
      description: says(block),
      sequence: block.sequence,
      status: isGone ? ICalEventStatus.CANCELLED : ICalEventStatus.CONFIRMED,
    });
    if (!isGone) event.createAlarm({ type: ICalAlarmType.display, trigger: ALARM_MINUTES * 60 });
  };
  for (const block of blocks) put(block, false);
  for (const block of gone) put(block, true);
  return calendar.toString();
}

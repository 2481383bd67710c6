import type { Remark } from '../model/remark.ts';
import { shortMark } from '../model/short-mark.ts';
import { countWords } from '../text/words.ts';

const GLANCE_MS = 600;
const MS_PER_WORD = 250;

/** How long a remark has to be in view to count as read: 0.6 s, and a second for every four words. */
export function readingNeedMs(text: string): number {
  return GLANCE_MS + MS_PER_WORD * countWords(text);
}

/** A remark never changes: its mark is made once. */
const marks = new WeakMap<Remark, string>();

/**
 * A mark of what a remark says and where. A reading holds for this wording only: when text, targets, criterion,
 * proposed change or points are others, the remark is unread again.
 */
export function wordingMark(remark: Remark): string {
  const known = marks.get(remark);
  if (known !== undefined) return known;
  const { text, targets, criterionId, change, points } = remark;
  // Points are left out where there are none, so that readings from before they were told still hold.
  const said = JSON.stringify([text, targets, criterionId, change, ...(points === null ? [] : [points])]);
  const mark = shortMark(said);
  marks.set(remark, mark);
  return mark;
}

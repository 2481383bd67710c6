import { targetsOf } from '../anchors/elsewhere.ts';
import { passagesOf } from '../anchors/passages.ts';
import { answerKey } from '../model/own-ids.ts';
import type { Remark } from '../model/remark.ts';
import { CALLS_FOR_CHANGE } from '../saying/saying.ts';
import { stanceOf, type Understood } from '../saying/saying-of.ts';
import { decidedThings, isDecided } from '../tally/decided.ts';
import type { Span } from '../text/span.ts';
import type { Squeezed } from '../text/squeeze.ts';
import type { Sought } from './find.ts';

/** A paper that was marked: its file, its text, and where remarks hang in it. */
interface MarkedText {
  readonly hash: string;
  readonly squeezed: Squeezed;
  readonly anchors: Readonly<Record<string, Span>>;
}

/**
 * The remarks whose answers are looked for, by `answerKey`: each as a whole, and its parts once they are decided apart.
 * @param marked null where nothing was marked: no remark is about words then
 */
export function soughtOf(
  remarks: readonly Remark[],
  understood: Understood,
  marked: MarkedText | null,
): Sought[] {
  return remarks.flatMap((remark): Sought[] => {
    const onIt = marked !== null && remark.paperHash === marked.hash;
    const anchor = onIt ? (marked.anchors[remark.id] ?? null) : null;
    const passages = onIt
      ? passagesOf(targetsOf(remark, understood.judgements), anchor, marked.squeezed)
      : [];
    const judgement = understood.judgements.get(remark.id);
    const things = judgement === undefined ? [] : decidedThings(judgement);
    const stance = stanceOf(remark.id, understood);
    const acts = things.some(({ decision }) => decision === 'act');
    const calls = acts || (!isDecided(judgement) && stance !== null && CALLS_FOR_CHANGE.has(stance));
    const parts = things.flatMap(({ partId, decision }) => {
      const part = judgement?.parts.find(({ id }) => id === partId);
      if (part === undefined) return [];
      const id = answerKey({ remarkId: remark.id, partId });
      return [{ id, text: part.quote, calls: decision === 'act', passages }];
    });
    // What its parts claim the whole need not.
    return [{ id: remark.id, text: remark.text, calls: calls && parts.length === 0, passages }, ...parts];
  });
}

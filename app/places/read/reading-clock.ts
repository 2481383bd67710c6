import { useWorkspace } from '../../workspace/use-workspace.ts';
import { useEffect, useLayoutEffect, useRef, type RefObject } from 'react';
import type { Remark } from '#core/model/remark.ts';
import { readingNeedMs, wordingMark } from '#core/reading/need.ts';
import { isRead } from '#core/tally/tally.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { addReadingTime } from '../../workspace/commands/reading.ts';
import { isWholeIn } from './paper/geometry.ts';

const LOOKS_EVERY_MS = 200;
/** A longer pause between two looks was no reading: the computer slept, or the page was hidden. */
const LONGEST_STEP_MS = 1000;
/** Time that wasn't enough yet is kept when so much has come together. */
const KEEP_FROM_MS = 1000;

/** The slip that is being read: the one in focus, else the topmost, if it is wholly in view and unfolded. */
function slipBeingRead(frame: Element, focusedId: string | null): string | null {
  const slips = [...frame.querySelectorAll<HTMLElement>('[data-slip]')];
  const whole = (slip: HTMLElement | undefined) =>
    slip !== undefined && slip.dataset.folded !== 'true' && isWholeIn(slip, frame);
  const focused = slips.find((slip) => slip.dataset.slip === focusedId);
  if (focused !== undefined) return whole(focused) ? (focused.dataset.slip ?? null) : null;
  const byTop = slips.toSorted((x, y) => x.getBoundingClientRect().top - y.getBoundingClientRect().top);
  return byTop.find(whole)?.dataset.slip ?? null;
}

/** Gives time to the slip that is being read; when a remark has had enough it counts as read. */
export function useReadingClock(
  frame: RefObject<HTMLElement | null>,
  view: AssignmentView,
  focusedId: string | null,
): void {
  const workspace = useWorkspace();
  const latest = useRef({ view, focusedId });
  useLayoutEffect(() => {
    latest.current = { view, focusedId };
  });
  useEffect(() => {
    const unkept = new Map<string, number>();
    let before = performance.now();
    const keep = (remark: Remark, read: boolean) => {
      const ms = unkept.get(remark.id) ?? 0;
      unkept.set(remark.id, 0);
      if (ms > 0 || read) void addReadingTime(workspace, remark, ms, read);
    };
    const keepAll = () => {
      for (const remark of latest.current.view.remarks)
        if ((unkept.get(remark.id) ?? 0) > 0) keep(remark, false);
    };
    const look = () => {
      const now = performance.now();
      const step = Math.min(now - before, LONGEST_STEP_MS);
      before = now;
      if (frame.current === null || document.visibilityState !== 'visible') return;
      const id = slipBeingRead(frame.current, latest.current.focusedId);
      const remark = latest.current.view.remarks.find((r) => r.id === id);
      if (remark === undefined) return;
      const reading = latest.current.view.readings.get(remark.id);
      if (isRead(remark, reading)) return;
      const ms = (unkept.get(remark.id) ?? 0) + step;
      unkept.set(remark.id, ms);
      const kept = reading?.of === wordingMark(remark) ? reading.seenMs : 0;
      if (kept + ms >= readingNeedMs(remark.text)) keep(remark, true);
      else if (ms >= KEEP_FROM_MS) keep(remark, false);
    };
    const timer = setInterval(look, LOOKS_EVERY_MS);
    document.addEventListener('visibilitychange', keepAll);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', keepAll);
      keepAll();
    };
  }, [frame, workspace]);
}

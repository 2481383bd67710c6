import { useEffect, useLayoutEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { create } from 'zustand';
import { firstFrom } from '#core/text/ascending.ts';
import type { ReadPaper } from '../../../workspace/storage/records.ts';
import { isWholeIn } from './geometry.ts';
import type { Wanted } from './wanted.ts';

/** What is drawn reaches so far beyond what is in sight, and changes in steps of so much scrolling. */
const AROUND = 1100;
const SIGHT_STEP = 400;
/** How far down in what is in sight one reads. */
const EYE = 0.4;

/** What of the paper is in sight; known apart, so that scrolling doesn't render the whole desk anew. */
export const useSight = create<{
  /** Shares of the pages: 1.5 is the middle of the second. */
  readonly from: number;
  readonly to: number;
  readonly page: number;
}>(() => ({ from: 0, to: 1, page: 1 }));

/** Tells which part of the paper is in sight; returns how far it is to be drawn. */
export function useDrawnPart(
  scroller: RefObject<HTMLDivElement | null>,
  tops: readonly number[],
  pages: ReadPaper['pages'],
  scale: number,
  /** The page whose words one reads, where pages are not what is shown; null where they are. */
  flowPage: ((element: HTMLElement) => number | null) | null,
) {
  const [drawn, setDrawn] = useState({ top: -AROUND, bottom: 2 * AROUND });
  useEffect(() => {
    const element = scroller.current;
    if (element === null) return;
    const at = (y: number) => {
      const index = Math.max(
        0,
        tops.findLastIndex((top) => top <= y),
      );
      return index + Math.min(1, Math.max(0, (y - tops[index]) / (pages[index].height * scale)));
    };
    const look = () => {
      const { scrollTop, clientHeight } = element;
      // A quarter of a page is as fine as the strip tells.
      const from = Math.floor(at(scrollTop) * 4) / 4;
      const to = Math.ceil(at(scrollTop + clientHeight) * 4) / 4;
      const known = useSight.getState();
      const page =
        flowPage === null
          ? Math.min(pages.length, Math.floor(at(scrollTop + clientHeight * EYE)) + 1)
          : (flowPage(element) ?? known.page);
      if (known.from !== from || known.to !== to || known.page !== page)
        useSight.setState({ from, to, page });
      const top = Math.floor((scrollTop - AROUND) / SIGHT_STEP) * SIGHT_STEP;
      const bottom = Math.ceil((scrollTop + clientHeight + AROUND) / SIGHT_STEP) * SIGHT_STEP;
      setDrawn((known) => (known.top === top && known.bottom === bottom ? known : { top, bottom }));
    };
    look();
    element.addEventListener('scroll', look, { passive: true });
    return () => element.removeEventListener('scroll', look);
  }, [scroller, tops, pages, scale, flowPage]);
  return drawn;
}

/**
 * The pages of a PDF that is shown as text that flows: which one's words one reads, and where those of one begin.
 * @param starts where in the text the words of each page begin
 */
export function useFlowPages(starts: readonly number[] | null) {
  return useMemo(() => {
    if (starts === null || starts.length < 2) return null;
    return {
      count: starts.length,
      pageIn: (scroller: HTMLElement): number | null => {
        const sheet = scroller.querySelector('[data-sheet]')?.getBoundingClientRect();
        const { top, height } = scroller.getBoundingClientRect();
        if (sheet === undefined) return null;
        const there = document.elementFromPoint(sheet.left + sheet.width * EYE, top + height * EYE);
        const from = there?.closest<HTMLElement>('[data-from]')?.dataset.from;
        return from === undefined ? null : firstFrom(starts, Number(from) + 1);
      },
      scrollTo: (scroller: HTMLElement, page: number): void => {
        const first = [...scroller.querySelectorAll<HTMLElement>('[data-from]')].find(
          ({ dataset }) => Number(dataset.from) >= starts[page - 1],
        );
        if (first === undefined) return;
        const by = first.getBoundingClientRect().top - scroller.getBoundingClientRect().top;
        scroller.scrollTo({ top: scroller.scrollTop + by - 8 });
      },
    };
  }, [starts]);
}

/**
 * Keeps what is in sight where it is when the paper becomes larger or smaller.
 * @param unit how many pixels a point of the paper has, or the height of a text that flows anew
 * @param both also sideways
 */
export function useKeptPlace(
  scroller: RefObject<HTMLDivElement | null>,
  tops: readonly number[],
  unit: number,
  both: boolean,
): void {
  const before = useRef({ tops, unit });
  useLayoutEffect(() => {
    const was = before.current;
    before.current = { tops, unit };
    const element = scroller.current;
    // Nothing was laid out yet, or it is another paper.
    if (element === null || was.unit === unit || was.unit <= 0 || was.tops.length !== tops.length) return;
    if (element.scrollTop > 0) {
      const eye = element.clientHeight * EYE;
      const index = Math.max(
        0,
        was.tops.findLastIndex((top) => top <= element.scrollTop + eye),
      );
      const into = (element.scrollTop + eye - was.tops[index]) / was.unit;
      element.scrollTo({ top: tops[index] + into * unit - eye });
    }
    if (both) {
      const half = element.clientWidth / 2;
      element.scrollTo({ left: ((element.scrollLeft + half) * unit) / was.unit - half });
    }
  }, [scroller, tops, unit, both]);
}

/** Scrolls when the focus changes, and only as far as needed to have the pair in sight. */
export function useBringIntoSight(
  scroller: RefObject<HTMLDivElement | null>,
  ready: boolean,
  focusedId: string | null,
  wants: readonly Wanted[],
  places: ReadonlyMap<string, number>,
  heights: ReadonlyMap<string, number>,
  /** From where to where of the window the paper is seen. */
  room: { readonly from: number; readonly to: number },
  /** Whether no slips stand beside the paper. */
  narrow: boolean,
): void {
  const { from, to } = room;
  const shown = useRef<string | null>(null);
  useEffect(() => {
    const element = scroller.current;
    const wanted = wants.find(({ id }) => id === focusedId);
    if (element === null || !ready || wanted === undefined || shown.current === focusedId) return;
    if (!narrow && !heights.has(wanted.id)) return;
    shown.current = focusedId;
    const mark = element.querySelector(`[data-mark="${CSS.escape(wanted.id)}"]`);
    const slip = element.querySelector(`[data-slip="${CSS.escape(wanted.id)}"]`);
    const inSight = (part: Element | null, missing: boolean) =>
      part === null ? missing : isWholeIn(part, element);
    const { scrollLeft } = element;
    const { x } = wanted;
    // A passage that is wider than its room is shown from its beginning on.
    const [first, last] = [x.from - from - 12, Math.min(x.to, x.from + to - from - 24) - to + 12];
    const aside = Math.max(last, Math.min(scrollLeft, first));
    if (aside !== scrollLeft) element.scrollTo({ left: Math.max(0, aside) });
    // A page that isn't drawn is out of sight; on a narrow screen there is no slip beside the paper.
    if (inSight(mark, false) && inSight(slip, true)) return;
    const top = narrow ? wanted.y : Math.min(wanted.y, places.get(wanted.id) ?? wanted.y);
    element.scrollTo({ top: Math.max(0, top - element.clientHeight * (narrow ? 0.35 : 0.28)) });
  }, [scroller, ready, focusedId, wants, places, heights, from, to, narrow]);
}

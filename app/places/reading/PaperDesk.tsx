import clsx from 'clsx';
import type { PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { Remark } from '#core/model/remark.ts';
import { saidBy } from '../../shared/said.ts';
import { Slip } from '../../shared/Slip.tsx';
import { useNarrow, useSize } from '../../shared/hooks.ts';
import { words } from '../../words/en.ts';
import type { AssignmentView } from '../../workspace/assignment-view.ts';
import type { ReadPaper } from '../../workspace/records.ts';
import type { Layout } from '#core/paper/layout.ts';
import type { PageSize } from '#formats/marked-paper.ts';
import { isWholeIn, marksOf, pageTops, shownOnPage, type Box } from './geometry.ts';
import type { TextState } from './layout-segments.ts';
import type { Region } from './DrawRegion.tsx';
import { Page } from './Page.tsx';
import { NOT_MEASURED, TextSheet, type TextPlaces } from './TextSheet.tsx';
import type { ReadingState } from './reading-state.ts';
import { placeSlips } from './slip-layout.ts';
import { Strip } from './Strip.tsx';

const UPRIGHT = [1, 0, 0, 1, 0, 0];
const SLIP_GAP = 9;
const CURVE_ROOM = 64;
/** A slip that was never drawn is taken to be as tall as its words make it at these measures. */
const SLIP_FRAME = 60;
const SLIP_LINE = 22;
const LETTER_WIDTH = 7.4;
const MOST_LINES = 4;
/** What is drawn reaches so far beyond what is in sight, and changes in steps of so much scrolling. */
const AROUND = 1100;
const SIGHT_STEP = 400;
/** Slips fold to one line where those of a page would stand more than so many pages tall. */
const CROWDED_FROM = 1.6;
const COMPACT_SLIP = 38;

/** What the paper is drawn from: a PDF, a picture, or a layout of which one state is shown. */
export type Shown =
  | { readonly kind: 'pdf'; readonly document: PDFDocumentProxy }
  | { readonly kind: 'picture'; readonly url: string }
  | { readonly kind: 'text'; readonly layout: Layout; readonly state: TextState };

export interface PaperDeskProps {
  readonly view: AssignmentView;
  readonly marked: ReadPaper;
  readonly show: Shown;
  readonly remarks: readonly Remark[];
  readonly focusedId: string | null;
  readonly onFocus: (id: string) => void;
  /** 1 fits the width, 'page' the whole of a page. */
  readonly zoom: ReadingState['zoom'];
  /** A page to go to, each time that the count is another. */
  readonly going: { readonly page: number; readonly times: number };
  readonly onPage: (page: number) => void;
  /** Where a part of the picture is being drawn for a remark: takes what was drawn. */
  readonly onDrawn: ((region: Region) => void) | null;
}

/** The paper with its marks, the slips level with them, and the curves that join them. */
export function PaperDesk({
  view,
  marked,
  show,
  remarks,
  focusedId,
  onFocus,
  zoom,
  going,
  onPage,
  onDrawn,
}: PaperDeskProps) {
  const narrow = useNarrow();
  // What is shown may have the place of a double; what is decided about is the remark itself.
  const byId = useMemo(() => new Map(view.remarks.map((remark) => [remark.id, remark])), [view.remarks]);
  const [hoveredId, setHoveredId] = useState<string | null>(null);
  const [scroller, size] = useSize<HTMLDivElement>();
  const [measured, setMeasured] = useState<TextPlaces>(NOT_MEASURED);
  const isText = show.kind === 'text';
  const slipWidth = narrow ? 0 : Math.max(300, Math.min(486, size.width * 0.395));
  const fit = Math.max(200, size.width - (narrow ? 0 : slipWidth + CURVE_ROOM + 44));
  const room = narrow ? size.width - 16 : Math.min(fit, isText ? 720 : 760);
  const pages = useMemo(
    () =>
      isText ? [{ width: Math.max(1, room), height: measured.height, transform: UPRIGHT }] : marked.pages,
    [isText, room, measured.height, marked.pages],
  );
  const widest = Math.max(...pages.map((page) => page.width));
  // Text grows in its column; pages and pictures grow as a whole.
  const tallest = Math.max(...pages.map((page) => page.height));
  const factor =
    zoom === 'page' ? Math.min(1, (size.height - 2 * PAGE_GAP_TOP) / tallest / (room / widest)) : zoom;
  const scale = isText ? 1 : (room / widest) * Math.max(LEAST_FACTOR, factor);
  const left = narrow ? 8 : Math.max(22, (fit - widest * scale) / 2 + 22);
  const { tops, height: papersHeight } = useMemo(() => pageTops(pages, scale), [pages, scale]);
  const boxesOf = useCallback(
    (remark: Remark, page: PageSize, at: number) => {
      const box = measured.byRemark.get(remark.id);
      return isText ? (box === undefined ? [] : [box]) : marksOf(remark, page, at);
    },
    [isText, measured],
  );
  const remarksByPage = useMemo(() => groupByPage(remarks, isText), [remarks, isText]);
  const paperRight = left + widest * scale;
  const slipLeft = Math.max(paperRight + CURVE_ROOM, size.width - slipWidth - 20);
  const [heights, measure] = useHeights();
  const wants = useMemo(
    () => wantedPlaces(remarksByPage, pages, tops, scale, boxesOf),
    [remarksByPage, pages, tops, scale, boxesOf],
  );
  const compact = useMemo(
    () => (isText ? NONE : crowdedIds(remarksByPage, pages, scale, slipWidth)),
    [isText, remarksByPage, pages, scale, slipWidth],
  );
  const slips = useMemo(
    () =>
      wants.map(({ id, y, remark }) => ({
        id,
        want: y - 16,
        height:
          heights.get(id) ??
          (compact.has(id) && id !== focusedId ? COMPACT_SLIP : likelyHeight(remark, slipWidth)),
      })),
    [wants, heights, compact, focusedId, slipWidth],
  );
  const places = useMemo(() => placeSlips(slips, SLIP_GAP, PAGE_GAP_TOP, focusedId), [slips, focusedId]);
  const last = slips.at(-1);
  const slipsEnd = last === undefined ? 0 : (places.get(last.id) ?? 0) + last.height + 24;
  const height = narrow ? papersHeight : Math.max(papersHeight, slipsEnd);
  const { inSight, drawn } = useInSight(scroller, tops, pages, scale, onPage);
  const isDrawn = (top: number, tall: number) => top < drawn.bottom && top + tall > drawn.top;
  const slipsDrawn = new Set(
    slips.flatMap(({ id, height: tall }) =>
      id === focusedId || isDrawn(places.get(id) ?? 0, tall) ? [id] : [],
    ),
  );
  const ready = size.width > 0;

  useBringIntoSight(scroller, ready, focusedId, wants, places, heights, narrow);
  const toPage = (page: number) => scroller.current?.scrollTo({ top: tops[page - 1] - 8 });
  const gone = useRef(going.times);
  useEffect(() => {
    if (gone.current === going.times) return;
    gone.current = going.times;
    scroller.current?.scrollTo({ top: tops[going.page - 1] - 8 });
  }, [scroller, going, tops]);

  return (
    <div className="flex h-full">
      {!narrow && (
        <Strip
          view={view}
          pages={pages}
          remarksByPage={remarksByPage}
          inSight={inSight}
          height={size.height}
          boxesOf={boxesOf}
          onPage={toPage}
        />
      )}
      <div
        ref={scroller}
        tabIndex={-1}
        className="relative min-w-0 flex-1 overflow-auto outline-none"
        data-scroller
      >
        {ready && (
          <div
            className="relative"
            style={{ height, minWidth: narrow ? paperRight + 8 : slipLeft + slipWidth + 16 }}
          >
            {show.kind === 'text' ? (
              <TextSheet
                layout={show.layout}
                state={show.state}
                paper={marked}
                remarks={remarks}
                numberByRemark={view.numberByRemark}
                focusedId={focusedId}
                hoveredId={hoveredId}
                zoom={zoom === 'page' ? 1 : zoom}
                place={{ left, top: tops[0], width: room }}
                onFocus={onFocus}
                onHover={setHoveredId}
                onMeasured={setMeasured}
              />
            ) : (
              pages.map((page, index) =>
                !isDrawn(tops[index], page.height * scale) ? null : (
                  <Page
                    key={index}
                    show={show}
                    number={index + 1}
                    size={page}
                    scale={scale}
                    top={tops[index]}
                    left={left}
                    paperHash={marked.hash}
                    remarks={remarksByPage.get(index + 1) ?? []}
                    numberByRemark={view.numberByRemark}
                    focusedId={focusedId}
                    hoveredId={hoveredId}
                    onFocus={onFocus}
                    onHover={setHoveredId}
                    onDrawn={onDrawn}
                  />
                ),
              )
            )}
            {!narrow && (
              <>
                <Curves
                  ends={wants
                    .filter(({ id, y }) => slipsDrawn.has(id) || isDrawn(y, 1))
                    .map(({ id, y }) => ({
                      id,
                      from: { x: paperRight + 6, y },
                      to: { x: slipLeft, y: (places.get(id) ?? 0) + 16 },
                    }))}
                  width={slipLeft}
                  height={height}
                  focusedId={focusedId}
                  hoveredId={hoveredId}
                />
                <ol aria-label={words.reading.slips}>
                  {wants.map(({ remark }, index) =>
                    !slipsDrawn.has(remark.id) ? null : (
                      <li
                        key={remark.id}
                        // Only those near are drawn; a screen reader is told of all.
                        aria-setsize={wants.length}
                        aria-posinset={index + 1}
                        ref={(element) => measure(remark.id, element)}
                        className={clsx(
                          'absolute rounded-lg',
                          remark.id === hoveredId && 'ring-2 ring-rule-strong',
                        )}
                        onMouseEnter={() => setHoveredId(remark.id)}
                        onMouseLeave={() => setHoveredId(null)}
                        style={{ left: slipLeft, width: slipWidth, top: places.get(remark.id) ?? 0 }}
                      >
                        <Slip
                          view={view}
                          remark={byId.get(remark.id) ?? remark}
                          focused={remark.id === focusedId}
                          compact={compact.has(remark.id)}
                          onFocus={() => onFocus(remark.id)}
                        />
                      </li>
                    ),
                  )}
                </ol>
              </>
            )}
          </div>
        )}
      </div>
    </div>
  );
}

const PAGE_GAP_TOP = 12;
/** However low the window, a page is never smaller than this. */
const LEAST_FACTOR = 0.2;
const NONE: ReadonlySet<string> = new Set();

/** About how tall a slip of this width is before it was drawn. */
function likelyHeight(remark: Remark, width: number): number {
  const lines = Math.ceil((saidBy(remark).length * LETTER_WIDTH) / Math.max(120, width - 32));
  return SLIP_FRAME + Math.min(MOST_LINES, Math.max(1, lines)) * SLIP_LINE;
}

/** Remarks of pages whose slips would stand far taller than the page. */
function crowdedIds(
  remarksByPage: ReadonlyMap<number, readonly Remark[]>,
  pages: readonly PageSize[],
  scale: number,
  width: number,
): ReadonlySet<string> {
  const crowded = new Set<string>();
  for (const [page, remarks] of remarksByPage) {
    if (page > pages.length) continue;
    const tall = remarks.reduce((sum, remark) => sum + likelyHeight(remark, width) + SLIP_GAP, 0);
    if (tall > CROWDED_FROM * pages[page - 1].height * scale) for (const { id } of remarks) crowded.add(id);
  }
  return crowded;
}

function groupByPage(remarks: readonly Remark[], onePage: boolean): Map<number, Remark[]> {
  const byPage = new Map<number, Remark[]>();
  for (const remark of remarks) {
    const page = onePage ? 1 : shownOnPage(remark);
    if (page !== null) byPage.set(page, [...(byPage.get(page) ?? []), remark]);
  }
  return byPage;
}

interface Wanted {
  readonly id: string;
  readonly remark: Remark;
  /** The height of the passage's first line on the desk. */
  readonly y: number;
}

/** Where each passage is on the desk, in the order of the paper. */
function wantedPlaces(
  remarksByPage: ReadonlyMap<number, readonly Remark[]>,
  pages: readonly PageSize[],
  tops: readonly number[],
  scale: number,
  boxesOf: (remark: Remark, page: PageSize, scale: number) => readonly Box[],
): Wanted[] {
  return [...remarksByPage]
    .flatMap(([page, remarks]) =>
      page > pages.length
        ? []
        : remarks.flatMap((remark) => {
            const mark = boxesOf(remark, pages[page - 1], scale).at(0);
            if (mark === undefined) return [];
            return [
              { id: remark.id, remark, y: tops[page - 1] + mark.top + Math.min(mark.height, 18 * scale) / 2 },
            ];
          }),
    )
    .sort((x, y) => x.y - y.y);
}

/** Heights of slips as they are on the screen. */
function useHeights(): [ReadonlyMap<string, number>, (id: string, element: HTMLElement | null) => void] {
  const [heights, setHeights] = useState<ReadonlyMap<string, number>>(new Map());
  const idByElement = useRef(new Map<Element, string>());
  const observer = useRef<ResizeObserver | null>(null);
  useLayoutEffect(() => {
    const watching = new ResizeObserver((entries) => {
      setHeights((known) => {
        const next = new Map(known);
        for (const { target } of entries) {
          const id = idByElement.current.get(target);
          if (id !== undefined) next.set(id, target.getBoundingClientRect().height);
        }
        return next;
      });
    });
    observer.current = watching;
    for (const element of idByElement.current.keys()) watching.observe(element);
    return () => watching.disconnect();
  }, []);
  const measure = useCallback((id: string, element: HTMLElement | null) => {
    if (element === null) {
      for (const [known, own] of idByElement.current) if (own === id) idByElement.current.delete(known);
      return;
    }
    if (idByElement.current.get(element) === id) return;
    idByElement.current.set(element, id);
    observer.current?.observe(element);
  }, []);
  return [heights, measure];
}

function useInSight(
  scroller: React.RefObject<HTMLDivElement | null>,
  tops: readonly number[],
  pages: ReadPaper['pages'],
  scale: number,
  onPage: (page: number) => void,
) {
  const [inSight, setInSight] = useState({ from: 0, to: 1 });
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
      setInSight((known) => (known.from === from && known.to === to ? known : { from, to }));
      const top = Math.floor((scrollTop - AROUND) / SIGHT_STEP) * SIGHT_STEP;
      const bottom = Math.ceil((scrollTop + clientHeight + AROUND) / SIGHT_STEP) * SIGHT_STEP;
      setDrawn((known) => (known.top === top && known.bottom === bottom ? known : { top, bottom }));
      onPage(Math.min(pages.length, Math.floor(at(element.scrollTop + element.clientHeight * 0.4)) + 1));
    };
    look();
    element.addEventListener('scroll', look, { passive: true });
    return () => element.removeEventListener('scroll', look);
  }, [scroller, tops, pages, scale, onPage]);
  return { inSight, drawn };
}

/** Scrolls when the focus changes, and only as far as needed to have the pair in sight. */
function useBringIntoSight(
  scroller: React.RefObject<HTMLDivElement | null>,
  ready: boolean,
  focusedId: string | null,
  wants: readonly Wanted[],
  places: ReadonlyMap<string, number>,
  heights: ReadonlyMap<string, number>,
  narrow: boolean,
): void {
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
    // A page that isn't drawn is out of sight; on a narrow screen there is no slip beside the paper.
    if (inSight(mark, false) && inSight(slip, true)) return;
    const top = narrow ? wanted.y : Math.min(wanted.y, places.get(wanted.id) ?? wanted.y);
    element.scrollTo({ top: Math.max(0, top - element.clientHeight * (narrow ? 0.35 : 0.28)) });
  }, [scroller, ready, focusedId, wants, places, heights, narrow]);
}

interface CurveEnds {
  readonly id: string;
  readonly from: { readonly x: number; readonly y: number };
  readonly to: { readonly x: number; readonly y: number };
}

function Curves({
  ends,
  width,
  height,
  focusedId,
  hoveredId,
}: {
  ends: readonly CurveEnds[];
  width: number;
  height: number;
  focusedId: string | null;
  hoveredId: string | null;
}) {
  return (
    <svg
      aria-hidden
      className="pointer-events-none absolute inset-0 z-10"
      width={width}
      height={height}
      fill="none"
    >
      {ends.map(({ id, from, to }) => {
        const bend = Math.max(20, (to.x - from.x) / 2);
        const focused = id === focusedId || id === hoveredId;
        return (
          <g key={id} data-curve={id} className={clsx(focused ? 'stroke-ink' : 'stroke-rule-strong')}>
            <path
              d={`M${from.x} ${from.y}C${from.x + bend} ${from.y} ${to.x - bend} ${to.y} ${to.x} ${to.y}`}
              strokeWidth={focused ? 2 : 1}
            />
            <circle
              cx={from.x}
              cy={from.y}
              r={focused ? 3.5 : 2.2}
              className={focused ? 'fill-ink' : 'fill-rule-strong'}
              stroke="none"
            />
          </g>
        );
      })}
    </svg>
  );
}

import clsx from 'clsx';
import type { PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { Remark } from '#core/model/remark.ts';
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
import { placeSlips } from './slip-layout.ts';
import { Strip } from './Strip.tsx';

const UPRIGHT = [1, 0, 0, 1, 0, 0];
const SLIP_GAP = 9;
const CURVE_ROOM = 64;
/** A slip not measured yet is taken to be so tall. */
const USUAL_SLIP = 90;

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
  /** 1 fits the width. */
  readonly zoom: number;
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
  const scale = isText ? 1 : (room / widest) * zoom;
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
  const places = placeSlips(
    wants.map(({ id, y }) => ({ id, want: y - 16, height: heights.get(id) ?? USUAL_SLIP })),
    SLIP_GAP,
    PAGE_GAP_TOP,
    focusedId,
  );
  const last = wants.at(-1);
  const slipsEnd =
    last === undefined ? 0 : (places.get(last.id) ?? 0) + (heights.get(last.id) ?? USUAL_SLIP) + 24;
  const height = narrow ? papersHeight : Math.max(papersHeight, slipsEnd);
  const inSight = useInSight(scroller, tops, pages, scale, onPage);
  const ready = size.width > 0;

  useBringIntoSight(scroller, ready, focusedId, wants, places, heights, narrow);
  const toPage = (page: number) => scroller.current?.scrollTo({ top: tops[page - 1] - 8 });

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
                zoom={zoom}
                place={{ left, top: tops[0], width: room }}
                onFocus={onFocus}
                onHover={setHoveredId}
                onMeasured={setMeasured}
              />
            ) : (
              pages.map((page, index) => (
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
              ))
            )}
            {!narrow && (
              <>
                <Curves
                  ends={wants.map(({ id, y }) => ({
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
                  {wants.map(({ remark }) => (
                    <li
                      key={remark.id}
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
                        onFocus={() => onFocus(remark.id)}
                      />
                    </li>
                  ))}
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
      const next = { from: at(element.scrollTop), to: at(element.scrollTop + element.clientHeight) };
      setInSight(next);
      onPage(Math.min(pages.length, Math.floor(at(element.scrollTop + element.clientHeight * 0.4)) + 1));
    };
    look();
    element.addEventListener('scroll', look, { passive: true });
    return () => element.removeEventListener('scroll', look);
  }, [scroller, tops, pages, scale, onPage]);
  return inSight;
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
    const inSight = (part: Element | null) => part === null || isWholeIn(part, element);
    if (inSight(mark) && inSight(slip)) return;
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

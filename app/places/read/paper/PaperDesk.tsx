import { useWorkspace } from '../../../workspace/use-workspace.ts';
import clsx from 'clsx';
import type { PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Remark } from '#core/model/remark.ts';
import type { Layout } from '#core/paper/layout.ts';
import type { PageSize } from '#formats/marked-paper.ts';
import { setPreference, usePreferences } from '../../../shared/page/preferences.ts';
import { useNarrow, useSize } from '../../../shared/page/hooks.ts';
import { words } from '../../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { ReadPaper } from '../../../workspace/storage/records.ts';
import { Curves } from '../slips/Curves.tsx';
import type { Region } from './DrawRegion.tsx';
import { useFoundWords, type Finding } from './found-words.ts';
import { marksOf, pageTops } from './geometry.ts';
import type { TextState } from './layout-segments.ts';
import { Page } from './Page.tsx';
import { usePinch } from './pinch.ts';
import { keepPage, keptPage, useUnfolded, type ReadingState } from '../reading-state.ts';
import { CURVE_ROOM, leftOfPaper, MARGIN, useRooms } from './rooms.ts';
import { useBringIntoSight, useDrawnPart, useFlowPages, useKeptPlace, useSight } from './sight.ts';
import { SlipEdge } from '../slips/SlipEdge.tsx';
import { SlipPlace } from '../slips/SlipPlace.tsx';
import { crowdedIds } from '../slips/slip-sizes.ts';
import { ASIDE, SLIPS_TOP, useSlips } from '../slips/slips.ts';
import { Strip } from './Strip.tsx';
import { NOT_MEASURED, TextSheet, type TextPlaces } from './TextSheet.tsx';
import { asRead, groupByMarks, groupByPage, wantedPlaces } from './wanted.ts';

const UPRIGHT = [1, 0, 0, 1, 0, 0];

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
  /** Words that are looked for; null where none are. */
  readonly finding: Finding | null;
  /** The zoom becomes so many times what it was. */
  readonly onPinched: (factor: number) => void;
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
  finding,
  onPinched,
  onDrawn,
}: PaperDeskProps) {
  const narrow = useNarrow();
  // What is shown may have the place of a double; what is decided about is the remark itself.
  const byId = useMemo(() => new Map(view.remarks.map((remark) => [remark.id, remark])), [view.remarks]);
  const [scroller, size] = useSize<HTMLDivElement>();
  const [measured, setMeasured] = useState<TextPlaces>(NOT_MEASURED);
  const [unfolded, unfold] = useUnfolded(view.assignment.id);
  const isText = show.kind === 'text';
  const side = usePreferences((preferences) => preferences.slipSide);
  const { mostWidth, slipWidth, fit, room } = useRooms(size.width, narrow, isText);
  const pages = useMemo(
    () =>
      isText ? [{ width: Math.max(1, room), height: measured.height, transform: UPRIGHT }] : marked.pages,
    [isText, room, measured.height, marked.pages],
  );
  const widest = Math.max(...pages.map((page) => page.width));
  // Text grows in its column; pages and pictures grow as a whole.
  const tallest = Math.max(...pages.map((page) => page.height));
  const factor =
    zoom === 'page' ? Math.min(1, (size.height - 2 * SLIPS_TOP) / tallest / (room / widest)) : zoom;
  const scale = isText ? 1 : (room / widest) * Math.max(LEAST_FACTOR, factor);
  const left = leftOfPaper(narrow, side, slipWidth, fit, widest * scale);
  const { tops, height: papersHeight } = useMemo(() => pageTops(pages, scale), [pages, scale]);
  const boxesOf = useCallback(
    (remark: Remark, page: PageSize, at: number) => {
      const box = measured.byRemark.get(remark.id);
      return isText ? (box === undefined ? [] : [box]) : marksOf(remark, page, at);
    },
    [isText, measured],
  );
  const remarksByPage = useMemo(() => groupByPage(remarks, isText), [remarks, isText]);
  const marksByPage = useMemo(() => groupByMarks(remarks), [remarks]);
  const paperRight = left + widest * scale;
  const slipLeft = side === 'left' ? MARGIN : size.width - slipWidth - MARGIN;
  // What is wider than its room goes on below the slips, which stay in sight.
  const over =
    !narrow &&
    (side === 'left' ? paperRight : paperRight + CURVE_ROOM - 1) > (side === 'left' ? size.width : slipLeft);
  const edge = side === 'left' ? slipLeft + slipWidth + CURVE_ROOM / 2 : slipLeft - CURVE_ROOM / 2;
  const wants = useMemo(
    () => wantedPlaces(remarksByPage, pages, tops, left, scale, boxesOf),
    [remarksByPage, pages, tops, left, scale, boxesOf],
  );
  const inOrder = useMemo(() => asRead(wants, remarks), [wants, remarks]);
  const crowded = useMemo(
    () => (narrow ? NONE : crowdedIds(remarksByPage, pages, scale, slipWidth, isText ? SHORT_TEXT : 0)),
    [narrow, remarksByPage, pages, scale, slipWidth, isText],
  );
  const {
    slips,
    places,
    end: slipsEnd,
    aside,
    lines,
    heights,
    measure,
  } = useSlips(wants, crowded, focusedId, slipWidth);
  const isLine = (id: string) => crowded.has(id) || lines.has(id);
  const height = narrow ? papersHeight : Math.max(papersHeight, slipsEnd);
  const flow = useFlowPages(isText && marked.kind === 'pdf' ? marked.pageStarts : null);
  const drawn = useDrawnPart(scroller, tops, pages, scale, flow?.pageIn ?? null);
  const isDrawn = (top: number, tall: number) => top < drawn.bottom && top + tall > drawn.top;
  const slipsDrawn = new Set(
    slips.flatMap(({ id, height: tall }) =>
      id === focusedId || isDrawn(places.get(id) ?? 0, tall) ? [id] : [],
    ),
  );
  const ready = size.width > 0;

  const content = useRef<HTMLDivElement>(null);
  useKeptPlace(scroller, tops, isText ? measured.height : scale, narrow && !isText);
  useBringIntoSight(
    scroller,
    ready,
    focusedId,
    wants,
    places,
    heights,
    { from: over && side === 'left' ? edge : 0, to: over && side === 'right' ? edge : size.width },
    narrow,
  );
  usePinch(scroller, content, onPinched);
  const toPage = useCallback(
    (page: number) => {
      if (flow !== null && scroller.current !== null) flow.scrollTo(scroller.current, page);
      else scroller.current?.scrollTo({ top: tops[page - 1] - 8 });
    },
    [scroller, tops, flow],
  );
  useFoundWords(scroller, finding, toPage);
  const isLaidOut = ready && (flow === null || measured.height > 1);
  useReturnToPage(
    view.assignment.id,
    marked.hash,
    isLaidOut,
    focusedId !== null,
    flow?.count ?? pages.length,
    toPage,
  );
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
          height={size.height}
          isText={isText}
          boxesOf={boxesOf}
          onPage={toPage}
        />
      )}
      <div
        ref={scroller}
        tabIndex={-1}
        className="relative min-w-0 flex-1 touch-pan-x touch-pan-y overflow-auto outline-none"
        data-scroller
      >
        {ready && (
          <div
            ref={content}
            className="relative"
            style={{
              height,
              minWidth: narrow
                ? paperRight + 8
                : over
                  ? paperRight + (side === 'left' ? 16 : size.width - edge + 8)
                  : undefined,
            }}
          >
            {show.kind === 'text' ? (
              <TextSheet
                layout={show.layout}
                state={show.state}
                paper={marked}
                remarks={remarks}
                numberByRemark={view.numberByRemark}
                focusedId={focusedId}
                zoom={zoom === 'page' ? 1 : zoom}
                place={{ left, top: tops[0], width: room }}
                onFocus={onFocus}
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
                    remarks={marksByPage.get(index + 1) ?? NO_REMARKS}
                    numberByRemark={view.numberByRemark}
                    focusedId={focusedId}
                    onFocus={onFocus}
                    onDrawn={onDrawn}
                  />
                ),
              )
            )}
            {!narrow && (
              <div className="sticky left-0 z-20 h-0" style={{ width: size.width }}>
                {over && (
                  <div
                    className={clsx(
                      'absolute top-0 border-rule bg-paper',
                      side === 'left' ? 'border-r' : 'border-l',
                    )}
                    style={{
                      left: side === 'left' ? 0 : edge,
                      width: side === 'left' ? edge : size.width - edge,
                      height,
                    }}
                  />
                )}
                <Curves
                  ends={wants
                    .filter(({ id, y }) => !aside.has(id) && (slipsDrawn.has(id) || isDrawn(y, 1)))
                    .map(({ id, y }) => ({
                      id,
                      from: { x: over ? edge : side === 'left' ? left - 6 : paperRight + 6, y },
                      to: {
                        x: side === 'left' ? slipLeft + slipWidth : slipLeft,
                        y: (places.get(id) ?? 0) + 16,
                      },
                    }))}
                  width={size.width}
                  height={height}
                  focusedId={focusedId}
                  faint={crowded}
                />
                <SlipEdge
                  at={side === 'left' ? slipLeft + slipWidth + 8 : slipLeft - 8}
                  height={height}
                  side={side}
                  width={slipWidth}
                  most={mostWidth}
                  onWidth={(slipWidth) => setPreference({ slipWidth })}
                />
                {aside.size > 0 && slipsDrawn.has(ASIDE) && (
                  <button
                    type="button"
                    className="absolute rounded-lg border border-dashed border-rule-strong bg-surface px-2.5 py-1.5 text-left text-sm text-quiet hover:text-ink"
                    style={{ left: slipLeft, width: slipWidth, top: places.get(ASIDE) ?? 0 }}
                    onClick={() => onFocus([...aside].at(-1) ?? '')}
                  >
                    {words.reading.aside(aside.size)}
                  </button>
                )}
                <ol aria-label={words.reading.slips}>
                  {inOrder.map(({ remark }, index) =>
                    !slipsDrawn.has(remark.id) ? null : (
                      <SlipPlace
                        key={remark.id}
                        view={view}
                        remark={byId.get(remark.id) ?? remark}
                        number={index + 1}
                        of={wants.length}
                        left={slipLeft}
                        width={slipWidth}
                        top={places.get(remark.id) ?? 0}
                        focused={remark.id === focusedId}
                        compact={isLine(remark.id)}
                        unfolded={unfolded.includes(remark.id)}
                        onUnfold={unfold}
                        onFocus={onFocus}
                        onMeasure={measure}
                      />
                    ),
                  )}
                </ol>
              </div>
            )}
          </div>
        )}
      </div>
    </div>
  );
}

/** Opens a paper at the page at which one left it, unless a remark says where. */
function useReturnToPage(
  assignmentId: string,
  hash: string,
  laidOut: boolean,
  remarkSays: boolean,
  pages: number,
  toPage: (page: number) => void,
): void {
  const workspace = useWorkspace();
  const returned = useRef('');
  useEffect(() => {
    if (!laidOut || returned.current === hash) return;
    returned.current = hash;
    const page = keptPage(workspace, assignmentId, hash);
    if (!remarkSays && page > 1 && page <= pages) toPage(page);
  }, [assignmentId, hash, laidOut, remarkSays, pages, toPage, workspace]);
  useEffect(() => {
    // What is in sight before the desk is laid out says nothing.
    if (!laidOut || pages < 2) return;
    return useSight.subscribe(({ page }, before) => {
      if (page !== before.page) keepPage(workspace, assignmentId, hash, page);
    });
  }, [assignmentId, hash, laidOut, pages, workspace]);
}

/** A text shorter than this, in pixels, leaves room for as many slips as one of this height. */
const SHORT_TEXT = 900;
/** However low the window, a page is never smaller than this. */
const LEAST_FACTOR = 0.2;
const NONE: ReadonlySet<string> = new Set();
const NO_REMARKS: readonly Remark[] = [];

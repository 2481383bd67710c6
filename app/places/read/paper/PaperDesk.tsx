import { useWorkspace } from '../../../workspace/use-workspace.ts';
import type { PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { useCallback, useEffect, useRef } from 'react';
import type { Remark } from '#core/model/remark.ts';
import type { Layout } from '#core/paper/layout.ts';
import { useSize } from '../../../shared/page/hooks.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { ReadPaper } from '../../../workspace/storage/records.ts';
import { useDesk } from './desk.ts';
import type { Region } from './DrawRegion.tsx';
import { useFoundWords, type Finding } from './found-words.ts';
import type { TextState } from '#formats/layout-segments.ts';
import { Page } from './Page.tsx';
import { usePinch } from './pinch.ts';
import { keepPage, keptPage, useUnfolded, type ReadingState } from '../reading-state.ts';
import { useBringIntoSight, useDrawnPart, useFlowPages, useKeptPlace, useSight } from './sight.ts';
import { SlipColumn } from '../slips/SlipColumn.tsx';
import { Strip } from './Strip.tsx';
import { TextSheet } from './TextSheet.tsx';

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
  const [scroller, size] = useSize<HTMLDivElement>();
  const isText = show.kind === 'text';
  const [unfolded] = useUnfolded(view.assignment.id);
  const desk = useDesk(size, marked, isText, remarks, focusedId, zoom, unfolded);
  const { narrow, side, pages, scale, tops, left, room, over, edge, textHeight, placed } = desk;
  const flow = useFlowPages(isText && marked.kind === 'pdf' ? marked.pageStarts : null);
  const drawn = useDrawnPart(scroller, tops, pages, scale, flow?.pageIn ?? null);
  const isDrawn = (top: number, tall: number) => top < drawn.bottom && top + tall > drawn.top;
  const ready = size.width > 0;

  const content = useRef<HTMLDivElement>(null);
  useKeptPlace(scroller, tops, isText ? textHeight : scale, narrow && !isText);
  useBringIntoSight(
    scroller,
    ready,
    focusedId,
    desk.wants,
    placed.places,
    placed.heights,
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
  const isLaidOut = ready && (flow === null || textHeight > 1);
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
          remarksByPage={desk.remarksByPage}
          height={size.height}
          isText={isText}
          boxesOf={desk.boxesOf}
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
          <div ref={content} className="relative" style={{ height: desk.height, minWidth: desk.minWidth }}>
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
                onMeasured={desk.onMeasured}
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
                    remarks={desk.marksByPage.get(index + 1) ?? NO_REMARKS}
                    numberByRemark={view.numberByRemark}
                    focusedId={focusedId}
                    onFocus={onFocus}
                    onDrawn={onDrawn}
                  />
                ),
              )
            )}
            {!narrow && (
              <SlipColumn view={view} desk={desk} isDrawn={isDrawn} focusedId={focusedId} onFocus={onFocus} />
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

const NO_REMARKS: readonly Remark[] = [];

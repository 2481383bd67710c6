import { Progress } from '../../shared/controls/Progress.tsx';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { useEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { Link, useNavigate } from 'react-router';
import type { PageSize } from '#formats/marked-paper.ts';
import { Button, Empty } from '../../shared/controls/Controls.tsx';
import { sizeOfPage, type Coming, type ComingPaper } from '../../workspace/taking-in/coming.ts';
import { useNarrow, useSize } from '../../shared/page/hooks.ts';
import { usePlaceTitle } from '../../shared/page/place-title.ts';
import { usePreferences } from '../../shared/page/preferences.ts';
import * as words from '../../words/en.ts';
import { pageTops } from './paper/geometry.ts';
import { Page } from './paper/Page.tsx';
import { keepPage, showByPages } from './reading-state.ts';
import { leftOfPaper, MARGIN, useRooms } from './paper/rooms.ts';
import { useDrawnPart, useSight } from './paper/sight.ts';
import { assignmentAddress } from '../../shared/page/addresses.ts';

/** A long paper to read while its remarks are still looked for; leads on to its assignment once they are there. */
export function ComingIn() {
  const paper = useComing((coming) => coming.paper);
  usePlaceTitle(words.comingIn.place);
  useInSight();
  useLeadingOn();
  const [cameIn] = useState(paper !== null);
  const navigate = useNavigate();
  useEffect(() => {
    // It was given up, or can't be read: back to where it was dropped.
    if (cameIn && paper === null) void navigate(-1);
  }, [cameIn, paper, navigate]);
  if (paper === null)
    return (
      <div className="mx-auto max-w-prose p-8">
        <Empty>
          <p className="font-semibold text-ink">{words.comingIn.nothing}</p>
          <p className="my-2">{words.comingIn.nothingLead}</p>
          <Link to="/" className="font-semibold text-accent hover:underline">
            {words.assignment.toArrivals}
          </Link>
        </Empty>
      </div>
    );
  return <Pages key={paper.hash} paper={paper} />;
}

function useComing<Part>(part: (state: ReturnType<Coming['store']['getState']>) => Part): Part {
  return useStore(useWorkspace().takingIn.coming.store, part);
}

function useInSight(): void {
  const { coming } = useWorkspace().takingIn;
  useEffect(() => {
    coming.see(true);
    return () => coming.see(false);
  }, [coming]);
}

/** Once the paper belongs to an assignment it is read there, at the page at which one is, and needn't be opened again. */
function useLeadingOn(): void {
  const workspace = useWorkspace();
  const navigate = useNavigate();
  const takenInto = useComing((coming) => coming.takenInto);
  useEffect(() => {
    const { paper } = workspace.takingIn.coming.store.getState();
    if (takenInto === null || paper === null) return;
    const { hash, document } = paper;
    keepPage(workspace, takenInto, hash, useSight.getState().page);
    showByPages(workspace, takenInto);
    workspace.takingIn.coming.leaveOpen(hash, document);
    const role = workspace.records.files.get(hash)?.role;
    const material = role === 'brief' ? 'brief' : 'paper';
    const isRead = role === 'brief' || role === 'marked' || role === 'sent';
    void navigate(
      isRead ? assignmentAddress(takenInto, 'read', { material, file: hash }) : assignmentAddress(takenInto),
      { replace: true },
    );
  }, [takenInto, navigate, workspace]);
}

function Pages({ paper }: { paper: ComingPaper }) {
  const { document, hash, firstPage, name } = paper;
  const narrow = useNarrow();
  const side = usePreferences((preferences) => preferences.slipSide);
  const [scroller, size] = useSize<HTMLDivElement>();
  const [sizes, setSizes] = useState<ReadonlyMap<number, PageSize>>(new Map());
  const pages = useMemo(
    () => Array.from({ length: document.numPages }, (_, index) => sizes.get(index + 1) ?? firstPage),
    [document, sizes, firstPage],
  );
  const { slipWidth, fit, room } = useRooms(size.width, narrow, false);
  const widest = Math.max(...pages.map((page) => page.width));
  const scale = room / widest;
  const left = leftOfPaper(narrow, side, slipWidth, fit, room);
  const { tops, height } = useMemo(() => pageTops(pages, scale), [pages, scale]);
  const drawn = useDrawnPart(scroller, tops, pages, scale, null);
  const from = tops.findIndex((top, index) => top + pages[index].height * scale > drawn.top);
  const to = tops.findLastIndex((top) => top < drawn.bottom);
  useEffect(() => {
    const learn = async (number: number) => {
      // A page that can't be opened, or that was left meanwhile, keeps the size of the first.
      const own = await sizeOfPage(document, number).catch(() => null);
      if (own !== null) setSizes((known) => new Map(known).set(number, own));
    };
    for (let number = Math.max(1, from + 1); number <= to + 1; number++)
      if (!sizes.has(number)) void learn(number);
  }, [document, from, to, sizes]);
  useEffect(() => scroller.current?.focus(), [scroller]);
  const slipLeft = side === 'left' ? MARGIN : size.width - slipWidth - MARGIN;
  return (
    <div className="flex h-full flex-col">
      <div className="border-b border-rule px-5 py-3 max-md:px-4">
        <h1 className="truncate font-serif text-[1.3rem] leading-tight font-semibold max-md:text-lg">
          {words.comingIn.title(name)}
        </h1>
      </div>
      {narrow && (
        <div className="border-b border-rule px-4 py-2">
          <HowFar />
        </div>
      )}
      <div className="flex min-h-0 flex-1">
        {/* Where the strip stands once there are remarks to tick. */}
        {!narrow && <div className="w-[54px] shrink-0 border-r border-rule" />}
        <div className="relative min-w-0 flex-1">
          <div
            ref={scroller}
            tabIndex={0}
            role="region"
            aria-label={name}
            data-scroller
            className="h-full overflow-auto outline-none focus-visible:outline-2 focus-visible:-outline-offset-2 focus-visible:outline-accent"
          >
            {size.width > 0 && (
              <div className="relative" style={{ height }}>
                {pages.map((page, index) =>
                  index < from || index > to ? null : (
                    <Page
                      key={index}
                      show={{ kind: 'pdf', document }}
                      number={index + 1}
                      size={page}
                      scale={scale}
                      top={tops[index]}
                      left={left}
                      paperHash={hash}
                      remarks={NO_REMARKS}
                      numberByRemark={NO_NUMBERS}
                      focusedId={null}
                      onFocus={noFocus}
                      onDrawn={null}
                    />
                  ),
                )}
              </div>
            )}
          </div>
          {!narrow && size.width > 0 && (
            <div
              className="absolute top-3 rounded-lg border border-rule-strong bg-surface p-4"
              style={{ left: slipLeft, width: slipWidth }}
            >
              <HowFar />
            </div>
          )}
        </div>
      </div>
    </div>
  );
}

const NO_REMARKS: [] = [];
const NO_NUMBERS = new Map<string, number>();
const noFocus = () => undefined;

/** How many pages have been gone through, and the way to give it up. */
function HowFar() {
  const progress = useComing((coming) => coming.progress);
  const narrow = useNarrow();
  const looked = progress !== null && progress.done === progress.of;
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
      <div className="flex flex-1 flex-wrap items-baseline gap-x-4">
        <p className="font-semibold" id="how-far">
          {looked ? words.comingIn.looked : words.comingIn.looking}
        </p>
        {progress !== null && (
          <p className="text-sm text-quiet tabular-nums">{words.takeIn.pages(progress.done, progress.of)}</p>
        )}
      </div>
      {narrow && !looked && <Cancel />}
      <Progress labelledBy="how-far" done={progress?.done ?? 0} of={progress?.of ?? 1} />
      {!narrow && !looked && (
        <>
          <p className="text-sm text-quiet">{words.comingIn.lead}</p>
          <Cancel />
        </>
      )}
    </div>
  );
}

function Cancel() {
  const { coming } = useWorkspace().takingIn;
  const cancel = useComing((coming) => coming.cancel);
  return (
    <Button
      className="min-h-8"
      onClick={() => {
        cancel();
        coming.forget();
      }}
    >
      {words.takeIn.cancel}
    </Button>
  );
}

import { useCallback, useMemo, useState } from 'react';
import type { Remark } from '#core/model/remark.ts';
import type { PageSize } from '#formats/marked-paper.ts';
import { useNarrow } from '../../../shared/page/hooks.ts';
import { usePreferences } from '../../../shared/page/preferences.ts';
import type { ReadPaper } from '../../../workspace/storage/records.ts';
import type { ReadingState } from '../reading-state.ts';
import { crowdedIds } from '../slips/slip-sizes.ts';
import { machineSlips } from '../slips/machine-slips.ts';
import { SLIPS_TOP, useSlips } from '../slips/slips.ts';
import { marksOf, pageTops } from './geometry.ts';
import { besidePaper, leftOfPaper, useRooms } from './rooms.ts';
import { NOT_MEASURED, type TextPlaces } from './TextSheet.tsx';
import { asRead, groupByMarks, groupByPage, wantedPlaces } from './wanted.ts';

/** A text has one page as wide as there is room, upright. */
const UPRIGHT = [1, 0, 0, 1, 0, 0];
/** A text shorter than this, in pixels, leaves room for as many slips as one of this height. */
const SHORT_TEXT = 900;
/** However low the window, a page is never smaller than this. */
const LEAST_FACTOR = 0.2;
const NONE: ReadonlySet<string> = new Set();

/** Where the pages of a paper, its marks and its slips stand on the desk, in pixels of it. */
export function useDesk(
  size: { readonly width: number; readonly height: number },
  marked: ReadPaper,
  isText: boolean,
  remarks: readonly Remark[],
  focusedId: string | null,
  zoom: ReadingState['zoom'],
  unfolded: readonly string[],
) {
  const narrow = useNarrow();
  const [measured, setMeasured] = useState<TextPlaces>(NOT_MEASURED);
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
  const machines = usePreferences((preferences) => preferences.machineSlips);
  const slipped = useMemo(
    () => machineSlips(remarks, machines, unfolded, focusedId),
    [remarks, machines, unfolded, focusedId],
  );
  const remarksByPage = useMemo(() => groupByPage(remarks, isText), [remarks, isText]);
  const slipsByPage = useMemo(() => groupByPage(slipped.remarks, isText), [slipped, isText]);
  const marksByPage = useMemo(() => groupByMarks(remarks), [remarks]);
  const paperRight = left + widest * scale;
  const { slipLeft, over, edge } = besidePaper(narrow, side, size.width, slipWidth, paperRight);
  const wants = useMemo(
    () => wantedPlaces(slipsByPage, pages, tops, left, scale, boxesOf),
    [slipsByPage, pages, tops, left, scale, boxesOf],
  );
  const inOrder = useMemo(() => asRead(wants, slipped.remarks), [wants, slipped]);
  const crowded = useMemo(
    () => (narrow ? NONE : crowdedIds(slipsByPage, pages, scale, slipWidth, isText ? SHORT_TEXT : 0)),
    [narrow, slipsByPage, pages, scale, slipWidth, isText],
  );
  const placed = useSlips(wants, crowded, focusedId, slipWidth);
  const height = narrow ? papersHeight : Math.max(papersHeight, placed.end);
  const least = over ? paperRight + (side === 'left' ? 16 : size.width - edge + 8) : undefined;
  return {
    narrow,
    side,
    size,
    pages,
    scale,
    tops,
    left,
    room,
    height,
    /** Wider than the window where the paper is. */
    minWidth: narrow ? paperRight + 8 : least,
    paperRight,
    slipLeft,
    slipWidth,
    mostWidth,
    /** Whether the paper is wider than its room and goes on below the slips, which then begin at `edge`. */
    over,
    edge,
    boxesOf,
    remarksByPage,
    marksByPage,
    wants,
    inOrder,
    folds: slipped.folds,
    crowded,
    placed,
    textHeight: measured.height,
    onMeasured: setMeasured,
  };
}

export type Desk = ReturnType<typeof useDesk>;

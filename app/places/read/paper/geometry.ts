import { placeOf, type Remark, type Target } from '#core/model/remark.ts';
import type { PageSize } from '#formats/marked-paper.ts';

export interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

const PAGE_GAP = 18;

/** Where each page begins below the first, at a scale, and how tall all are. */
export function pageTops(pages: readonly PageSize[], scale: number): { tops: number[]; height: number } {
  const tops: number[] = [];
  let height = PAGE_GAP;
  for (const page of pages) {
    tops.push(height);
    height += page.height * scale + PAGE_GAP;
  }
  return { tops, height };
}

/** Points given in PDF coordinates (x y x y ...) as they are shown, in pixels from the page's corner. */
function shownPoints(points: readonly number[], { transform }: PageSize, scale: number): [number, number][] {
  const [a, b, c, d, e, f] = transform;
  const shown: [number, number][] = [];
  for (let i = 0; i + 1 < points.length; i += 2)
    shown.push([
      (a * points[i] + c * points[i + 1] + e) * scale,
      (b * points[i] + d * points[i + 1] + f) * scale,
    ]);
  return shown;
}

/** The same as SVG has it. */
export function pointsOf(points: readonly number[], page: PageSize, scale: number): string {
  return shownPoints(points, page, scale)
    .map(([x, y]) => `${x},${y}`)
    .join(' ');
}

/** The box on the shown page around points given in PDF coordinates. */
function boxOf(points: readonly number[], page: PageSize, scale: number): Box {
  const shown = shownPoints(points, page, scale);
  const xs = shown.map(([x]) => x);
  const ys = shown.map(([, y]) => y);
  const left = Math.min(...xs);
  const top = Math.min(...ys);
  return { left, top, width: Math.max(...xs) - left, height: Math.max(...ys) - top };
}

/** The boxes that a remark marks where it is shown, in pixels from the page's corner. */
export function marksOf(remark: Remark, page: PageSize, scale: number): Box[] {
  return boxesOf(placeOf(remark), page, scale);
}

/** The boxes of all its places on a page: a remark may be about several. */
export function marksOnPage(remark: Remark, number: number, page: PageSize, scale: number): Box[] {
  return remark.targets
    .filter((target) => pageOfTarget(target) === number)
    .flatMap((target) => boxesOf(target, page, scale));
}

function boxesOf(target: Target, page: PageSize, scale: number): Box[] {
  switch (target.kind) {
    case 'words':
      if (target.quads.length > 0) return target.quads.map((quad) => boxOf(quad, page, scale));
      return target.rect === null ? [] : [boxOf(target.rect, page, scale)];
    case 'point':
      return [boxOf(target.rect, page, scale)];
    case 'region': {
      const { x, y, width, height } = target;
      return [{ left: x * scale, top: y * scale, width: width * scale, height: height * scale }];
    }
    case 'time':
    case 'question':
    case 'criterion':
    case 'whole':
    case 'unplaced':
      return [];
  }
}

/** The page on which a remark is shown: a picture is one page. */
export function shownOnPage(remark: Remark): number | null {
  return pageOfTarget(placeOf(remark));
}

/** All pages on which it has a place, each once. */
export function pagesOf(remark: Remark): number[] {
  return [...new Set(remark.targets.map(pageOfTarget))].filter((page) => page !== null);
}

/** The page of a place; null for one that is on none. */
export function pageOfTarget(target: Target): number | null {
  if (target.kind === 'region') return 1;
  return target.kind === 'words' || target.kind === 'point' ? target.page : null;
}

/** Whether all of an element can be seen in the part of the window that `frame` shows. */
export function isWholeIn(element: Element, frame: Element): boolean {
  const inner = element.getBoundingClientRect();
  const outer = frame.getBoundingClientRect();
  return (
    inner.height > 0 &&
    inner.top >= Math.max(0, outer.top) - 1 &&
    inner.bottom <= Math.min(window.innerHeight, outer.bottom) + 1
  );
}

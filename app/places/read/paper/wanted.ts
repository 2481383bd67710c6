import type { Remark } from '#core/model/remark.ts';
import type { PageSize } from '#formats/marked-paper.ts';
import { pagesOf, shownOnPage, type Box } from './geometry.ts';

/** Remarks by the pages on which they have a place. */
export function groupByMarks(remarks: readonly Remark[]): Map<number, Remark[]> {
  return grouped(remarks, pagesOf);
}

/** Remarks by the page that they are shown on; of a paper without pages all on one. */
export function groupByPage(remarks: readonly Remark[], onePage: boolean): Map<number, Remark[]> {
  return grouped(remarks, (remark) => [onePage ? 1 : shownOnPage(remark)].filter((page) => page !== null));
}

function grouped(
  remarks: readonly Remark[],
  pagesWith: (remark: Remark) => Iterable<number>,
): Map<number, Remark[]> {
  const byPage = new Map<number, Remark[]>();
  for (const remark of remarks)
    for (const page of pagesWith(remark)) {
      const own = byPage.get(page);
      if (own === undefined) byPage.set(page, [remark]);
      else own.push(remark);
    }
  return byPage;
}

export interface Wanted {
  readonly id: string;
  readonly remark: Remark;
  /** The height of the passage's first line on the desk. */
  readonly y: number;
  /** From where to where its first line reaches on the desk. */
  readonly x: { readonly from: number; readonly to: number };
}

/** Where each passage is on the desk, from above. */
export function wantedPlaces(
  remarksByPage: ReadonlyMap<number, readonly Remark[]>,
  pages: readonly PageSize[],
  tops: readonly number[],
  left: number,
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
              {
                id: remark.id,
                remark,
                y: tops[page - 1] + mark.top + Math.min(mark.height, 18 * scale) / 2,
                x: { from: left + mark.left, to: left + mark.left + mark.width },
              },
            ];
          }),
    )
    .sort((x, y) => x.y - y.y);
}

/** The same in reading order: as the remarks stand. */
export function asRead(wants: readonly Wanted[], remarks: readonly Remark[]): Wanted[] {
  const byId = new Map(wants.map((wanted) => [wanted.id, wanted]));
  return remarks.flatMap(({ id }) => byId.get(id) ?? []);
}

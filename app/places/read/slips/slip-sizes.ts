import { useCallback, useLayoutEffect, useRef, useState } from 'react';
import type { Remark } from '#core/model/remark.ts';
import type { PageSize } from '#formats/marked-paper.ts';
import { saidBy } from '../../../shared/remark/said.ts';

export const SLIP_GAP = 9;
/** A slip that was never drawn is taken to be as tall as its words make it at these measures. */
const SLIP_FRAME = 60;
const SLIP_LINE = 22;
const LETTER_WIDTH = 7.4;
const MOST_LINES = 4;
/** Slips fold to one line where those of a page would stand more than so many pages tall. */
const CROWDED_FROM = 1.6;
export const COMPACT_SLIP = 38;

/** Under which name the height of a slip is kept: it has another when it is folded to one line. */
export function sizeKey(id: string, asLine: boolean): string {
  return asLine ? `line/${id}` : id;
}

/** About how tall a slip of this width is before it was drawn. */
export function likelyHeight(remark: Remark, width: number): number {
  const lines = Math.ceil((saidBy(remark).length * LETTER_WIDTH) / Math.max(120, width - 32));
  return SLIP_FRAME + Math.min(MOST_LINES, Math.max(1, lines)) * SLIP_LINE;
}

/** Remarks of pages whose slips would stand far taller than the page, or than `leastHeight` where that is less. */
export function crowdedIds(
  remarksByPage: ReadonlyMap<number, readonly Remark[]>,
  pages: readonly PageSize[],
  scale: number,
  width: number,
  leastHeight: number,
): ReadonlySet<string> {
  const crowded = new Set<string>();
  for (const [page, remarks] of remarksByPage) {
    if (page > pages.length) continue;
    const tall = remarks.reduce((sum, remark) => sum + likelyHeight(remark, width) + SLIP_GAP, 0);
    if (tall > CROWDED_FROM * Math.max(leastHeight, pages[page - 1].height * scale))
      for (const { id } of remarks) crowded.add(id);
  }
  return crowded;
}

/** Heights of slips as they are on the screen. */
export function useHeights(): [
  ReadonlyMap<string, number>,
  (id: string, element: HTMLElement | null) => void,
] {
  const [heights, setHeights] = useState<ReadonlyMap<string, number>>(new Map());
  const idByElement = useRef(new Map<Element, string>());
  const observer = useRef<ResizeObserver | null>(null);
  useLayoutEffect(() => {
    const watching = new ResizeObserver((entries) => {
      const measured = entries.flatMap(({ target }) => {
        const id = idByElement.current.get(target);
        return id === undefined ? [] : [[id, target.getBoundingClientRect().height] as const];
      });
      setHeights((known) =>
        measured.every(([id, height]) => known.get(id) === height) ? known : new Map([...known, ...measured]),
      );
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

import type { PictureShare } from '../check/picture-places.ts';

/** An edge of a rectangle on a picture. */
export type Edge = 'left' | 'right' | 'top' | 'bottom';

/** A rectangle keeps at least this share of the picture between two edges. */
const LEAST = 0.02;

/** Where the edges of a rectangle lie, in shares from the left and from the top. */
export function edgesOf({ x, y, width, height }: PictureShare): Readonly<Record<Edge, number>> {
  return { left: x, right: x + width, top: y, bottom: y + height };
}

/** The rectangle with one edge moved; no edge passes the one across from it, or the picture's own. */
export function withEdge(place: PictureShare, edge: Edge, to: number): PictureShare {
  const { left, right, top, bottom } = edgesOf(place);
  const between = (value: number, from: number, until: number) => Math.min(until, Math.max(from, value));
  const edges = {
    left: edge === 'left' ? between(to, 0, right - LEAST) : left,
    right: edge === 'right' ? between(to, left + LEAST, 1) : right,
    top: edge === 'top' ? between(to, 0, bottom - LEAST) : top,
    bottom: edge === 'bottom' ? between(to, top + LEAST, 1) : bottom,
  };
  return { x: edges.left, y: edges.top, width: edges.right - edges.left, height: edges.bottom - edges.top };
}

/** The part of a rectangle that lies on the picture; at least the least that a rectangle has. */
export function within(place: PictureShare): PictureShare {
  const { left, right, top, bottom } = edgesOf(place);
  const on = (value: number, most: number) => Math.min(most, Math.max(0, value));
  const [x, y] = [on(left, 1 - LEAST), on(top, 1 - LEAST)];
  return {
    x,
    y,
    width: Math.max(LEAST, Math.min(1, right) - x),
    height: Math.max(LEAST, Math.min(1, bottom) - y),
  };
}

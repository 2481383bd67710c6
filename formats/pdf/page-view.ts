import type { PageSize } from '../marked-paper.ts';

/** A point of a page in PDF points, as a place on the page as it is shown, from its upper left corner. */
export function toView({ transform }: Pick<PageSize, 'transform'>, x: number, y: number): [number, number] {
  const [a, b, c, d, e, f] = transform;
  return [a * x + c * y + e, b * x + d * y + f];
}

/** The other way round. */
export function fromView({ transform }: Pick<PageSize, 'transform'>, x: number, y: number): [number, number] {
  const [a, b, c, d, e, f] = transform;
  const size = a * d - b * c;
  const [dx, dy] = [x - e, y - f];
  return [(d * dx - c * dy) / size, (a * dy - b * dx) / size];
}

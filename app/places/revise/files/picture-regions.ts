import type { Remark } from '#core/model/remark.ts';

/** A rectangle in shares of a picture's width and height, so that it lies on any size of it. */
export interface Share {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Where a remark's regions lie on a picture of this size. */
export function regionsOf(
  remark: Remark,
  size: { readonly width: number; readonly height: number },
): Share[] {
  return remark.targets.flatMap((target) =>
    target.kind === 'region'
      ? [
          {
            x: target.x / size.width,
            y: target.y / size.height,
            width: target.width / size.width,
            height: target.height / size.height,
          },
        ]
      : [],
  );
}

import type { FileHash } from '../model/ids.ts';
import type { Remark } from '../model/remark.ts';
import type { PlaceInPicture } from '../model/work.ts';

/** Width and height of a picture, in its pixels. */
export interface PictureSize {
  readonly width: number;
  readonly height: number;
}

/** A rectangle in shares of a picture's width and height (0 to 1), so that it lies on any size of it. */
export interface PictureShare extends PictureSize {
  readonly x: number;
  readonly y: number;
}

/** A rectangle of pixels in shares of its picture. */
export function shareIn({ x, y, width, height }: PictureShare, size: PictureSize): PictureShare {
  return {
    x: x / size.width,
    y: y / size.height,
    width: width / size.width,
    height: height / size.height,
  };
}

/** Where a remark's regions lie on the picture that it is about. */
export function regionShares(remark: Remark, size: PictureSize): PictureShare[] {
  return remark.targets.flatMap((target) => (target.kind === 'region' ? [shareIn(target, size)] : []));
}

/** A rectangle that was drawn on a picture, in whole pixels of it. */
export function placeIn(fileHash: FileHash, drawn: PictureShare, size: PictureSize): PlaceInPicture {
  return {
    fileHash,
    x: Math.round(drawn.x * size.width),
    y: Math.round(drawn.y * size.height),
    width: Math.round(drawn.width * size.width),
    height: Math.round(drawn.height * size.height),
  };
}

import type { PictureShare, PictureSize } from '../check/picture-places.ts';

/** What is done to a photograph of a page: cut to a part of it, then turned clockwise. */
export interface PictureEdit {
  readonly crop: PictureShare;
  readonly turn: 0 | 90 | 180 | 270;
}

/** All of a picture. */
export const WHOLE: PictureShare = { x: 0, y: 0, width: 1, height: 1 };

/** The size in whole pixels after an edit; at least one pixel each way. */
export function sizeAfter({ width, height }: PictureSize, { crop, turn }: PictureEdit): PictureSize {
  const across = Math.max(1, Math.round(width * crop.width));
  const down = Math.max(1, Math.round(height * crop.height));
  return turn === 90 || turn === 270 ? { width: down, height: across } : { width: across, height: down };
}

/** Where a rectangle of the picture lies after an edit; what was cut off is cut off of it. null: nothing of it is left. */
export function placeAfter(place: PictureShare, { crop, turn }: PictureEdit): PictureShare | null {
  const left = Math.max(place.x, crop.x);
  const top = Math.max(place.y, crop.y);
  const right = Math.min(place.x + place.width, crop.x + crop.width);
  const bottom = Math.min(place.y + place.height, crop.y + crop.height);
  if (right <= left || bottom <= top) return null;
  const x = (left - crop.x) / crop.width;
  const y = (top - crop.y) / crop.height;
  const [width, height] = [(right - left) / crop.width, (bottom - top) / crop.height];
  switch (turn) {
    case 0:
      return { x, y, width, height };
    case 90:
      return { x: 1 - y - height, y: x, width: height, height: width };
    case 180:
      return { x: 1 - x - width, y: 1 - y - height, width, height };
    case 270:
      return { x: y, y: 1 - x - width, width: height, height: width };
  }
}

import { parsing, refusedAs } from '../malformed.ts';
import { imageSize } from 'image-size';
import { UnreadableFile } from '../unreadable.ts';

/** The size of a picture. */
export interface PictureSize {
  /** In pixels, as the picture is shown upright. */
  readonly width: number;
  readonly height: number;
}

/** Orientations of EXIF 2.3 (4.6.4) in which width and height are exchanged when the picture is shown upright. */
const TURNED = new Set([5, 6, 7, 8]);
/** More pixels than any camera makes; a file can claim any number of them. */
const MOST_PIXELS = 400_000_000;

/**
 * The size of a picture (PNG, JPEG, WebP) as it is shown, its EXIF orientation honoured.
 * @throws UnreadableFile 'damaged picture'
 */
export function readPicture(bytes: Uint8Array): PictureSize {
  const { width, height, orientation } = refusedAs('damaged picture', () => parsing(() => imageSize(bytes)));
  if (!(width > 0) || !(height > 0) || width * height > MOST_PIXELS)
    throw new UnreadableFile('damaged picture', `${width} × ${height}`);
  return TURNED.has(orientation ?? 1) ? { width: height, height: width } : { width, height };
}

import { align, type Alignment } from '#core/picture/align.ts';
import { sizeAfter, WHOLE, type PictureEdit } from '#core/picture/edit.ts';
import { greyOfPixels, type Grey } from '#core/picture/grey.ts';
import { sharpnessOf, type Sharpness } from '#core/picture/sharpness.ts';
import { UnreadableFile } from '#formats/unreadable.ts';

/** Work on pictures in a worker, where the browser decodes and draws them. */

/** A page that is read on a screen or printed on A4 shows no more: 2,400 pixels on 11.7 inches are 205 an inch. */
const PAGE_PIXELS = 2400;
/** Beyond this a browser's canvas may fail. */
const MOST_PIXELS = 12_000;
const JPEG_QUALITY = 0.9;

/** @throws UnreadableFile 'damaged picture' */
async function bitmapOf(bytes: Uint8Array<ArrayBuffer>): Promise<ImageBitmap> {
  try {
    return await createImageBitmap(new Blob([bytes]), { imageOrientation: 'from-image' });
  } catch (error) {
    if (error instanceof DOMException) throw new UnreadableFile('damaged picture', error.message);
    throw error;
  }
}

function canvasOf(width: number, height: number) {
  const canvas = new OffscreenCanvas(width, height);
  const pen = canvas.getContext('2d');
  if (pen === null) throw new Error('this browser draws no pictures in a worker');
  pen.fillStyle = 'white';
  pen.fillRect(0, 0, width, height);
  return { canvas, pen };
}

async function greyOf(bytes: Uint8Array<ArrayBuffer>, longest: number): Promise<Grey> {
  const bitmap = await bitmapOf(bytes);
  const share = Math.min(1, longest / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [bitmap.width, bitmap.height].map((one) => Math.max(1, Math.round(one * share)));
  const { pen } = canvasOf(width, height);
  pen.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return greyOfPixels(pen.getImageData(0, 0, width, height));
}

/** Where the older of two pictures lies on the newer. */
export async function alignPictures(
  older: Uint8Array<ArrayBuffer>,
  newer: Uint8Array<ArrayBuffer>,
): Promise<Alignment> {
  const LONGEST = 480;
  return align(await greyOf(older, LONGEST), await greyOf(newer, LONGEST));
}

/** How sharp a photographed page is. */
export async function sharpnessIn(bytes: Uint8Array<ArrayBuffer>): Promise<Sharpness> {
  return sharpnessOf(await greyOf(bytes, 1600));
}

export interface EditedPicture {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly mediaType: 'image/png' | 'image/jpeg';
  readonly width: number;
  readonly height: number;
}

/** A picture cut and turned; a PNG stays one, every other becomes a JPEG. */
export async function editPicture(
  bytes: Uint8Array<ArrayBuffer>,
  mediaType: string,
  edit: PictureEdit,
): Promise<EditedPicture> {
  return redrawn(
    await bitmapOf(bytes),
    mediaType === 'image/png' ? 'image/png' : 'image/jpeg',
    edit,
    MOST_PIXELS,
  );
}

/** A picture as a page of a PDF holds it: upright, and no larger than can be seen. */
export async function pageOf(bytes: Uint8Array<ArrayBuffer>, mediaType: string): Promise<EditedPicture> {
  const whole: PictureEdit = { crop: WHOLE, turn: 0 };
  const type = mediaType === 'image/png' ? 'image/png' : 'image/jpeg';
  return redrawn(await bitmapOf(bytes), type, whole, PAGE_PIXELS);
}

async function redrawn(
  bitmap: ImageBitmap,
  mediaType: EditedPicture['mediaType'],
  edit: PictureEdit,
  longest: number,
): Promise<EditedPicture> {
  const { crop, turn } = edit;
  const size = sizeAfter(bitmap, edit);
  const share = Math.min(1, longest / Math.max(size.width, size.height));
  const width = Math.max(1, Math.round(size.width * share));
  const height = Math.max(1, Math.round(size.height * share));
  const { canvas, pen } = canvasOf(width, height);
  const [across, down] = turn === 90 || turn === 270 ? [height, width] : [width, height];
  pen.translate(width / 2, height / 2);
  pen.rotate((turn * Math.PI) / 180);
  pen.drawImage(
    bitmap,
    crop.x * bitmap.width,
    crop.y * bitmap.height,
    crop.width * bitmap.width,
    crop.height * bitmap.height,
    -across / 2,
    -down / 2,
    across,
    down,
  );
  bitmap.close();
  const blob = await canvas.convertToBlob({ type: mediaType, quality: JPEG_QUALITY });
  return { bytes: new Uint8Array(await blob.arrayBuffer()), mediaType, width, height };
}

import { createCanvas } from '@napi-rs/canvas';
import { decode as decodeJpeg } from 'jpeg-js';
import { PNG } from 'pngjs';
import type { PictureSize } from '#core/check/picture-places.ts';
import { greyOfPixels, scaledTo, type Grey, type Pixels } from '#core/picture/grey.ts';
import { openPdf } from '#formats/pdf/open-pdf.ts';
import { pictureTypeIn } from '#formats/picture/picture-type.ts';
import { formatOf } from '#formats/recognise.ts';
import { UnreadableFile } from '#formats/unreadable.ts';

/**
 * A picture, or the first page of a PDF, as grey values.
 * @param size the size it is brought to; its own where none is given
 * @throws UnreadableFile 'damaged picture' for what is neither PNG nor JPEG nor PDF, or is damaged
 */
export async function greyOf(bytes: Uint8Array, size: PictureSize | null): Promise<Grey> {
  return formatOf(bytes).kind === 'pdf' ? await greyOfPage(bytes, size) : greyOfPicture(bytes, size);
}

/** Decoders in JavaScript: what a student sends may be damaged, and must not stop the server. */
function greyOfPicture(bytes: Uint8Array, size: PictureSize | null): Grey {
  const grey = greyOfPixels(decoded(bytes));
  return size === null ? grey : scaledTo(grey, size.width, size.height);
}

/** A PNG without what follows its last chunk: that is no part of the picture, and pngjs takes none of it. */
function upToEnd(bytes: Uint8Array): Uint8Array {
  const END = Buffer.from('IEND');
  const CRC_BYTES = 4;
  const at = Buffer.from(bytes).lastIndexOf(END);
  return at < 0 ? bytes : bytes.subarray(0, at + END.length + CRC_BYTES);
}

function decoded(bytes: Uint8Array): Pixels {
  try {
    return pictureTypeIn(bytes) === 'image/jpeg'
      ? decodeJpeg(bytes, { useTArray: true })
      : PNG.sync.read(Buffer.from(upToEnd(bytes)));
  } catch (error) {
    // Both decoders throw plain errors for whatever is wrong with a file.
    if (error instanceof Error) throw new UnreadableFile('damaged picture', error.message);
    throw error;
  }
}

async function greyOfPage(bytes: Uint8Array, size: PictureSize | null): Promise<Grey> {
  const pdf = await openPdf(bytes, null);
  try {
    const page = await pdf.getPage(1);
    const own = page.getViewport({ scale: 1 });
    const scale = size === null ? 1 : size.width / own.width;
    const viewport = page.getViewport({ scale });
    const [width, height] = [Math.round(viewport.width), size?.height ?? Math.round(viewport.height)];
    const canvas = createCanvas(width, height);
    const context = canvas.getContext('2d');
    context.fillStyle = 'white';
    context.fillRect(0, 0, width, height);
    // pdf.js draws on any canvas of this form; its types know the browser's alone.
    await page.render({ canvas: canvas as unknown as HTMLCanvasElement, viewport }).promise;
    return greyOfPixels({ width, height, data: context.getImageData(0, 0, width, height).data });
  } finally {
    await pdf.destroy();
  }
}

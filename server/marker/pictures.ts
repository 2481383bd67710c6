import { createCanvas } from '@napi-rs/canvas';
import { decode as decodeJpeg } from 'jpeg-js';
import { PNG } from 'pngjs';
import { greyOfPixels, type Grey, type Pixels } from '#core/picture/grey.ts';
import { openPdf } from '#formats/pdf/open-pdf.ts';
import { pictureTypeIn } from '#formats/picture/picture-type.ts';
import { formatOf } from '#formats/recognise.ts';
import { UnreadableFile } from '#formats/unreadable.ts';

/**
 * A picture, or the first page of a PDF, as grey values.
 * @param width about how wide a page is drawn, in pixels; a picture stays as it is
 * @throws UnreadableFile 'damaged picture' for what is neither PNG nor JPEG nor PDF, or is damaged
 */
export async function greyOf(bytes: Uint8Array, width: number | null): Promise<Grey> {
  return formatOf(bytes).kind === 'pdf' ? await greyOfPage(bytes, width) : greyOfPicture(bytes);
}

/** Decoders in JavaScript: what a student sends may be damaged, and must not stop the server. */
function greyOfPicture(bytes: Uint8Array): Grey {
  return greyOfPixels(decoded(bytes));
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

async function greyOfPage(bytes: Uint8Array, wanted: number | null): Promise<Grey> {
  const pdf = await openPdf(bytes, null);
  try {
    const page = await pdf.getPage(1);
    const own = page.getViewport({ scale: 1 });
    // Finer than what it is compared with, so that thin strokes stay dark.
    const viewport = page.getViewport({ scale: wanted === null ? 1 : (2 * wanted) / own.width });
    const [width, height] = [Math.round(viewport.width), Math.round(viewport.height)];
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

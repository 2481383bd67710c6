import { createCanvas } from '@napi-rs/canvas';
import { decode as decodeJpeg } from 'jpeg-js';
import { PNG } from 'pngjs';
import { openPdf } from '#formats/pdf/open-pdf.ts';
import { pictureTypeIn } from '#formats/picture/picture-type.ts';
import { formatOf } from '#formats/recognise.ts';
import { UnreadableFile } from '#formats/unreadable.ts';
import type { Grey } from './judge-regions.ts';

interface Size {
  readonly width: number;
  readonly height: number;
}

/**
 * A picture, or the first page of a PDF, as grey values.
 * @param size the size it is brought to; its own where none is given
 * @throws UnreadableFile 'damaged picture' for what is neither PNG nor JPEG nor PDF, or is damaged
 */
export async function greyOf(bytes: Uint8Array, size: Size | null): Promise<Grey> {
  return formatOf(bytes).kind === 'pdf' ? await greyOfPage(bytes, size) : greyOfPicture(bytes, size);
}

/** Decoders in JavaScript: what a student sends may be damaged, and must not stop the server. */
function greyOfPicture(bytes: Uint8Array, size: Size | null): Grey {
  const grey = greyIn(decoded(bytes));
  return size === null ? grey : scaled(grey, size);
}

function decoded(bytes: Uint8Array): Pixels {
  try {
    return pictureTypeIn(bytes) === 'image/jpeg'
      ? decodeJpeg(bytes, { useTArray: true })
      : PNG.sync.read(Buffer.from(bytes));
  } catch (error) {
    // Both decoders throw plain errors for whatever is wrong with a file.
    if (error instanceof Error) throw new UnreadableFile('damaged picture', error.message);
    throw error;
  }
}

async function greyOfPage(bytes: Uint8Array, size: Size | null): Promise<Grey> {
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
    return greyIn({ width, height, data: context.getImageData(0, 0, width, height).data });
  } finally {
    await pdf.destroy();
  }
}

interface Pixels extends Size {
  /** Red, green, blue and alpha, 0 to 255, row by row. */
  readonly data: Uint8Array | Uint8ClampedArray;
}

/** How bright each pixel is on white paper (Rec. 601). */
function greyIn({ width, height, data }: Pixels): Grey {
  const values = new Uint8Array(width * height);
  for (let i = 0; i < values.length; i++) {
    const ink = 255 - (0.299 * data[4 * i] + 0.587 * data[4 * i + 1] + 0.114 * data[4 * i + 2]);
    values[i] = Math.round(255 - (ink * data[4 * i + 3]) / 255);
  }
  return { width, height, values };
}

/** Brought to another size: each pixel is the mean of those that lie under it. */
function scaled({ width, height, values }: Grey, size: Size): Grey {
  if (width === size.width && height === size.height) return { width, height, values };
  const result = new Uint8Array(size.width * size.height);
  for (let y = 0; y < size.height; y++) {
    const [top, bottom] = under(y, height, size.height);
    for (let x = 0; x < size.width; x++) {
      const [left, right] = under(x, width, size.width);
      let sum = 0;
      for (let row = top; row < bottom; row++)
        for (let column = left; column < right; column++) sum += values[row * width + column];
      result[y * size.width + x] = Math.round(sum / ((bottom - top) * (right - left)));
    }
  }
  return { ...size, values: result };
}

/** Which of `from` rows lie under row `at` of `to`; at least one. */
function under(at: number, from: number, to: number): [number, number] {
  const first = Math.floor((at * from) / to);
  return [first, Math.max(first + 1, Math.floor(((at + 1) * from) / to))];
}

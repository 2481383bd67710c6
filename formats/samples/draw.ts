import { createCanvas } from '@napi-rs/canvas';
import type { DrawPart } from '../pdf/read-pdf-as-draft.ts';

/** Draws parts of pages where there is no browser. */
export const drawWithCanvas: DrawPart = async (page, [left, bottom, right, top]) => {
  const [width, height] = [Math.ceil(right - left), Math.ceil(top - bottom)];
  const canvas = createCanvas(width, height);
  const viewport = page.getViewport({ scale: 1 });
  const [x, y] = viewport.convertToViewportPoint(left, top) as number[];
  await page.render({
    canvas: null,
    canvasContext: canvas.getContext('2d') as unknown as CanvasRenderingContext2D,
    viewport: page.getViewport({ scale: 1, offsetX: -x, offsetY: -y }),
    annotationMode: 0,
  }).promise;
  return new Uint8Array(canvas.toBuffer('image/png'));
};

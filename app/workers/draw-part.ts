import type { DrawPart } from '#formats/pdf/read-pdf-as-draft.ts';

/** Sharp on paper too, at 150 dots an inch; but no more than so many dots wide. */
const SCALE = 150 / 72;
const MOST_DOTS = 1600;

interface Held {
  canvas: OffscreenCanvas | null;
  context: OffscreenCanvasRenderingContext2D | null;
}

/** What pdf.js draws on where there is no document: it would make elements of one otherwise. */
export class WorkerCanvasFactory {
  create(width: number, height: number): Held {
    const canvas = new OffscreenCanvas(width, height);
    return { canvas, context: canvas.getContext('2d', { willReadFrequently: true }) };
  }

  reset(held: Held, width: number, height: number): void {
    if (held.canvas !== null) Object.assign(held.canvas, { width, height });
  }

  destroy(held: Held): void {
    this.reset(held, 0, 0);
    Object.assign(held, { canvas: null, context: null });
  }
}

/** Filters of a page are elements too; without them it is drawn as if it had none. */
export class NoFilterFactory {
  addFilter = () => 'none';
  addHCMFilter = () => 'none';
  addAlphaFilter = () => 'none';
  addLuminosityFilter = () => 'none';
  addHighlightHCMFilter = () => 'none';
  destroy = () => undefined;
}

/** Draws a part of a page in this thread, without what was marked on it. */
export const drawPart: DrawPart = async (page, [left, bottom, right, top]) => {
  const scale = Math.min(SCALE, MOST_DOTS / Math.max(1, right - left, top - bottom));
  const whole = page.getViewport({ scale });
  const [x0, y0, x1, y1] = whole.convertToViewportRectangle([left, bottom, right, top]) as number[];
  const [width, height] = [Math.ceil(Math.abs(x1 - x0)), Math.ceil(Math.abs(y1 - y0))];
  if (width === 0 || height === 0) return null;
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  if (context === null) return null;
  const viewport = page.getViewport({ scale, offsetX: -Math.min(x0, x1), offsetY: -Math.min(y0, y1) });
  await page.render({
    canvas: null,
    // It has all that pdf.js asks of the one of a page.
    canvasContext: context as unknown as CanvasRenderingContext2D,
    viewport,
    background: 'white',
    annotationMode: 0,
  }).promise;
  return new Uint8Array(await (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer());
};

import { GlobalWorkerOptions, type PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import pdfWorkerUrl from 'pdfjs-dist/legacy/build/pdf.worker.mjs?url';
import { openPdf } from '#formats/pdf/open-pdf.ts';
import { pdfAssets } from './pdf-assets.ts';

GlobalWorkerOptions.workerSrc = pdfWorkerUrl;

/**
 * Opens a PDF to be drawn, in a worker of its own.
 * @throws UnreadableFile as openPdf
 */
export function openForDrawing(bytes: Uint8Array): Promise<PDFDocumentProxy> {
  return openPdf(bytes, pdfAssets());
}

import { useWorkspace } from '../../workspace/use-workspace.ts';
import { GlobalWorkerOptions, type PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import pdfWorkerUrl from 'pdfjs-dist/legacy/build/pdf.worker.mjs?url';
import { useEffect, useRef, useState } from 'react';
import { openPdf } from '#formats/pdf/open-pdf.ts';
import { pdfAssets } from './pdf-assets.ts';

GlobalWorkerOptions.workerSrc = pdfWorkerUrl;

/**
 * Opens a PDF to be drawn.
 * @throws UnreadableFile as openPdf
 */
export function openForDrawing(bytes: Uint8Array): Promise<PDFDocumentProxy> {
  return openPdf(bytes, pdfAssets());
}

/** A document that one place leaves open for the next. */
let leftOpen: { readonly hash: string; readonly document: PDFDocumentProxy } | null = null;

/** Leaves a document open for whoever shows the file next; only the last one stays so. */
export function leaveOpen(hash: string, document: PDFDocumentProxy): void {
  void leftOpen?.document.loadingTask.destroy();
  leftOpen = { hash, document };
}

function takeOver(hash: string): PDFDocumentProxy | null {
  if (leftOpen?.hash !== hash) return null;
  const { document } = leftOpen;
  leftOpen = null;
  return document;
}

/**
 * The opened PDF of a kept file; null while the first opens. An older form of the file stands until the next is open: a
 * paper that comes back changed while it is read doesn't leave the screen. Closed when the place is left.
 */
export function usePdfDocument(hash: string): PDFDocumentProxy | null {
  const workspace = useWorkspace();
  const [document, setDocument] = useState<PDFDocumentProxy | null>(null);
  const shown = useRef<PDFDocumentProxy | null>(null);
  useEffect(() => {
    const over = new AbortController();
    const isOver = () => over.signal.aborted;
    const opening = async () => {
      const bytes = await workspace.fileBytes(hash);
      return bytes === null || isOver() ? null : openForDrawing(bytes);
    };
    const open = async () => {
      const opened = takeOver(hash) ?? (await opening());
      if (opened === null) return;
      if (isOver()) {
        await opened.loadingTask.destroy();
        return;
      }
      const before = shown.current;
      shown.current = opened;
      setDocument(opened);
      await before?.loadingTask.destroy();
    };
    void open();
    return () => over.abort();
  }, [hash, workspace]);
  useEffect(
    () => () => {
      void shown.current?.loadingTask.destroy();
      shown.current = null;
    },
    [],
  );
  return document;
}

import { GlobalWorkerOptions, type PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import pdfWorkerUrl from 'pdfjs-dist/legacy/build/pdf.worker.mjs?url';
import { useEffect, useRef, useState } from 'react';
import { openPdf } from '#formats/pdf/open-pdf.ts';
import { pdfAssets } from '../../shared/pdf-assets.ts';
import { fileBytes } from '../../workspace/workspace.ts';

GlobalWorkerOptions.workerSrc = pdfWorkerUrl;

/**
 * The opened PDF of a kept file; null while the first opens. An older form of the file stands until the next is open: a
 * paper that comes back changed while it is read doesn't leave the screen. Closed when the place is left.
 */
export function usePdfDocument(hash: string): PDFDocumentProxy | null {
  const [document, setDocument] = useState<PDFDocumentProxy | null>(null);
  const shown = useRef<PDFDocumentProxy | null>(null);
  useEffect(() => {
    const over = new AbortController();
    const isOver = () => over.signal.aborted;
    const open = async () => {
      const bytes = await fileBytes(hash);
      if (bytes === null || isOver()) return;
      const opened = await openPdf(bytes, pdfAssets());
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
  }, [hash]);
  useEffect(
    () => () => {
      void shown.current?.loadingTask.destroy();
      shown.current = null;
    },
    [],
  );
  return document;
}

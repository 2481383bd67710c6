import { GlobalWorkerOptions, type PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import pdfWorkerUrl from 'pdfjs-dist/legacy/build/pdf.worker.mjs?url';
import { useEffect, useState } from 'react';
import { openPdf } from '#formats/pdf/open-pdf.ts';
import { pdfAssets } from '../../shared/pdf-assets.ts';
import { fileBytes } from '../../workspace/workspace.ts';

GlobalWorkerOptions.workerSrc = pdfWorkerUrl;

/** The opened PDF of a kept file; null while it opens. It is closed when the place is left. */
export function usePdfDocument(hash: string): PDFDocumentProxy | null {
  const [document, setDocument] = useState<PDFDocumentProxy | null>(null);
  useEffect(() => {
    const over = new AbortController();
    const isOver = () => over.signal.aborted;
    const open = async () => {
      const bytes = await fileBytes(hash);
      if (bytes === null || isOver()) return;
      const opened = await openPdf(bytes, pdfAssets());
      over.signal.addEventListener('abort', () => void opened.loadingTask.destroy());
      if (isOver()) await opened.loadingTask.destroy();
      else setDocument(opened);
    };
    void open();
    return () => {
      over.abort();
      setDocument(null);
    };
  }, [hash]);
  return document;
}

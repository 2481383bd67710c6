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
    let over = false;
    let opened: PDFDocumentProxy | null = null;
    const open = async () => {
      const bytes = await fileBytes(hash);
      if (bytes === null || over) return;
      opened = await openPdf(bytes, pdfAssets());
      if (over) await opened.loadingTask.destroy();
      else setDocument(opened);
    };
    void open();
    return () => {
      over = true;
      setDocument(null);
      void opened?.loadingTask.destroy();
    };
  }, [hash]);
  return document;
}

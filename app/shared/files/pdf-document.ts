import { useWorkspace } from '../../workspace/use-workspace.ts';
import type { PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { useEffect, useRef, useState } from 'react';
import { openForDrawing } from '../../workers/pdf-drawing.ts';

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
      const opened = workspace.takingIn.coming.takeOver(hash) ?? (await opening());
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

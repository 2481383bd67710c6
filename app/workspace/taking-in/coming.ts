import type { PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { createStore } from 'zustand/vanilla';
import type { AssignmentId, FileHash } from '#core/model/ids.ts';
import type { PageSize } from '#formats/marked-paper.ts';

/** A paper of so many pages takes long enough to be read that it is shown meanwhile. */
const LONG_PAPER = 30;

/** A long paper that is shown while its remarks are still looked for. */
export interface ComingPaper {
  readonly name: string;
  readonly hash: FileHash;
  readonly document: PDFDocumentProxy;
  readonly firstPage: PageSize;
}

interface ComingState {
  readonly paper: ComingPaper | null;
  /** Pages that were read, and all of them; null at first. */
  readonly progress: { readonly done: number; readonly of: number } | null;
  /** Stops the reading. */
  readonly cancel: () => void;
  /** Whether its place is open. */
  readonly inSight: boolean;
  /** The assignment that it has become a paper of. */
  readonly takenInto: AssignmentId | null;
}

const NONE: ComingState = {
  paper: null,
  progress: null,
  cancel: () => undefined,
  inSight: false,
  takenInto: null,
};

export async function sizeOfPage(document: PDFDocumentProxy, number: number): Promise<PageSize> {
  const { width, height, transform } = (await document.getPage(number)).getViewport({ scale: 1 });
  return { width, height, transform };
}

/** The long paper that is being read in, if there is one, and the document that one place leaves open for the next. */
export class Coming {
  readonly store = createStore<ComingState>(() => NONE);
  private leftOpen: { readonly hash: string; readonly document: PDFDocumentProxy } | null = null;

  /**
   * Opens a paper that has just come and is being read; where it is a long one, keeps it for its place and says so.
   * @param isOver whether it was read or given up by now
   */
  async showWhileRead(
    name: string,
    hash: FileHash,
    bytes: Uint8Array,
    { cancel, isOver, onShown }: { cancel: () => void; isOver: () => boolean; onShown: () => void },
  ): Promise<void> {
    const { openForDrawing } = await import('../../workers/pdf-drawing.ts');
    const document = await openForDrawing(bytes).catch(() => null);
    // Whoever reads it says why it can't be opened.
    if (document === null) return;
    const isLong = document.numPages >= LONG_PAPER;
    const firstPage = isLong ? await sizeOfPage(document, 1).catch(() => null) : null;
    if (firstPage === null || isOver()) {
      await document.loadingTask.destroy();
      return;
    }
    this.forget();
    const { inSight } = this.store.getState();
    this.store.setState({ ...NONE, paper: { name, hash, document, firstPage }, cancel, inSight });
    onShown();
  }

  /** Nothing of the paper stays; with `hash`, only where it is that one. */
  forget(hash?: FileHash): void {
    const { paper, inSight } = this.store.getState();
    if (paper === null || (hash !== undefined && paper.hash !== hash)) return;
    void paper.document.loadingTask.destroy();
    this.store.setState({ ...NONE, inSight });
  }

  /** Its place was opened, or left; once the paper has its assignment, whoever shows it there closes it. */
  see(inSight: boolean): void {
    const { takenInto } = this.store.getState();
    this.store.setState(inSight || takenInto === null ? { inSight } : NONE);
  }

  /** How far the reading of a file is, for its place. Tells whether that is open, so that no notice is needed. */
  tell(hash: FileHash, done: number, of: number): boolean {
    const { paper, inSight } = this.store.getState();
    if (paper?.hash !== hash) return false;
    this.store.setState({ progress: { done, of } });
    return inSight;
  }

  /** Whether files that were taken in are shown already, in a place that then leads on to the assignment by itself. */
  leadsOn(hashes: readonly FileHash[], id: AssignmentId): boolean {
    const { paper, inSight } = this.store.getState();
    if (paper === null || !hashes.includes(paper.hash)) return false;
    if (inSight) this.store.setState({ takenInto: id });
    else this.forget();
    return inSight;
  }

  /** Leaves a document open for whoever shows the file next; only the last one stays so. */
  leaveOpen(hash: string, document: PDFDocumentProxy): void {
    void this.leftOpen?.document.loadingTask.destroy();
    this.leftOpen = { hash, document };
  }

  /** The document of a file that was left open, now the caller's to close; null where there is none. */
  takeOver(hash: string): PDFDocumentProxy | null {
    if (this.leftOpen?.hash !== hash) return null;
    const { document } = this.leftOpen;
    this.leftOpen = null;
    return document;
  }

  /** Closes whatever is open. */
  close(): void {
    this.forget();
    void this.leftOpen?.document.loadingTask.destroy();
    this.leftOpen = null;
  }
}

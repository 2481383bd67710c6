import type { PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { create } from 'zustand';
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

interface Coming {
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

const NONE: Coming = {
  paper: null,
  progress: null,
  cancel: () => undefined,
  inSight: false,
  takenInto: null,
};

export const useComing = create<Coming>(() => NONE);

export async function sizeOfPage(document: PDFDocumentProxy, number: number): Promise<PageSize> {
  const { width, height, transform } = (await document.getPage(number)).getViewport({ scale: 1 });
  return { width, height, transform };
}

/**
 * Opens a paper that has just come and is being read; where it is a long one, keeps it for its place and says so.
 * @param isOver whether it was read or given up by now
 */
export async function showWhileRead(
  name: string,
  hash: FileHash,
  bytes: Uint8Array,
  { cancel, isOver, onShown }: { cancel: () => void; isOver: () => boolean; onShown: () => void },
): Promise<void> {
  const { openForDrawing } = await import('./pdf-document.ts');
  const document = await openForDrawing(bytes).catch(() => null);
  // Whoever reads it says why it can't be opened.
  if (document === null) return;
  const isLong = document.numPages >= LONG_PAPER;
  const firstPage = isLong ? await sizeOfPage(document, 1).catch(() => null) : null;
  if (firstPage === null || isOver()) {
    await document.loadingTask.destroy();
    return;
  }
  forgetComing();
  const { inSight } = useComing.getState();
  useComing.setState({ ...NONE, paper: { name, hash, document, firstPage }, cancel, inSight });
  onShown();
}

/** Nothing of the paper stays; with `hash`, only where it is that one. */
export function forgetComing(hash?: FileHash): void {
  const { paper, inSight } = useComing.getState();
  if (paper === null || (hash !== undefined && paper.hash !== hash)) return;
  void paper.document.loadingTask.destroy();
  useComing.setState({ ...NONE, inSight });
}

/** Whoever shows the paper now closes it. */
export function handOverComing(): void {
  useComing.setState(NONE);
}

/** How far the reading of a file is, for its place. Tells whether that is open, so that no notice is needed. */
export function tellComing(hash: FileHash, done: number, of: number): boolean {
  const { paper, inSight } = useComing.getState();
  if (paper?.hash !== hash) return false;
  useComing.setState({ progress: { done, of } });
  return inSight;
}

/** Whether files that were taken in are shown already, in a place that then leads on to the assignment by itself. */
export function leadsOn(hashes: readonly FileHash[], id: AssignmentId): boolean {
  const { paper, inSight } = useComing.getState();
  if (paper === null || !hashes.includes(paper.hash)) return false;
  if (inSight) useComing.setState({ takenInto: id });
  else forgetComing();
  return inSight;
}

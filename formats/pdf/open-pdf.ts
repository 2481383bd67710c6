import { getDocument, type PDFDocumentProxy, type PDFWorker } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { MOST_FILE_BYTES, UnreadableFile } from '../unreadable.ts';

const MOST_PAGES = 2000;
/** A PDF's header may stand behind other bytes, but within the first 1,024 (ISO 32000-1, implementation note 13). */
const HEADER_WITHIN = 1024;

/** What pdf.js needs: folders with character maps, fonts, colour profiles and decoders, served with the application. */
export interface PdfAssets {
  readonly cMapUrl: string;
  readonly standardFontDataUrl: string;
  readonly wasmUrl: string;
  readonly iccUrl: string;
  /** Threads to parse in, for a caller that pdf.js can't start any for; a long paper is divided among all of them. */
  readonly threads?: readonly (() => PDFWorker)[];
  /** What pdf.js draws with, for a caller without a document. */
  readonly factories?: { readonly CanvasFactory: object; readonly FilterFactory: object };
}

/**
 * Opens a PDF for reading or drawing. The bytes are copied, since pdf.js takes what it is given. No script of the file
 * ever runs.
 * @throws UnreadableFile for a file that is no PDF, is damaged, locked, too large or too long
 */
export async function openPdf(
  bytes: Uint8Array,
  assets: PdfAssets | null,
  {
    password,
    forReading = false,
    thread = 0,
  }: {
    readonly password?: string | undefined;
    readonly forReading?: boolean;
    /** Which of the given threads. */
    readonly thread?: number;
  } = {},
): Promise<PDFDocumentProxy> {
  if (bytes.length === 0) throw new UnreadableFile('empty');
  if (bytes.length > MOST_FILE_BYTES) throw new UnreadableFile('too large');
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, HEADER_WITHIN));
  if (!head.includes('%PDF-')) throw new UnreadableFile('not a PDF');
  const { threads, factories, ...folders } = assets ?? {};
  const worker = threads?.at(thread)?.();
  const task = getDocument({
    data: bytes.slice(),
    isEvalSupported: false,
    useSystemFonts: false,
    enableXfa: false,
    verbosity: 0,
    ...(password !== undefined && { password }),
    ...(worker !== undefined && { worker }),
    ...factories,
    // What is only read is never drawn, and where it is read there may be no document to hold fonts.
    ...(forReading && { disableFontFace: true }),
    // Said outright, since pdf.js would look for a document to find out, and a worker has none.
    ...(assets === null ? {} : { ...folders, cMapPacked: true, useWorkerFetch: true }),
  });
  try {
    const document = await task.promise;
    if (document.numPages > MOST_PAGES) throw new UnreadableFile('too many pages', String(document.numPages));
    return document;
  } catch (error) {
    await task.destroy();
    if (error instanceof UnreadableFile) throw error;
    const name = error instanceof Error ? error.name : '';
    if (name === 'PasswordException')
      throw new UnreadableFile(password === undefined ? 'locked PDF' : 'wrong password');
    throw new UnreadableFile('damaged PDF', error instanceof Error ? error.message : '');
  }
}

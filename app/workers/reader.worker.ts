import { expose } from 'comlink';
import { GlobalWorkerOptions } from 'pdfjs-dist/legacy/build/pdf.mjs';
import pdfWorkerUrl from 'pdfjs-dist/legacy/build/pdf.worker.mjs?url';
import { readBag, writeBag } from '#formats/bag/bag.ts';
import { readDocx } from '#formats/docx/read-docx.ts';
import { readMarkedPdf } from '#formats/pdf/read-marked-pdf.ts';
import { UnreadableFile } from '#formats/unreadable.ts';
import { pdfAssets } from '../shared/pdf-assets.ts';
import type { ReaderWorker, ReadResult } from './protocol.ts';

GlobalWorkerOptions.workerSrc = new URL(pdfWorkerUrl, location.origin).href;

async function reading<T>(work: () => T | Promise<T>): Promise<ReadResult<T>> {
  try {
    return { kind: 'read', value: await work() };
  } catch (error) {
    if (error instanceof UnreadableFile)
      return { kind: 'unreadable', reason: error.reason, detail: error.detail };
    throw error;
  }
}

const worker: ReaderWorker = {
  readMarkedPdf: (bytes, progress) => reading(() => readMarkedPdf(bytes, pdfAssets(), progress)),
  readDocx: (bytes) => reading(() => readDocx(bytes)),
  readBag: (bytes) => reading(() => readBag(new Uint8Array(bytes))),
  writeBag,
  // The Word writer is large and needed seldom.
  writeDraftDocx: async (blocks, title) =>
    (await import('#formats/docx/write-docx.ts')).writeDraftDocx(blocks, title),
  writeResponseSheetDocx: async (sheet) =>
    (await import('#formats/docx/write-docx.ts')).writeResponseSheetDocx(sheet),
};
expose(worker);

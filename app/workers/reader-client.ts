import { proxy, wrap, type Remote } from 'comlink';
import type { ResponseSheet } from '#core/check/response-sheet.ts';
import type { RichBlock } from '#core/paper/draft.ts';
import type { Payload } from '#formats/bag/bag.ts';
import type { ReaderWorker } from './protocol.ts';

let running: Remote<ReaderWorker> | null = null;

function remote(): Remote<ReaderWorker> {
  if (running !== null) return running;
  const worker = new Worker(new URL('./reader.worker.ts', import.meta.url), {
    type: 'module',
    name: 'reader',
  });
  // A worker that died is replaced at the next call.
  worker.onerror = () => {
    running = null;
    worker.terminate();
  };
  running = wrap<ReaderWorker>(worker);
  return running;
}

/** Reads and writes files off the main thread. */
export function readerInWorker() {
  return {
    readMarkedPdf: (bytes: Uint8Array, progress: (done: number, of: number) => void = () => undefined) =>
      remote().readMarkedPdf(bytes, proxy(progress)),
    readDocx: (bytes: Uint8Array) => remote().readDocx(bytes),
    readBag: (bytes: Uint8Array) => remote().readBag(bytes),
    writeDraftDocx: (blocks: readonly RichBlock[], title: string) => remote().writeDraftDocx(blocks, title),
    writeResponseSheetDocx: (sheet: ResponseSheet) => remote().writeResponseSheetDocx(sheet),
    writeBag: (root: string, payload: Payload, date: string) => remote().writeBag(root, payload, date),
  };
}

import { proxy, wrap, type Remote } from 'comlink';
import type { ResponseSheet } from '#core/check/response-sheet.ts';
import type { RichBlock } from '#core/paper/draft.ts';
import type { Candidate, Incoming } from '#core/taking-in/likely.ts';
import type { Payload } from '#formats/bag/bag.ts';
import type { ReaderWorker } from './protocol.ts';

let running: Remote<ReaderWorker> | null = null;
let runningWorker: Worker | null = null;

/** Stops whatever is being read; the next call starts anew. */
export function stopReader(): void {
  runningWorker?.terminate();
  runningWorker = null;
  running = null;
}

function remote(): Remote<ReaderWorker> {
  if (running !== null) return running;
  const worker = new Worker(new URL('./reader.worker.ts', import.meta.url), {
    type: 'module',
    name: 'reader',
  });
  // A worker that died is replaced at the next call.
  worker.onerror = stopReader;
  runningWorker = worker;
  running = wrap<ReaderWorker>(worker);
  return running;
}

/** Reads and writes files off the main thread. */
export function readerInWorker() {
  return {
    readFile: (
      name: string,
      bytes: Uint8Array,
      password: string | null,
      progress: (done: number, of: number) => void,
    ) => remote().readFile(name, bytes, password, proxy(progress)),
    likelyAssignment: (file: Incoming, candidates: readonly Candidate[]) =>
      remote().likelyAssignment(file, candidates),
    readPaper: (bytes: Uint8Array) => remote().readPaper(bytes),
    readRemarksOnto: (bytes: Uint8Array, about: Uint8Array | null) => remote().readRemarksOnto(bytes, about),
    unlockPdf: (bytes: Uint8Array, password: string) => remote().unlockPdf(bytes, password),
    readDocx: (bytes: Uint8Array) => remote().readDocx(bytes),
    readBag: (bytes: Uint8Array) => remote().readBag(bytes),
    writeDraftDocx: (blocks: readonly RichBlock[], title: string) => remote().writeDraftDocx(blocks, title),
    writeResponseSheetDocx: (sheet: ResponseSheet) => remote().writeResponseSheetDocx(sheet),
    writeBag: (root: string, payload: Payload, date: string) => remote().writeBag(root, payload, date),
  };
}

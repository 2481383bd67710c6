import { proxy, wrap, type Remote } from 'comlink';
import type { ResponseSheet } from '#core/check/response-sheet.ts';
import type { RichBlock } from '#core/paper/draft.ts';
import type { Candidate, Incoming } from '#core/taking-in/likely.ts';
import type { Payload } from '#formats/bag/bag.ts';
import type { ReaderWorker } from './protocol.ts';

interface Running {
  readonly remote: Remote<ReaderWorker>;
  readonly stop: () => void;
  /** Settles when it was stopped, or died. */
  readonly stopped: Promise<'stopped'>;
}

let running: Running | null = null;

function start(): Running {
  const worker = new Worker(new URL('./reader.worker.ts', import.meta.url), {
    type: 'module',
    name: 'reader',
  });
  let stop: () => void = () => undefined;
  const stopped = new Promise<'stopped'>((resolve) => {
    stop = () => {
      worker.terminate();
      running = null;
      resolve('stopped');
    };
  });
  worker.onerror = stop;
  return { remote: wrap<ReaderWorker>(worker), stop, stopped };
}

/** Stops the reader. What it was doing for others is begun anew. */
export function stopReader(): void {
  running?.stop();
}

/** The reader died again and again over the same work, or the work was given up. */
export class ReaderStopped extends Error {}

const MOST_TRIES = 3;

/** Has the reader do something; begun anew where it stopped or died over it. */
async function ask<Answer extends Promise<unknown>>(
  work: (reader: Remote<ReaderWorker>) => Answer,
  isGivenUp: () => boolean = () => false,
): Promise<Awaited<Answer>> {
  for (let tries = 1; ; tries++) {
    running ??= start();
    const { remote, stopped } = running;
    const answered = async () => ({ value: await work(remote) });
    const answer = await Promise.race([answered(), stopped]);
    if (answer !== 'stopped') return answer.value;
    if (isGivenUp() || tries === MOST_TRIES) throw new ReaderStopped('the reader stopped');
  }
}

/** Reads and writes files off the main thread. */
export function readerInWorker() {
  return {
    readFile: (
      name: string,
      bytes: Uint8Array,
      password: string | null,
      progress: (done: number, of: number) => void,
      isGivenUp?: () => boolean,
    ) => ask((reader) => reader.readFile(name, bytes, password, proxy(progress)), isGivenUp),
    likelyAssignment: (file: Incoming, candidates: readonly Candidate[]) =>
      ask((reader) => reader.likelyAssignment(file, candidates)),
    readPaper: (bytes: Uint8Array) => ask((reader) => reader.readPaper(bytes)),
    readRemarksOnto: (bytes: Uint8Array, about: Uint8Array | null) =>
      ask((reader) => reader.readRemarksOnto(bytes, about)),
    unlockPdf: (bytes: Uint8Array, password: string) => ask((reader) => reader.unlockPdf(bytes, password)),
    readDocx: (bytes: Uint8Array) => ask((reader) => reader.readDocx(bytes)),
    readBag: (bytes: Uint8Array) => ask((reader) => reader.readBag(bytes)),
    writeDraftDocx: (blocks: readonly RichBlock[], title: string) =>
      ask((reader) => reader.writeDraftDocx(blocks, title)),
    writeResponseSheetDocx: (sheet: ResponseSheet) => ask((reader) => reader.writeResponseSheetDocx(sheet)),
    writeBag: (root: string, payload: Payload, date: string) =>
      ask((reader) => reader.writeBag(root, payload, date)),
  };
}

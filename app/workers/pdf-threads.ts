import { PDFWorker } from 'pdfjs-dist/legacy/build/pdf.mjs';
import pdfWorkerUrl from 'pdfjs-dist/legacy/build/pdf.worker.mjs?url';

/** One parses while the other hands over what it parsed; more only wait on one another. */
const MOST_THREADS = 2;

const started: PDFWorker[] = [];

function newThread(): Worker {
  const thread = new Worker(new URL(pdfWorkerUrl, location.origin), { type: 'module', name: 'pdf' });
  // Whoever waits for it would wait for ever: the reader dies with it, and is begun anew.
  thread.onerror = () =>
    setTimeout(() => {
      throw new Error('a thread of pdf.js died');
    });
  return thread;
}

/**
 * Threads in which pdf.js parses files for this one; each is started when it is first used.
 */
export const pdfThreads: readonly (() => PDFWorker)[] = Array.from(
  { length: Math.min(MOST_THREADS, navigator.hardwareConcurrency) },
  (_, index) => () => {
    started[index] ??= PDFWorker.create({ port: newThread(), verbosity: 0 });
    return started[index];
  },
);

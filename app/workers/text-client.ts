import { wrap, type Remote } from 'comlink';
import type { TextWorker } from './protocol.ts';

let running: Remote<TextWorker> | null = null;

/** Differences and outcomes, computed off the main thread. */
export function textInWorker(): Remote<TextWorker> {
  if (running !== null) return running;
  const worker = new Worker(new URL('./text.worker.ts', import.meta.url), { type: 'module', name: 'text' });
  worker.onerror = () => {
    running = null;
    worker.terminate();
  };
  running = wrap<TextWorker>(worker);
  return running;
}

import { wrap, type Remote } from 'comlink';
import type { TableWorker } from './protocol.ts';

let running: Remote<TableWorker> | null = null;

/** Reads rubrics and scores out of tables, off the main thread. */
export function tablesInWorker(): Remote<TableWorker> {
  if (running !== null) return running;
  const worker = new Worker(new URL('./table.worker.ts', import.meta.url), {
    type: 'module',
    name: 'tables',
  });
  // One that died is replaced at the next call.
  worker.onerror = () => {
    running = null;
    worker.terminate();
  };
  running = wrap<TableWorker>(worker);
  return running;
}

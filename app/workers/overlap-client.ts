import type { OverlapWorker } from './protocol.ts';
import { WorkerClient } from './worker-client.ts';

/** Compares drafts with sources. */
export const comparer = new WorkerClient<OverlapWorker>(
  () => new Worker(new URL('./overlap.worker.ts', import.meta.url), { type: 'module', name: 'overlap' }),
);

import type { LookWorker } from './protocol.ts';
import { WorkerClient } from './worker-client.ts';

/** Looks drafts over. */
export const looker = new WorkerClient<LookWorker>(
  () => new Worker(new URL('./look.worker.ts', import.meta.url), { type: 'module', name: 'look' }),
);

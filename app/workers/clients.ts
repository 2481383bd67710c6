import type { PlanWorker, ReaderWorker, TableWorker, TextWorker } from './protocol.ts';
import { WorkerClient } from './worker-client.ts';

/** Reads and writes files off the main thread. */
export const reader = new WorkerClient<ReaderWorker>(
  () => new Worker(new URL('./reader.worker.ts', import.meta.url), { type: 'module', name: 'reader' }),
);

/** Reads rubrics and scores out of tables. */
export const tables = new WorkerClient<TableWorker>(
  () => new Worker(new URL('./table.worker.ts', import.meta.url), { type: 'module', name: 'tables' }),
);

/** Chooses what to do in the time there is. */
export const planner = new WorkerClient<PlanWorker>(
  () => new Worker(new URL('./plan.worker.ts', import.meta.url), { type: 'module', name: 'plan' }),
);

/** Computes differences and outcomes. */
export const texts = new WorkerClient<TextWorker>(
  () => new Worker(new URL('./text.worker.ts', import.meta.url), { type: 'module', name: 'text' }),
);

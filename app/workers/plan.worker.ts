import { expose } from 'comlink';
import { bought, pointsCurve } from '#core/plan/time.ts';
import { placeWeek } from '#core/plan/week.ts';
import type { PlanWorker } from './protocol.ts';

const worker: PlanWorker = { bought, pointsCurve, placeWeek };
expose(worker);

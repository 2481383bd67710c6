import { expose } from 'comlink';
import { howSet } from '#core/overlap/how-set.ts';
import { KnownSources } from '#core/overlap/known-sources.ts';
import type { OverlapWorker } from './protocol.ts';

/** Sources stay known while the page is open: a draft is compared with them again and again. */
const sources = new KnownSources();

const worker: OverlapWorker = {
  unknownOf: (ids) => ids.filter((id) => !sources.knows(id)),
  add: (id, text) => sources.add(id, text),
  compare: (draftKey, paper, compared) => sources.compare(draftKey, paper, compared),
  howSet,
  sides: (id, draft, place) => sources.sides(id, draft, place),
};
expose(worker);

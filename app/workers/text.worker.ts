import { expose } from 'comlink';
import { followerOf, type Follower } from '#core/anchors/outcome.ts';
import { differenceOf } from '#core/difference/difference.ts';
import { compareForReading } from '#core/difference/display.ts';
import { decodeModel, type SayingModel } from '#core/saying/model.ts';
import { says } from '#core/saying/says.ts';
import { newVocabulary, wordsOf } from '#core/text/words.ts';
import type { TextWorker } from './protocol.ts';

/** The older text stays prepared while drafts of it are followed: each change of the draft asks again. */
const held: { key: string | null; follower: Follower | null } = { key: null, follower: null };

const models = new Map<string, Promise<SayingModel>>();

/** A model is loaded once; where that fails, the next that wants it tries again. */
function modelAt(address: string): Promise<SayingModel> {
  const known = models.get(address);
  if (known !== undefined) return known;
  const loading = loadModel(address);
  models.set(address, loading);
  loading.catch(() => models.delete(address));
  return loading;
}

async function loadModel(address: string): Promise<SayingModel> {
  const answer = await fetch(address);
  if (!answer.ok) throw new Error(`the model of what remarks say did not come (${answer.status})`);
  return decodeModel(new Uint8Array(await answer.arrayBuffer()));
}

const worker: TextWorker = {
  follow(olderKey, older, newer, passages) {
    const follower = held.key === olderKey && held.follower !== null ? held.follower : followerOf(older);
    Object.assign(held, { key: olderKey, follower });
    return follower.follow(newer, passages);
  },
  compare(older, newer) {
    const vocabulary = newVocabulary();
    return compareForReading(differenceOf(wordsOf(older.text, vocabulary), wordsOf(newer.text, vocabulary)));
  },
  async says(address, remarks) {
    const model = await modelAt(address);
    return remarks.map((remark) => says(remark, model));
  },
};
expose(worker);

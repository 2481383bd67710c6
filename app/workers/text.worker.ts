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

const models = new Map<string, SayingModel>();

/** A model, loaded once; null where it can't be reached: whoever wants it next tries again. */
async function modelAt(address: string): Promise<SayingModel | null> {
  const known = models.get(address);
  if (known !== undefined) return known;
  const bytes = await bytesAt(address);
  if (bytes === null) return null;
  const model = decodeModel(bytes);
  models.set(address, model);
  return model;
}

async function bytesAt(address: string): Promise<Uint8Array | null> {
  try {
    const answer = await fetch(address);
    return answer.ok ? new Uint8Array(await answer.arrayBuffer()) : null;
  } catch (error) {
    // The network fails with this, and breaks off with it too.
    if (error instanceof TypeError) return null;
    throw error;
  }
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
    return model === null ? null : remarks.map((remark) => says(remark, model));
  },
};
expose(worker);

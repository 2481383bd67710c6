import { expose } from 'comlink';
import { answerFinderOf, type AnswerFinder } from '#core/answers/find.ts';
import { countChanges, differenceOf } from '#core/difference/difference.ts';
import { compareByRows } from '#core/difference/rows.ts';
import { decodeModel, type SayingModel } from '#core/saying/model.ts';
import { says } from '#core/saying/says.ts';
import { newVocabulary, wordsOf } from '#core/text/words.ts';
import type { TextWorker } from './protocol.ts';

/** The older text stays prepared while drafts of it are followed: each change of the draft asks again. */
const held: { key: string | null; finder: AnswerFinder | null } = { key: null, finder: null };

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
  find(olderKey, older, newer, remarks) {
    const finder = held.key === olderKey && held.finder !== null ? held.finder : answerFinderOf(older);
    Object.assign(held, { key: olderKey, finder });
    return finder.find(newer, remarks);
  },
  compareByRows,
  shareKept(older, newer) {
    const vocabulary = newVocabulary();
    const a = wordsOf(older.text, vocabulary);
    const { kept, moved } = countChanges(differenceOf(a, wordsOf(newer.text, vocabulary)));
    return a.ids.length === 0 ? 1 : (kept + moved) / a.ids.length;
  },
  async says(address, remarks) {
    const model = await modelAt(address);
    return model === null ? null : remarks.map((remark) => says(remark, model));
  },
};
expose(worker);

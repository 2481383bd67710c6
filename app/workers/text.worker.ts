import { expose } from 'comlink';
import { followerOf, type Follower } from '#core/anchors/outcome.ts';
import { differenceOf } from '#core/difference/difference.ts';
import { compareForReading } from '#core/difference/display.ts';
import { newVocabulary, wordsOf } from '#core/text/words.ts';
import type { TextWorker } from './protocol.ts';

/** The older text stays prepared while drafts of it are followed: each change of the draft asks again. */
const held: { key: string | null; follower: Follower | null } = { key: null, follower: null };

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
};
expose(worker);

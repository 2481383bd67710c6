import { expose } from 'comlink';
import { followerOf, type Follower } from '#core/anchors/outcome.ts';
import { differenceOf } from '#core/difference/difference.ts';
import { compareForReading } from '#core/difference/display.ts';
import { newVocabulary, wordsOf } from '#core/text/words.ts';
import type { TextWorker } from './protocol.ts';

let held: { key: string; follower: Follower } | null = null;

const worker: TextWorker = {
  follow(olderKey, older, newer, passages) {
    if (held?.key !== olderKey) held = { key: olderKey, follower: followerOf(older) };
    return held.follower.follow(newer, passages);
  },
  compare(older, newer) {
    const vocabulary = newVocabulary();
    return compareForReading(differenceOf(wordsOf(older.text, vocabulary), wordsOf(newer.text, vocabulary)));
  },
};
expose(worker);

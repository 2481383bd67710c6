import { stemmer } from 'stemmer';
import { wordKeysOf } from './words.ts';

/** Words that say nothing of what a text is about. */
const STOP = new Set(
  (
    'a an and are as at be been but by can did do does for from had has have how i if in into is it its me more most my no not ' +
    'of on one only or other our out over say says so some such than that the their them then there these they this those to ' +
    'too up was we were what when where which while who why will with would you your here very just'
  ).split(' '),
);

/** The stems (Porter) of a text's words, in order, without those that say nothing of what it is about. */
export function stemsOf(text: string): string[] {
  return wordKeysOf(text)
    .filter((word) => word.length > 1 && !STOP.has(word))
    .map(stemmer);
}

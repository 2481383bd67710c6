import { quotedWords, type Remark } from '../model/remark.ts';
import { countWords } from '../text/words.ts';
import { suggestedWording } from './wording.ts';

/** Longer passages than this are no pattern: they stand in a paper once. */
const PATTERN_WORDS = 4;
const QUOTED = /["“‘„«]([^"”’“»]{2,60})["”’“»]/gu;

/** The words that a remark may mean wherever they stand: those it puts others in the place of, quotes, or hangs on. */
export function wordsToSeek(remark: Pick<Remark, 'text' | 'kind' | 'change' | 'targets'>): string[] {
  const suggested = suggestedWording(remark);
  const hangsOn = quotedWords(remark) ?? '';
  const found = [
    ...(suggested === null ? [] : [suggested.before]),
    ...[...remark.text.matchAll(QUOTED)].map(([, words]) => words),
    hangsOn,
  ].map((words) => words.trim());
  return [...new Set(found)].filter((words) => words !== '' && countWords(words) <= PATTERN_WORDS);
}

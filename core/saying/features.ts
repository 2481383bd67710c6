import { shapeOf, tagsOf, type WordTag } from './lexicon.ts';
import { signsIn } from './signs.ts';

/** What a part of a remark is told by: buckets of its features, each with how much it counts. */
export interface Features {
  readonly buckets: Int32Array;
  readonly values: Float32Array;
}

/** Into so many buckets features are hashed: few of the 5,000 remarks' features fall together, and a model stays small. */
export const BUCKETS = 1 << 15;

/** How much a feature of a kind counts: there are many runs of letters in a part, and few signs. Found on held-out voices. */
const WEIGHT_BY_KIND = {
  word: 1,
  pair: 1,
  triple: 0.6,
  letters: 0.3,
  shape: 0.5,
  tag: 0.8,
  sign: 1,
  form: 1,
} as const;
type Kind = keyof typeof WEIGHT_BY_KIND;

/** All parts count alike, however long: their features are brought to this length. */
const LENGTH = 2.5;

const WORD = /\p{L}+(?:['-]\p{L}+)*|\p{N}+(?:[.,]\p{N}+)*|[^\s\p{L}\p{N}]/gu;
/** Stands for any number. */
const NUMBER = '#';

/** The words and marks of a text in lower case; numbers all alike. */
function wordsAndMarks(text: string): string[] {
  const words = text.toLowerCase().replace(/’/g, "'").match(WORD) ?? [];
  return words.map((word) => (/^\p{N}/u.test(word) ? NUMBER : word));
}

/**
 * The features of a part of a remark (computation.md 2): its words in runs of 1 to 3, letters in runs of 2 to 5, what its
 * words do in runs of 2 to 4, the rules' own signs, and how it begins and ends.
 */
export function featuresOf(text: string): Features {
  const words = wordsAndMarks(text);
  const sum = new Map<number, number>();
  const put = (kind: Kind, name: string) => sum.set(bucketOf(`${kind} ${name}`), WEIGHT_BY_KIND[kind]);
  putWords(words, put);
  putTags(words, put);
  for (const sign of signsIn(text, words)) put('sign', sign);
  for (const form of formsOf(text, words)) put('form', form);
  let square = 0;
  for (const value of sum.values()) square += value * value;
  const scale = LENGTH / Math.sqrt(square);
  return {
    buckets: Int32Array.from(sum.keys()),
    values: Float32Array.from(sum.values(), (value) => value * scale),
  };
}

type Put = (kind: Kind, name: string) => void;

function putWords(words: readonly string[], put: Put): void {
  const framed = ['^', ...words, '$'];
  runs(framed, 2, 2, (run) => put('pair', run));
  runs(framed, 3, 3, (run) => put('triple', run));
  runs(['^', ...words.map(shapeOf), '$'], 2, 4, (run) => put('shape', run));
  for (const word of words) {
    put('word', word);
    if (!/\p{L}/u.test(word)) continue;
    const letters = `<${word}>`;
    for (let length = 2; length <= 5; length++)
      for (let at = 0; at + length <= letters.length; at++) put('letters', letters.slice(at, at + length));
  }
}

function runs(words: readonly string[], least: number, most: number, each: (run: string) => void): void {
  for (let length = least; length <= most; length++)
    for (let at = 0; at + length <= words.length; at++) each(words.slice(at, at + length).join(' '));
}

/** A word that denies turns those that follow it, up to so many. */
const TURNED_WORDS = 4;

function putTags(words: readonly string[], put: Put): void {
  const count = new Map<WordTag, number>();
  const last = words.length - (/\p{L}/u.test(words.at(-1) ?? '') ? 1 : 2);
  words.forEach((word, at) => {
    for (const tag of tagsOf(word)) {
      count.set(tag, (count.get(tag) ?? 0) + 1);
      if (at === 0) put('tag', `first ${tag}`);
      if (at === 1) put('tag', `second ${tag}`);
      if (at === last) put('tag', `last ${tag}`);
    }
    if (/^(?:not|no|never|nothing|without|none|cannot|.*n't)$/.test(word))
      for (const turned of words.slice(at + 1, at + 1 + TURNED_WORDS))
        for (const tag of tagsOf(turned)) put('tag', `not ${tag}`);
  });
  const tags = [...count.keys()].sort();
  for (const tag of tags) {
    put('tag', tag);
    if ((count.get(tag) ?? 0) > 1) put('tag', `${tag} twice`);
    for (const other of tags) if (tag < other) put('tag', `${tag} and ${other}`);
  }
}

function formsOf(text: string, words: readonly string[]): string[] {
  const told = words.filter((word) => /[\p{L}#]/u.test(word)).length;
  const size = 1 << Math.ceil(Math.log2(Math.max(1, Math.min(64, told))));
  const forms = [`size ${size}`];
  const has = (name: string, pattern: RegExp) => {
    if (pattern.test(text)) forms.push(name);
  };
  has('asks', /\?["”’')]*$/);
  has('asks within', /\?.*[^?"”’')]$/);
  has('calls', /!["”’')]*$/);
  has('ends in a stop', /\.$/);
  has('ends in a comma', /,$/);
  has('begins low', /^\p{Ll}/u);
  has('number', /\p{N}/u);
  has('quotes', /[“"‘]/);
  has('begins with a quote', /^[“"‘]/);
  return forms;
}

/** FNV-1a, its high bits mixed in (public domain; Fowler, Noll, Vo). */
function bucketOf(name: string): number {
  let hash = 2_166_136_261;
  for (let at = 0; at < name.length; at++) hash = Math.imul(hash ^ name.charCodeAt(at), 16_777_619);
  hash = Math.imul(hash ^ (hash >>> 15), 2_246_822_519);
  return ((hash ^ (hash >>> 13)) >>> 0) % BUCKETS;
}

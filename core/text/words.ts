import { firstFrom } from './ascending.ts';
import { HAS_CASE, HAS_FORM } from './word-classes.ts';
import { eachWordSpan } from './word-spans.ts';

const JOINERS = /[-\u2010\u2011'\u2019]/g;

function isJoiner(unit: number): boolean {
  return unit === 0x2d || unit === 0x27 || unit === 0x2019 || unit === 0x2010 || unit === 0x2011;
}

/** Gives each different word a number, the same for all texts that share it. */
export interface Vocabulary {
  readonly idByWord: Map<string, number>;
}

/** One without words, for texts that are to be compared with each other. */
export function newVocabulary(): Vocabulary {
  return { idByWord: new Map() };
}

/** The words of a text: for each its vocabulary number and where it begins and ends (UTF-16 offsets). */
export interface Words {
  readonly text: string;
  readonly ids: Int32Array;
  readonly from: Int32Array;
  readonly to: Int32Array;
  /** What it was joined from, with a line end between each two. */
  readonly parts?: readonly Words[];
}

/** A word's form for comparing: NFKC, lower case, without the apostrophes and hyphens inside it. */
export function wordKey(raw: string): string {
  return raw.normalize('NFKC').toLowerCase().replace(JOINERS, '');
}

function idOf(vocabulary: Vocabulary, key: string): number {
  const known = vocabulary.idByWord.get(key);
  if (known !== undefined) return known;
  const id = vocabulary.idByWord.size;
  vocabulary.idByWord.set(key, id);
  return id;
}

/** What stands for a word, by where it is in its text and what its characters need for its key. */
type TakeId = (text: string, from: number, to: number, needs: number) => number;

/**
 * Splits a text into words after Unicode's word boundaries (UAX 29), words joined by one apostrophe or hyphen counting
 * as one. Takes time linear in the text.
 */
export function wordsOf(text: string, vocabulary: Vocabulary): Words {
  return readWords(text, (of, from, to, needs) => idOf(vocabulary, keyOf(of.slice(from, to), needs)));
}

/**
 * The same with a hash of 32 bits of each word's key for its number: it is the same in every text and at every time, and
 * needs no vocabulary. Commas in numbers count for nothing ("12,000" is "12000"). 0 stands for no word.
 */
export function hashedWordsOf(text: string): Words {
  return readWords(text, hashOfWord);
}

function readWords(text: string, idAt: TakeId): Words {
  const found = new GrowingWords(text.length);
  // The last word, until it is known that nothing is joined to it.
  let from = -1;
  let to = -1;
  let needs = 0;
  eachWordSpan(text, (nextFrom, nextTo, nextNeeds) => {
    if (nextFrom === to + 1 && isJoiner(text.charCodeAt(to))) needs |= nextNeeds | HAS_FORM;
    else {
      if (from >= 0) found.add(idAt(text, from, to, needs), from, to);
      from = nextFrom;
      needs = nextNeeds;
    }
    to = nextTo;
  });
  if (from >= 0) found.add(idAt(text, from, to, needs), from, to);
  return { text, ...found.cut() };
}

const COMMA = 0x2c;
/** FNV-1a's beginning and factor (Fowler, Noll, Vo). */
const FNV_BASIS = 0x811c9dc5;
const FNV_PRIME = 0x01000193;

function hashOfWord(text: string, from: number, to: number, needs: number): number {
  if ((needs & HAS_FORM) !== 0) return hashOfKey(wordKey(text.slice(from, to)));
  let hash = FNV_BASIS;
  for (let at = from; at < to; at++) {
    let unit = text.charCodeAt(at);
    if (unit === COMMA) continue;
    if ((needs & HAS_CASE) !== 0) {
      if (unit > 0x7f) return hashOfKey(text.slice(from, to).toLowerCase());
      if (unit >= 0x41 && unit <= 0x5a) unit |= 0x20;
    }
    hash = Math.imul(hash ^ unit, FNV_PRIME);
  }
  return mixed(hash);
}

function hashOfKey(key: string): number {
  let hash = FNV_BASIS;
  for (let at = 0; at < key.length; at++) {
    const unit = key.charCodeAt(at);
    if (unit !== COMMA) hash = Math.imul(hash ^ unit, FNV_PRIME);
  }
  return mixed(hash);
}

/** Spreads what FNV leaves in the lower bits (the end of MurmurHash3, Appleby); never 0. */
function mixed(hash: number): number {
  let h = hash ^ (hash >>> 16);
  h = Math.imul(h, 0x85ebca6b);
  h ^= h >>> 13;
  h = Math.imul(h, 0xc2b2ae35);
  h ^= h >>> 16;
  return h === 0 ? 1 : h;
}

/** Words as they are found; room is made by doubling. */
class GrowingWords {
  private ids: Int32Array<ArrayBuffer>;
  private from: Int32Array<ArrayBuffer>;
  private to: Int32Array<ArrayBuffer>;
  private count = 0;

  /** @param units of the text; a word and what parts it from the next take about six of them */
  constructor(units: number) {
    const room = Math.ceil(units / 6) + 4;
    this.ids = new Int32Array(room);
    this.from = new Int32Array(room);
    this.to = new Int32Array(room);
  }

  add(id: number, from: number, to: number): void {
    if (this.count === this.ids.length) {
      this.ids = doubled(this.ids);
      this.from = doubled(this.from);
      this.to = doubled(this.to);
    }
    this.ids[this.count] = id;
    this.from[this.count] = from;
    this.to[this.count++] = to;
  }

  cut(): { ids: Int32Array; from: Int32Array; to: Int32Array } {
    const { count } = this;
    return { ids: this.ids.slice(0, count), from: this.from.slice(0, count), to: this.to.slice(0, count) };
  }
}

function doubled(values: Int32Array): Int32Array<ArrayBuffer> {
  const larger = new Int32Array(values.length * 2);
  larger.set(values);
  return larger;
}

/** A word's key, by what its characters need: of most words it is the word itself. */
function keyOf(raw: string, needs: number): string {
  if ((needs & HAS_FORM) !== 0) return wordKey(raw);
  return (needs & HAS_CASE) !== 0 ? raw.toLowerCase() : raw;
}

/** Joins the words of several texts to those of the texts joined by a line end each. */
export function joinWords(parts: readonly Words[]): Words {
  let count = 0;
  for (const part of parts) count += part.ids.length;
  const ids = new Int32Array(count);
  const from = new Int32Array(count);
  const to = new Int32Array(count);
  let at = 0;
  let shift = 0;
  for (const part of parts) {
    ids.set(part.ids, at);
    for (let i = 0; i < part.ids.length; i++) {
      from[at + i] = part.from[i] + shift;
      to[at + i] = part.to[i] + shift;
    }
    at += part.ids.length;
    shift += part.text.length + 1;
  }
  return { text: parts.map((p) => p.text).join('\n'), ids, from, to, parts };
}

/** The words of a text, in order, in the form in which they are compared. */
export function wordKeysOf(text: string): string[] {
  const { from, to } = wordsOf(text, newVocabulary());
  return Array.from(from, (start, i) => wordKey(text.slice(start, to[i])));
}

/** How many words a text has. */
export function countWords(text: string): number {
  return wordsOf(text, newVocabulary()).ids.length;
}

/** The range of words that touch the characters `fromChar` up to `toChar`; empty between two words. */
export function wordRange(words: Words, fromChar: number, toChar: number): { from: number; to: number } {
  const from = firstFrom(words.to, fromChar + 1);
  const to = Math.max(from, firstFrom(words.from, toChar));
  return { from, to };
}

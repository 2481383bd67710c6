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

/**
 * Splits a text into words after Unicode's word boundaries (UAX 29), words joined by one apostrophe or hyphen counting
 * as one. Takes time linear in the text.
 */
export function wordsOf(text: string, vocabulary: Vocabulary): Words {
  const found = new GrowingWords(text.length);
  // The last word, until it is known that nothing is joined to it.
  let from = -1;
  let to = -1;
  let needs = 0;
  const put = () => {
    if (from >= 0) found.add(idOf(vocabulary, keyOf(text.slice(from, to), needs)), from, to);
  };
  eachWordSpan(text, (nextFrom, nextTo, nextNeeds) => {
    if (nextFrom === to + 1 && isJoiner(text.charCodeAt(to))) needs |= nextNeeds | HAS_FORM;
    else {
      put();
      from = nextFrom;
      needs = nextNeeds;
    }
    to = nextTo;
  });
  put();
  return { text, ...found.cut() };
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

import type { Remark } from '../model/remark.ts';
import { TERM_ABBREVIATIONS } from '../terms/abbreviations.ts';

/** Short marks that one author uses and that are no words. */
export interface Abbreviation {
  readonly author: string;
  /** As first written. */
  readonly written: string;
  readonly remarkIds: readonly string[];
}

const LONGEST = 6;
/** Short words that stand alone in remarks and say what they mean. */
const PLAIN_WORDS = new Set(
  'a an and are as at be but by can cite cut date did do fine for give good has he how i if in is it its nice no not of ok on or ours page so sure that the this to too unit units us was we well what when where who why will with yes you your'.split(
    ' ',
  ),
);
const VOWEL = /[aeiouy]/i;

function looksShort(word: string): boolean {
  const bare = word.replace(/[.:]$/, '');
  if (bare === '' || bare.length > LONGEST || PLAIN_WORDS.has(bare.toLowerCase())) return false;
  if (!/^[\p{L}?!/.&-]+$/u.test(bare) || !/\p{L}/u.test(bare)) return false;
  return word.endsWith('.')
    ? bare.length <= 4
    : !VOWEL.test(bare) || /^\p{Lu}{2,}$/u.test(bare) || /[/&.]/.test(bare);
}

/** The word at the beginning that may be a short mark: it stands alone, or is set off from the rest; without its stop. */
function firstSetOff(text: string): { readonly written: string; readonly key: string } | null {
  const words = text.trim().split(/[\s,;]+/);
  const [first] = words;
  if (first === '' || (words.length > 1 && !/[:.]$/.test(first))) return null;
  return { written: first, key: first.replace(/[.:]$/, '').toLowerCase() };
}

/** The short mark that a remark is or begins with, in small letters and without its stop; null where there is none. */
export function shortMarkIn(text: string): string | null {
  const first = firstSetOff(text);
  return first !== null && (looksShort(first.written) || TERM_ABBREVIATIONS.has(first.key))
    ? first.key
    : null;
}

/**
 * Abbreviations in the remarks of each author, offered for the key: a short mark that is no word, alone or at the
 * beginning of a remark, written at least twice by the same hand.
 */
export function abbreviationsOf(remarks: readonly Pick<Remark, 'id' | 'author' | 'text'>[]): Abbreviation[] {
  const byHand = new Map<string, { author: string; written: string; remarkIds: string[]; short: boolean }>();
  for (const { id, author, text } of remarks) {
    const first = firstSetOff(text);
    if (first === null) continue;
    const hand = `${author.name}/${first.key}`;
    const known = byHand.get(hand) ?? {
      author: author.name,
      written: first.written.replace(/:$/, ''),
      remarkIds: [],
      short: false,
    };
    known.remarkIds.push(id);
    known.short ||= shortMarkIn(text) !== null;
    byHand.set(hand, known);
  }
  return [...byHand.values()].filter(({ remarkIds, short }) => short && remarkIds.length > 1);
}

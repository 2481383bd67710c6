import type { Remark } from '../model/remark.ts';

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

/**
 * Abbreviations in the remarks of each author, offered for the key: a short mark that is no word, alone or at the
 * beginning of a remark, written at least twice by the same hand.
 */
export function abbreviationsOf(remarks: readonly Pick<Remark, 'id' | 'author' | 'text'>[]): Abbreviation[] {
  const firsts = remarks.flatMap(({ id, author, text }) => {
    const words = text.trim().split(/[\s,;]+/);
    const [first] = words;
    // At the beginning of a longer remark only what is set off from it.
    if (words.length > 1 && !/[:.]$/.test(first)) return [];
    const key = `${author.name}/${first.replace(/[.:]$/, '').toLowerCase()}`;
    return [{ id, author: author.name, first, key }];
  });
  const short = new Map(firsts.flatMap((one) => (looksShort(one.first) ? [[one.key, one]] : [])));
  return [...short.values()]
    .map(({ author, first, key }) => ({
      author,
      written: first.replace(/:$/, ''),
      remarkIds: firsts.filter((one) => one.key === key).map(({ id }) => id),
    }))
    .filter(({ remarkIds }) => remarkIds.length > 1);
}

import { wordKeysOf } from '../text/words.ts';

const MARKS = /\p{M}+/gu;
/** "L.", "J. M.", "K.-H.": letters that stand for given names. */
const INITIALS = /^(?:\p{Lu}\p{Ll}?\.?[\s-]?)+$/u;
const LEADING_INITIALS = /^(?:\p{Lu}\.[\s-]?)+\s*/u;
const BETWEEN = /\s*;\s*|,?\s+(?:and|und|et|y)\s+|\s*&\s*/;
const OTHERS = /,?\s*(?:et al\.?|and others|u\. ?a\.)\s*$/i;
const SMALL = /^(?:the|der|die|das|le|la|les|el)\s+/i;

/** A text as names are looked for in it: words in lower case without accents, a space on both sides of each. */
export function foldedWords(text: string): string {
  const words = wordKeysOf(text).map((word) => word.normalize('NFKD').replace(MARKS, ''));
  return ` ${words.join(' ')} `;
}

/**
 * The names by which the authors of a work are cited: family names of people, whole names of others ("Parish of Ashwell").
 * @param authors as they stand in a list: "Hask, L., Oddie, P. and Venn, R.", "Brask, Nils, and Moira Lune", "R. Halm"
 * @returns folded (foldedWords), without the spaces around them, each once
 */
export function namesOf(authors: string): string[] {
  const found = authors
    .replace(OTHERS, '')
    .split(BETWEEN)
    .flatMap(namesInList)
    .map((name) => foldedWords(name.replace(SMALL, '')).trim())
    .filter((name) => name.length > 1);
  return [...new Set(found)];
}

/** Names with commas between them, some of them turned round: "Hask, L., Oddie, P.", "Brask, Nils". */
function namesInList(list: string): string[] {
  const pieces = list.split(',').map((piece) => piece.trim());
  const names: string[] = [];
  pieces.forEach((piece, i) => {
    if (piece === '' || (i > 0 && INITIALS.test(piece))) return;
    // One that follows a single family name and is followed by nothing is its given name.
    if (i === 1 && pieces.length === 2 && !pieces[0].includes(' ') && !piece.includes(' ')) return;
    const bare = piece.replace(LEADING_INITIALS, '');
    const words = bare.split(/\s+/);
    names.push(bare);
    // Two words may be a given and a family name.
    if (words.length === 2 && bare === piece && words.every((word) => /^\p{Lu}/u.test(word)))
      names.push(words[1]);
  });
  return names;
}

/** Whether a text (foldedWords) names one of these (namesOf). */
export function isNamedIn(folded: string, names: readonly string[]): boolean {
  return names.some((name) => folded.includes(` ${name} `) || folded.includes(` ${name}s `));
}

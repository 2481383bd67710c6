import type { Span } from './span.ts';

/** A text as words are looked for in it: letters alone, and for each where its character began and ended. */
export interface Folded {
  readonly text: string;
  readonly from: readonly number[];
  readonly to: readonly number[];
}

const SET_ASIDE = /[\s\u00AD\u200B\uFEFF\u2010\u2011-]/;
const HYPHEN = 0x2d;
const MARKS = /\p{M}+/gu;

/**
 * A text without what differs between two ways of writing the same words: capitals, accents, white space, hyphens (also
 * those at a line's end). Offsets are UTF-16 units of `text` as given.
 */
export function foldedText(text: string): Folded {
  const kept: string[] = [];
  const from: number[] = [];
  const to: number[] = [];
  let index = 0;
  for (const character of text) {
    const code = text.charCodeAt(index);
    if (code > 0x20 && code < 0x7f) {
      // By far the most characters of a long paper.
      if (code !== HYPHEN) {
        kept.push(character.toLowerCase());
        from.push(index);
        to.push(index + 1);
      }
      index++;
      continue;
    }
    const folded = character.normalize('NFKD').replace(MARKS, '').toLowerCase();
    for (const one of folded)
      if (!SET_ASIDE.test(one))
        for (let i = 0; i < one.length; i++) {
          kept.push(one[i]);
          from.push(index);
          to.push(index + character.length);
        }
    index += character.length;
  }
  return { text: kept.join(''), from, to };
}

/** Everywhere that words stand in a text, in order, none overlapping the one before; none for words of no letter. */
export function placesOfWords({ text, from, to }: Folded, wanted: string): Span[] {
  const words = foldedText(wanted).text;
  const found: Span[] = [];
  if (words === '') return found;
  for (let i = text.indexOf(words); i >= 0; i = text.indexOf(words, i + words.length))
    found.push({ from: from[i], to: to[i + words.length - 1] });
  return found;
}

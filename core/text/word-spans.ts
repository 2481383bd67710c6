import { CLASS_BITS, HAS_FORM, wordClass, wordTable } from './word-classes.ts';

const { letter, digit, connector, extend, midLetter, midDigit, midEither, complex } = wordClass;

const segmenter = new Intl.Segmenter('en', { granularity: 'word' });

/**
 * The platform's segmenter goes over all of its text for each word, so it is given pieces. So many units at least: fewer
 * would cost more calls than they save.
 */
const PIECE_UNITS = 256;
/** A piece with no space to end it at is cut after so many units, */
const LONGEST_PIECE = 2048;
/** and what the segmenter says of the last of them is not believed: it depends on what would follow. */
const UNSURE_UNITS = 256;

/** Takes a word: its first unit, the unit after its last, and what the units in it need for its key (word-classes.ts). */
type TakeWord = (from: number, to: number, needs: number) => void;

/**
 * Every word of a text, in order, as Unicode's word boundaries give them (UAX 29), in time linear in the text. Latin, Greek
 * and Cyrillic are walked by a table; other scripts, and what touches them, are cut by the platform's segmenter in pieces.
 */
export function eachWordSpan(text: string, take: TakeWord): void {
  let at = 0;
  while (at < text.length) {
    const first = wordTable[text.charCodeAt(at)];
    const kind = first & CLASS_BITS;
    if (kind === complex) at = segmentPiece(text, at, take);
    else if (kind === letter || kind === digit || kind === connector) {
      const end = endOfWord(text, at, first, take);
      at = end === TOUCHES_COMPLEX ? segmentPiece(text, at, take) : end;
    } else at++;
  }
}

const TOUCHES_COMPLEX = -1;

/** Takes the word that begins at a plain letter, digit or connector; gives where it ends. */
function endOfWord(text: string, from: number, first: number, take: TakeWord): number {
  let last = first & CLASS_BITS;
  let needs = first;
  let isWord = last !== connector;
  let to = from + 1;
  // An end of the text reads as a character that stands by itself: NaN finds nothing in the table.
  for (;;) {
    const entry = to < text.length ? wordTable[text.charCodeAt(to)] : 0;
    const kind = entry & CLASS_BITS;
    if (kind === letter || kind === digit) {
      isWord = true;
      last = kind;
    } else if (kind === connector) {
      // Two connectors count as a word for the platform too.
      isWord = true;
      last = kind;
    } else if (kind === midLetter || kind === midDigit || kind === midEither) {
      let next = to + 1;
      let between = entry;
      while (next < text.length && (wordTable[text.charCodeAt(next)] & CLASS_BITS) === extend)
        between |= wordTable[text.charCodeAt(next++)];
      const after = next < text.length ? wordTable[text.charCodeAt(next)] & CLASS_BITS : 0;
      if (after === complex) return TOUCHES_COMPLEX;
      const joins =
        last === after && ((last === letter && kind !== midDigit) || (last === digit && kind !== midLetter));
      if (!joins) break;
      needs |= between;
      to = next;
      continue;
    } else if (kind === complex) return TOUCHES_COMPLEX;
    else if (kind !== extend) break;
    needs |= entry;
    to++;
  }
  if (isWord) take(from, to, needs);
  return to;
}

/** Takes the words of a piece from a word boundary on, as the platform cuts it; gives the boundary where it ended. */
function segmentPiece(text: string, from: number, take: TakeWord): number {
  for (let longest = LONGEST_PIECE; ; longest *= 2) {
    const cut = placeToCut(text, from, longest);
    const end = cut ?? Math.min(text.length, from + longest);
    const sureUpTo = cut === null && end < text.length ? end - UNSURE_UNITS : end;
    let at = from;
    for (const { segment, index, isWordLike } of segmenter.segment(text.slice(from, end))) {
      const to = from + index + segment.length;
      if (to > sureUpTo) break;
      if (isWordLike === true) take(from + index, to, HAS_FORM);
      at = to;
    }
    // One segment longer than the piece: seen whole in a longer one.
    if (at > from) return at;
  }
}

/** After a space, and before what can't belong to it: words on both sides are the same whether cut here or not. */
function placeToCut(text: string, from: number, longest: number): number | null {
  const most = Math.min(text.length, from + longest);
  for (let at = from + 1; at < most; at++) {
    const before = text.charCodeAt(at - 1);
    if (before !== 0x20 && before !== 0x0a) continue;
    const kind = wordTable[text.charCodeAt(at)] & CLASS_BITS;
    if (kind === letter || kind === digit) return at;
    if (kind === complex && at - from >= PIECE_UNITS && !GOES_WITH_BEFORE.test(text[at])) return at;
  }
  return most === text.length ? most : null;
}

/** Marks and controls, and halves of characters that may be either. */
const GOES_WITH_BEFORE = /[\p{M}\p{Cf}\p{Cs}]/u;

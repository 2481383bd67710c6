/**
 * What a character is to word boundaries (Unicode Standard Annex 29, section 4), for the scripts in which they are plain:
 * Latin, Greek, Cyrillic, their digits, marks and punctuation. All else is `complex` and left to the platform.
 */
export const wordClass = {
  /** Stands by itself: white space, most punctuation. */
  other: 0,
  letter: 1,
  digit: 2,
  /** Joins words to one, as the underscore does, and is none by itself. */
  connector: 3,
  /** A mark or a control that goes with what is before it. */
  extend: 4,
  /** Within a word between letters only, as the middle dot is. */
  midLetter: 5,
  /** Within a number between digits only, as the comma is. */
  midDigit: 6,
  /** Within either, as the full stop and the apostrophe are. */
  midEither: 7,
  complex: 8,
} as const;

/** The bits of an entry that hold its class; those above hold what its key needs. */
export const CLASS_BITS = 0x0f;
/** It is written otherwise in small letters. */
export const HAS_CASE = 0x10;
/** It has another form under NFKC, may join with what is before it, or is no part of the key. */
export const HAS_FORM = 0x20;

type Range = readonly [first: number, last: number];

// The assigned characters of these blocks, by the property Word_Break of Unicode 15 to 17, which agree on them. The
// zero-width joiner (200D) is not among them: what it does hangs on what follows.
const OTHERS: readonly Range[] = [
  [0x00, 0x377],
  [0x37a, 0x37f],
  [0x384, 0x38a],
  [0x38e, 0x3a1],
  [0x3a3, 0x52f],
  [0x1e00, 0x1f15],
  [0x1f20, 0x1f45],
  [0x1f50, 0x1f57],
  [0x1f60, 0x1f7d],
  [0x1f80, 0x1fb4],
  [0x2000, 0x200c],
  [0x200e, 0x2064],
  [0x2070, 0x2071],
  [0x2074, 0x208e],
  [0x20a0, 0x20bf],
  [0x2100, 0x218b],
  [0x2190, 0x22ff],
  [0x25a0, 0x25ff],
];
const LETTERS: readonly Range[] = [
  [0x41, 0x5a],
  [0x61, 0x7a],
  [0xaa, 0xaa],
  [0xb5, 0xb5],
  [0xb8, 0xb8],
  [0xba, 0xba],
  [0xc0, 0xd6],
  [0xd8, 0xf6],
  [0xf8, 0x2d7],
  [0x2de, 0x2ff],
  [0x370, 0x374],
  [0x376, 0x377],
  [0x37a, 0x37d],
  [0x37f, 0x37f],
  [0x386, 0x386],
  [0x388, 0x38a],
  [0x38e, 0x3a1],
  [0x3a3, 0x3f5],
  [0x3f7, 0x481],
  [0x48a, 0x52f],
  [0x1e00, 0x1f15],
  [0x1f20, 0x1f45],
  [0x1f50, 0x1f57],
  [0x1f60, 0x1f7d],
  [0x1f80, 0x1fb4],
  [0x2071, 0x2071],
  [0x207f, 0x207f],
  [0x2102, 0x2102],
  [0x2107, 0x2107],
  [0x210a, 0x2113],
  [0x2115, 0x2115],
  [0x2119, 0x211d],
  [0x2124, 0x2124],
  [0x2126, 0x2126],
  [0x2128, 0x2128],
  [0x212a, 0x212d],
  [0x212f, 0x2139],
  [0x213c, 0x213f],
  [0x2145, 0x2149],
  [0x214e, 0x214e],
  [0x2160, 0x2188],
];
const DIGITS: readonly Range[] = [[0x30, 0x39]];
const CONNECTORS: readonly Range[] = [
  [0x5f, 0x5f],
  [0x202f, 0x202f],
  [0x203f, 0x2040],
  [0x2054, 0x2054],
];
const EXTENDERS: readonly Range[] = [
  [0xad, 0xad],
  [0x300, 0x36f],
  [0x483, 0x489],
  [0x200c, 0x200c],
  [0x200e, 0x200f],
  [0x202a, 0x202e],
  [0x2060, 0x2064],
];
const MID_LETTERS: readonly Range[] = [
  [0x3a, 0x3a],
  [0xb7, 0xb7],
  [0x387, 0x387],
  [0x2027, 0x2027],
];
const MID_DIGITS: readonly Range[] = [
  [0x2c, 0x2c],
  [0x3b, 0x3b],
  [0x37e, 0x37e],
  [0x2044, 0x2044],
];
const MID_EITHER: readonly Range[] = [
  [0x27, 0x27],
  [0x2e, 0x2e],
  [0x2018, 0x2019],
  [0x2024, 0x2024],
];

/** For each UTF-16 unit its class and what its key needs. */
export const wordTable: Uint8Array = tableOf();

function tableOf(): Uint8Array {
  const table = new Uint8Array(0x10000).fill(wordClass.complex);
  const fill = (ranges: readonly Range[], value: number) => {
    for (const [first, last] of ranges) table.fill(value, first, last + 1);
  };
  fill(OTHERS, wordClass.other);
  fill(LETTERS, wordClass.letter);
  fill(DIGITS, wordClass.digit);
  fill(CONNECTORS, wordClass.connector);
  fill(EXTENDERS, wordClass.extend);
  fill(MID_LETTERS, wordClass.midLetter);
  fill(MID_DIGITS, wordClass.midDigit);
  fill(MID_EITHER, wordClass.midEither);
  // Apostrophes inside a word are no part of its key.
  for (const apostrophe of [0x27, 0x2019]) table[apostrophe] |= HAS_FORM;
  for (const [first, last] of OTHERS)
    for (let unit = first; unit <= last; unit++) {
      const character = String.fromCharCode(unit);
      if (character.toLowerCase() !== character) table[unit] |= HAS_CASE;
      if ((table[unit] & CLASS_BITS) === wordClass.extend || character.normalize('NFKC') !== character)
        table[unit] |= HAS_FORM;
    }
  return table;
}

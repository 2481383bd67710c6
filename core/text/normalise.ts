const SOFT_HYPHEN = /\u00AD/g;
const WHITE_SPACE = /[\s\u200B\uFEFF]+/g;

/** A piece of text without soft hyphens, each run of white space one space. */
export function foldSpaces(raw: string): string {
  return raw.replace(SOFT_HYPHEN, '').replace(WHITE_SPACE, ' ');
}

/**
 * Text as it is compared: without soft hyphens, in Unicode NFKC (which also opens ligatures), each run of white space one
 * space, none at the ends. Normalising it again changes nothing.
 */
export function normaliseText(raw: string): string {
  return foldSpaces(raw.replace(SOFT_HYPHEN, '').normalize('NFKC')).trim();
}

/** A normalised text, and for each of its UTF-16 units where that which became it begins and ends in the raw text. */
export interface Normalised {
  readonly text: string;
  readonly from: readonly number[];
  readonly to: readonly number[];
}

/** What Unicode's normal forms look at together: a character with the marks, or the parts of a syllable, after it. */
const TOGETHER = /[^\p{M}\u1160-\u11FF][\p{M}\u1160-\u11FF]*|[\p{M}\u1160-\u11FF]+/gu;
const PLAIN = /^[\x21-\x7e]$/;

/** Normalises a text and keeps the way back. `text` is what `normaliseText` gives. */
export function normalised(raw: string): Normalised {
  const units: string[] = [];
  const from: number[] = [];
  const to: number[] = [];
  const put = (unit: string, start: number, end: number) => {
    units.push(unit);
    from.push(start);
    to.push(end);
  };
  // Where white space waits to become one space, until something comes after it.
  let gapFrom = -1;
  const { text, at } = withoutSoftHyphens(raw);
  for (const { 0: piece, index } of text.matchAll(TOGETHER)) {
    const start = at[index];
    const end = at[index + piece.length - 1] + 1;
    for (const unit of PLAIN.test(piece)
      ? piece
      : piece.normalize('NFKC').replace(WHITE_SPACE, ' ').split(''))
      if (unit !== ' ') {
        // A mark that stands by itself is a space and the mark: both came of one.
        if (gapFrom >= 0 && units.length > 0) put(' ', gapFrom, Math.max(start, gapFrom + 1));
        gapFrom = -1;
        put(unit, start, end);
      } else if (gapFrom < 0) gapFrom = start;
  }
  return { text: units.join(''), from, to };
}

function withoutSoftHyphens(raw: string): { text: string; at: ArrayLike<number> } {
  const at = new Int32Array(raw.length);
  let count = 0;
  for (let i = 0; i < raw.length; i++) if (raw.charCodeAt(i) !== 0xad) at[count++] = i;
  return { text: raw.replace(SOFT_HYPHEN, ''), at };
}

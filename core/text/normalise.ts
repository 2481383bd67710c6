const SOFT_HYPHEN = /\u00AD/g;
const WHITE_SPACE = /[\s\u200B\uFEFF]+/g;
const IS_WHITE_SPACE = /^[\s\u200B\uFEFF]+$/;

/**
 * Text as it is compared: Unicode NFKC (which also opens ligatures), without soft hyphens, each run of white space one
 * space, none at the ends.
 */
export function normaliseText(raw: string): string {
  return raw.normalize('NFKC').replace(SOFT_HYPHEN, '').replace(WHITE_SPACE, ' ').trim();
}

/**
 * Where an offset into a normalised text lies in the raw one. Characters are taken one by one, so within a sequence of
 * combining characters the answer is its beginning.
 */
export function rawOffset(raw: string, offset: number): number {
  if (raw === normaliseText(raw)) return offset;
  let length = 0;
  let gap = false;
  let at = 0;
  for (const character of raw) {
    const shown = character.normalize('NFKC').replace(SOFT_HYPHEN, '');
    if (shown !== '' && !IS_WHITE_SPACE.test(shown)) {
      if (gap && length > 0) length++;
      gap = false;
      if (length >= offset) return at;
      length += shown.length;
      if (length >= offset) return at + character.length;
    } else if (shown !== '') gap = true;
    at += character.length;
  }
  return raw.length;
}

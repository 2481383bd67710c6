const SOFT_HYPHEN = /\u00AD/g;
const WHITE_SPACE = /[\s\u200B\uFEFF]+/g;

/**
 * Text as it is compared: Unicode NFKC (which also opens ligatures), without soft hyphens, each run of white space one
 * space, none at the ends.
 */
export function normaliseText(raw: string): string {
  return raw.normalize('NFKC').replace(SOFT_HYPHEN, '').replace(WHITE_SPACE, ' ').trim();
}

/** Numbers as words, as they stand before marks and points. */
const NUMBERS = new Map<string, number>([
  ['half a', 0.5],
  ['half', 0.5],
  ['a half', 0.5],
  ['a couple of', 2],
  ['a', 1],
  ...['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'].map(
    (word, index) => [word, index + 1] as const,
  ),
]);
const AS_FIGURE = '\\d+(?:[.,]\\d+)?½?|½';
const AMOUNT = `(${AS_FIGURE}|${[...NUMBERS.keys()].join('|')})`;
/** "Three point two" is a number. */
const UNIT =
  '(?:(?:speaker |more )?(?:marks?|points?|pts?\\.?|percent|per cent|%))(?! (?:zero|one|two|three|four|five|six|seven|eight|nine|ten|\\d))';
const LOST = '(?:off|lost|less|deducted|gone|taken|down|short|withheld|away|awarded|earned|kept back)';

/** What a negative figure measures where it is no loss of points. */
const MEASURES =
  'metres?|meters?|m|cm|mm|km|g|kg|mg|degrees?|k|v|s|seconds?|minutes?|hours?|days?|years?|per|to|and|or';

/** Rows in the order they are tried; each has the amount as its first group. */
const ROWS: readonly RegExp[] = [
  // "-2 for units", "−½", "(–3)", "minus 10".
  new RegExp(
    `(?:^|[\\s(:,.;])[-−–] ?(${AS_FIGURE})(?!\\d*[:.]\\d)(?![\\p{L}\\d°/])(?! ?(?:${MEASURES})\\b)`,
    'iu',
  ),
  new RegExp(`\\bminus ${AMOUNT}\\b`, 'iu'),
  // "two of the ten marks", "four of the ten", "3 of 5 lost", "3/10 lost".
  new RegExp(`\\b${AMOUNT} (?:out )?of (?:the |your |these )?(?:${AS_FIGURE}|\\p{L}+) ${UNIT}`, 'iu'),
  new RegExp(
    `\\b${AMOUNT} of (?:the )?(?:${AS_FIGURE}|two|three|four|five|six|eight|ten|twelve|twenty)\\b`,
    'iu',
  ),
  new RegExp(`\\b(${AS_FIGURE})/\\d+ ${LOST}`, 'iu'),
  // "two marks off", "half a mark", "3 points lost", "lost 2 marks", "I took off 4".
  new RegExp(`\\b${AMOUNT} ${UNIT}(?![\\p{L}])`, 'iu'),
  new RegExp(`(?:^|[^\\p{L}\\d])${AMOUNT} ${LOST}\\b`, 'iu'),
  new RegExp(
    `\\b(?:lost|lose|loses|cost|deducted|taken off|take|took|minus|down|took off) ${AMOUNT}\\b`,
    'iu',
  ),
  new RegExp(`(½) off`, 'iu'),
];
/** An amount counts as lost only where something says so, or where it is written as a minus. */
const SAYS_LOST =
  /(?:^|[\s(:,.;])[-−–] ?[\d½]|\b(?:off|lost|lose|loses|losing|less|deduct\w*|gone|went|minus|cost|costs|taken|took|take|withh\w+|kept back|short|down|penalty|missing|absent|needed|might have been|not awarded|can[’']t give|could not be given|because|since|that is|those are|for)\b/iu;
/** Points that were won, or that a whole has. */
const SAYS_WON =
  /\b(?:full|well deserved|bonus|extra|gained|out of the \d+ you got|no (?:points?|marks?) (?:lost|off|taken|deducted))\b/iu;

/**
 * Points that a remark says were lost ("-2 for units", "that is four of the ten points", "half a mark"), in the
 * assignment's points; null where it names none. Several amounts are summed up only where each is a minus of its own.
 */
export function pointsNamed(text: string): number | null {
  if (SAYS_WON.test(text) || !SAYS_LOST.test(text)) return null;
  for (const row of ROWS) {
    const found = row.exec(text);
    if (found === null) continue;
    const amount = amountOf(found[1]);
    // A bare "a mark" is a way of speaking unless something says that it was taken.
    if (amount !== null && amount > 0) return amount;
  }
  return null;
}

function amountOf(written: string): number | null {
  const known = NUMBERS.get(written.toLowerCase());
  if (known !== undefined) return known;
  const half = written.endsWith('½') ? 0.5 : 0;
  const figure = written.replace('½', '').replace(',', '.');
  const number = figure === '' ? 0 : Number(figure);
  return Number.isFinite(number) ? number + half : null;
}

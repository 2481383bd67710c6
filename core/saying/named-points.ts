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
const FIGURE = '\\d+(?:[.,]\\d+)?½?|½';
const AMOUNT = `(${FIGURE}|${[...NUMBERS.keys()].join('|')})`;
/** The same without "a", which may stand before anything. */
const COUNTED = `(${FIGURE}|${[...NUMBERS.keys()].filter((word) => word !== 'a').join('|')})`;
/** "Three point two" is a number, and a six mark question no loss. */
const UNIT =
  '(?:(?:speaker |more )?(?:marks?|points?|pts?\\.?))(?! (?:zero|one|two|three|four|five|six|seven|eight|nine|ten|\\d|question|scale))(?![\\p{L}])';
const LOST = '(?:off|lost|deducted|taken|down|withheld|away|awarded|earned|kept back)';
/** After these something is said of the loss, or nothing more. */
const ENDS = '(?=\\s*(?:$|[.,;:!)(]|because\\b|for\\b|as\\b|since\\b|due\\b|under\\b|on\\b|here\\b))';
/** What a negative figure measures where it is no loss of points. */
const MEASURES =
  'metres?|meters?|m|cm|mm|km|g|kg|mg|degrees?|k|v|s|seconds?|minutes?|hours?|days?|years?|per|to|and|or';
const MINUS = `[-−–] ?(${FIGURE})(?!\\d*[:.-]\\d)(?![\\p{L}\\d°/])(?! ?(?:${MEASURES})\\b)`;

/** Rows that are surely a loss: "-2 for units", "no units −½", "minus 10", "3 points: no baseline", "Late: 10 points". */
const SURE: readonly RegExp[] = [
  new RegExp(`(?:^|[.!?;:(]\\s*|\\n)${MINUS}`, 'iu'),
  new RegExp(`(?<!=|\\bnot|\\bthan|\\bto)\\s${MINUS}(?: ?${UNIT})?[.)]*$`, 'iu'),
  new RegExp(`\\bminus ${AMOUNT}\\b`, 'iu'),
  new RegExp(`\\bpenalty of ${COUNTED} ${UNIT}`, 'iu'),
  new RegExp(`^${COUNTED} (?:a )?${UNIT}\\s*[:,]`, 'iu'),
  new RegExp(`:\\s*${COUNTED} ${UNIT}[.]?$`, 'iu'),
];
/** "Two of the ten marks", "four of the ten", "3 of 5 lost": of a score as well as of a loss, so it must be said strongly. */
const OF_ALL: readonly RegExp[] = [
  new RegExp(`\\b${COUNTED} (?:out )?of (?:the |your |these )?(?:${FIGURE}|\\p{L}+) ${UNIT}`, 'iu'),
  new RegExp(
    `\\b${COUNTED} of (?:the )?(?:${FIGURE}|two|three|four|five|six|eight|ten|twelve|twenty)(?:${ENDS}|(?= (?:lost|went|gone|were|was)\\b))`,
    'iu',
  ),
];
const STRONGLY_LOST =
  /\b(?:off|lost|lose|loses|cost|costs|deduct\w*|gone|went|taken|took|withh\w+|minus|that is|that['’]s|those are|might have been|can[’']t give)\b/iu;
/** Rows that are one where something says that it was lost. */
const PERHAPS: readonly RegExp[] = [
  // "3/10 lost".
  new RegExp(`\\b(${FIGURE})/\\d+ ${LOST}`, 'iu'),
  // "two marks off", "half a mark", "lost 2 marks", "I took off 4", "one less", "two short".
  new RegExp(`(?<!\\bof (?:the |your |these )?)\\b${AMOUNT} ${UNIT}`, 'iu'),
  new RegExp(`(?:^|[^\\p{L}\\d])${COUNTED} ${LOST}\\b`, 'iu'),
  new RegExp(`(?:^|[^\\p{L}\\d])${COUNTED} (?:less|gone|short)${ENDS}`, 'iu'),
  new RegExp(
    `\\b(?:lost|lose|loses|cost|deducted|taken off|take off|took off|took|down|withheld|had to take) ${COUNTED}(?![-–]\\d)${ENDS}`,
    'iu',
  ),
  new RegExp(`\\b(?:had to take|took|taken) ${COUNTED} (?:off|away)\\b`, 'iu'),
];
const SAYS_LOST =
  /\b(?:off|lost|lose|loses|losing|less|deduct\w*|gone|went|cost|costs|taken|took|take|withh\w+|kept|short|down|penalty|missing|absent|might have been|not awarded|not earned|can[’']t give|could not be given|because|since|that is|those are|too early|for|left|half)\b|½/iu;
/** Points that were won, or that a whole has. */
const SAYS_WON =
  /\b(?:full|well deserved|bonus|extra|gained|no (?:points?|marks?) (?:lost|off|taken|deducted)|given (?:it|you) a mark|give a mark|too short for)\b/iu;

/**
 * Points that a remark says were lost ("-2 for units", "that is four of the ten points", "half a mark"), in the
 * assignment's points; null where it names none. Of several amounts the first is taken.
 */
export function pointsNamed(text: string): number | null {
  if (SAYS_WON.test(text)) return null;
  const rows = [
    ...SURE,
    ...(STRONGLY_LOST.test(text) ? OF_ALL : []),
    ...(SAYS_LOST.test(text) ? PERHAPS : []),
  ];
  for (const row of rows) {
    const found = row.exec(text);
    const amount = found === null ? null : amountOf(found[1]);
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

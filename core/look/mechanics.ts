import type { Span } from '../text/span.ts';

/** What can be told of a paragraph by itself: a word twice, a small letter after a full stop, a mark without its pair. */
export interface Slip extends Span {
  readonly kind: 'repeated word' | 'capital' | 'unpaired mark';
}

const TWICE = /(?<![\p{L}\p{N}'’-])(\p{L}[\p{L}'’]*)(?:\s+\1)+(?![\p{L}\p{N}'’-])/giu;
/** Words that stand twice in good sentences: "had had", "gave her her book", "in May may". */
const MAY_REPEAT = new Set([
  'had',
  'may',
  'her',
  'is',
  'do',
  'so',
  'very',
  'no',
  'ha',
  'yes',
  'bye',
  'now',
  'there',
  'long',
  'far',
  'much',
  'sie',
  'die',
  'der',
  'das',
  'nous',
  'vous',
]);

function repeated(text: string): Slip[] {
  return [...text.matchAll(TWICE)].flatMap(({ 0: words, 1: word, index }): Slip[] => {
    const times = words.split(/\s+/);
    // Of two capitals both are names: "Ba Ba", "Bora Bora".
    const isName = times.every((one) => /^\p{Lu}/u.test(one));
    const isUsual = MAY_REPEAT.has(word.toLowerCase()) && times.length === 2;
    return isName || isUsual ? [] : [{ kind: 'repeated word', from: index, to: index + words.length }];
  });
}

const SMALL_AFTER_STOP = /([\p{L}\p{N}%][\p{L}\p{N}.’'-]*)([)\]”"’»]*[.!?][)\]]*)\s+(\p{Ll}[\p{L}’'-]*)/gu;
/** What has a stop behind it and ends nothing. */
const SHORT_FORM =
  /^(?:\p{L}|\d+|[\p{L}.]*\.[\p{L}]+|al|approx|app|art|assn|avg|bzw|ca|cf|ch|chap|col|cont|dept|dr|ed|eds|eq|eqs|esp|est|et|etc|evtl|excl|ff|fig|figs|fl|ggf|ibid|incl|inkl|jr|max|min|mr|mrs|ms|mt|n|no|nos|nr|op|orig|p|par|pl|pp|prof|pt|repr|resp|rev|sec|sect|ser|sic|sp|spp|sr|st|suppl|tab|trans|usw|var|vgl|viz|vol|vols|vs|zzgl|jan|feb|mar|apr|jun|jul|aug|sep|sept|oct|nov|dec)$/iu;

function smallAfterStop(text: string): Slip[] {
  const found: Slip[] = [];
  for (const { 0: whole, 1: before, 2: stop, 3: word, index } of text.matchAll(SMALL_AFTER_STOP)) {
    // "What?” he asked": a question within a sentence; "pH": a name that begins small.
    if (/\p{Lu}/u.test(word) || (stop.startsWith('.') && SHORT_FORM.test(before))) continue;
    if (!stop.includes('.') && /[”"’»]/u.test(whole.slice(before.length + stop.length - 1))) continue;
    const from = index + whole.length - word.length;
    found.push({ kind: 'capital', from, to: from + word.length });
  }
  return found;
}

const PAIRS: Readonly<Record<string, string>> = {
  '(': ')',
  '[': ']',
  '{': '}',
  '“': '”',
  '«': '»',
  '„': '“',
};
const CLOSING = new Set([')', ']', '}', '”', '»']);
/** "a)", "12)": a closing bracket that counts. */
const COUNTS = /(?:^|[\s(;,:])(?:\p{L}|\d{1,2}|[ivx]{1,4})$/iu;
/** So much of an open mark's words are shown. */
const SHOWN_WORDS = /^\S*(?:\s+\S+){0,3}/u;

/**
 * Marks that have no pair within their paragraph.
 * @param isContinued whether the next paragraph begins with a quotation mark, as a quotation over several does
 */
function unpaired(text: string, isContinued: boolean): Slip[] {
  const open: { mark: string; at: number }[] = [];
  const alone: number[] = [];
  const isLow = text.includes('„');
  for (let at = 0; at < text.length; at++) {
    const mark = text[at];
    const expected = open.at(-1);
    if (isLow && mark === '“' && open.some((one) => one.mark === '„')) close('“', at);
    else if (mark in PAIRS) open.push({ mark, at });
    else if (CLOSING.has(mark)) {
      if (expected !== undefined && PAIRS[expected.mark] === mark) open.pop();
      else close(mark, at);
    }
  }
  function close(mark: string, at: number): void {
    const opener = open.findLastIndex((one) => PAIRS[one.mark] === mark);
    if (opener >= 0) {
      // What was opened since has no pair.
      alone.push(
        ...open
          .splice(opener)
          .slice(1)
          .map((one) => one.at),
      );
      return;
    }
    const isCount = mark === ')' && COUNTS.test(text.slice(Math.max(0, at - 6), at));
    const isFace = mark === ')' && /[:;]-?$/.test(text.slice(0, at));
    if (!isCount && !isFace) alone.push(at);
  }
  const isOver = (mark: string) => isContinued && '“«„'.includes(mark);
  alone.push(...open.filter(({ mark }) => !isOver(mark)).map(({ at }) => at));
  const straight = [...text.matchAll(/"/g)].map(({ index }) => index);
  // Inches stand behind figures.
  const quotes = straight.filter((at) => !/\d/.test(text[at - 1] ?? ''));
  if (straight.length % 2 === 1 && quotes.length % 2 === 1 && !isContinued)
    alone.push(quotes[quotes.length - 1]);
  return alone
    .sort((x, y) => x - y)
    .map((at) => ({
      kind: 'unpaired mark',
      from: at,
      to: at + (SHOWN_WORDS.exec(text.slice(at))?.[0].length ?? 1),
    }));
}

/**
 * The slips of a paragraph, in order.
 * @param isContinued whether the next paragraph begins with a quotation mark
 */
export function slipsIn(text: string, isContinued: boolean): Slip[] {
  return [...repeated(text), ...smallAfterStop(text), ...unpaired(text, isContinued)].sort(
    (x, y) => x.from - y.from,
  );
}

import type { Span } from './span.ts';

const MARK = `[.!?…]+["'”’»)\\]]*`;
const SENTENCE_END = new RegExp(`${MARK}$`, 'u');
/** A mark that may end a sentence, and what follows it; or the end of a line. */
const POSSIBLE_END = new RegExp(`${MARK}(?=\\s+(\\S))|\\n`, 'gu');
/** What a sentence begins with. */
const BEGINNING = /[\p{Lu}\p{Lt}\p{Lo}\p{N}"“‘'«([]/u;
/** What has a full stop that ends no sentence: initials, and short forms of the trade. */
const SHORT_FORM =
  /(?:^|[\s(])(?:\p{Lu}|p|pp|cf|e\.g|i\.e|vs|al|approx|ch|sect|fig|figs|eq|vol|no|dr|prof|st|nov|dec|jan|feb|oct|s|m)\.$/iu;
/** The longest short form with what is before it. */
const SHORT_FORM_UNITS = 10;

/** Whether a piece of text ends as a sentence does. */
export function endsSentence(text: string): boolean {
  return SENTENCE_END.test(text);
}

/**
 * The sentences of a text, in order, without the white space around them. A line end ends one; a full stop, question or
 * exclamation mark does where what follows begins one and the stop is not that of a short form ("et al.", "p. 4").
 */
export function sentenceSpans(text: string): Span[] {
  const spans: Span[] = [];
  let from = 0;
  const put = (to: number) => {
    while (from < to && isSpace(text, from)) from++;
    let end = to;
    while (end > from && isSpace(text, end - 1)) end--;
    if (end > from) spans.push({ from, to: end });
    from = to;
  };
  for (const { 0: mark, 1: next, index } of text.matchAll(POSSIBLE_END)) {
    const to = index + mark.length;
    if (mark === '\n') put(to);
    else if (BEGINNING.test(next) && !SHORT_FORM.test(text.slice(Math.max(from, to - SHORT_FORM_UNITS), to)))
      put(to);
  }
  put(text.length);
  return spans;
}

/** The same as texts. */
export function sentencesOf(text: string): string[] {
  return sentenceSpans(text).map(({ from, to }) => text.slice(from, to));
}

function isSpace(text: string, at: number): boolean {
  return /\s/.test(text[at]);
}

import type { TextQuote } from '../model/remark.ts';

/** Characters of context that a quotation keeps on either side. */
const CONTEXT_CHARACTERS = 32;
const WHITE_SPACE = /\s/;

/** A place in a text, in UTF-16 units; from equals to for a gap between words. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** The quotation (W3C TextQuoteSelector) of a span, with its context. */
export function quoteOf(text: string, span: Span): TextQuote {
  return {
    exact: text.slice(span.from, span.to),
    prefix: text.slice(Math.max(0, span.from - CONTEXT_CHARACTERS), span.from),
    suffix: text.slice(span.to, span.to + CONTEXT_CHARACTERS),
  };
}

/** A text without its white space, and for each character left where it stood. */
export interface Squeezed {
  readonly text: string;
  readonly at: readonly number[];
}

export function squeeze(text: string): Squeezed {
  const at: number[] = [];
  const kept: string[] = [];
  for (let i = 0; i < text.length; i++)
    if (!WHITE_SPACE.test(text[i])) {
      kept.push(text[i]);
      at.push(i);
    }
  return { text: kept.join(''), at };
}

/**
 * Where a quotation stands in a text, white space set aside; null where it doesn't. Of several places the one whose
 * context agrees best is taken, and among equals the one nearest to the offset `near`.
 */
export function locateQuote(text: Squeezed, quote: TextQuote, near: number): Span | null {
  const exact = squeeze(quote.exact.normalize('NFKC')).text;
  if (exact === '') return null;
  const prefix = squeeze(quote.prefix).text;
  const suffix = squeeze(quote.suffix).text;
  let best: { span: Span; score: number; distance: number } | null = null;
  for (let i = text.text.indexOf(exact); i >= 0; i = text.text.indexOf(exact, i + 1)) {
    const last = i + exact.length;
    const span = { from: text.at[i], to: text.at[last - 1] + 1 };
    const score =
      commonEnd(text.text.slice(Math.max(0, i - prefix.length), i), prefix) +
      commonStart(text.text.slice(last, last + suffix.length), suffix);
    const distance = Math.abs(span.from - near);
    if (best === null || score > best.score || (score === best.score && distance < best.distance))
      best = { span, score, distance };
  }
  return best?.span ?? null;
}

function commonStart(x: string, y: string): number {
  let i = 0;
  while (i < x.length && i < y.length && x[i] === y[i]) i++;
  return i;
}

function commonEnd(x: string, y: string): number {
  let i = 0;
  while (i < x.length && i < y.length && x[x.length - 1 - i] === y[y.length - 1 - i]) i++;
  return i;
}

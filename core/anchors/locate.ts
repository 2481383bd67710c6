import type { TextQuote } from '../model/remark.ts';
import { normaliseText } from '../text/normalise.ts';

/** Characters of context that a quotation keeps on either side. */
export const CONTEXT_CHARACTERS = 32;

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

/**
 * Where a quotation stands in a text, white space and Unicode form set aside; null where it doesn't. Of several places
 * the one whose context agrees best is taken, and among equals the one nearest to `near`.
 */
export function locateQuote(text: string, quote: TextQuote, near: number): Span | null {
  const exact = normaliseText(quote.exact);
  if (exact === '') return null;
  const flat = text.replaceAll('\n', ' ');
  let best: { span: Span; score: number; distance: number } | null = null;
  for (let from = flat.indexOf(exact); from >= 0; from = flat.indexOf(exact, from + 1)) {
    const span = { from, to: from + exact.length };
    const score =
      commonEnd(flat.slice(0, from).trimEnd(), normaliseText(quote.prefix)) +
      commonStart(flat.slice(span.to).trimStart(), normaliseText(quote.suffix));
    const distance = Math.abs(from - near);
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

import type { TextQuote } from '../model/remark.ts';
import type { Span } from './span.ts';

/** UTF-16 units of context that a quotation keeps on either side (decisions.md, Target; computation.md 3). */
export const CONTEXT_UNITS = 32;

/** The quotation (W3C TextQuoteSelector) of a span, with its context. */
export function quoteOf(text: string, span: Span): TextQuote {
  return {
    exact: text.slice(span.from, span.to),
    prefix: text.slice(Math.max(0, span.from - CONTEXT_UNITS), span.from),
    suffix: text.slice(span.to, span.to + CONTEXT_UNITS),
  };
}

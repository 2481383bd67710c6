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

interface Candidate {
  readonly span: Span;
  /** Characters of context that agree. */
  readonly score: number;
}

/** Every place at which a quotation's words stand, white space set aside. */
function candidatesFor(text: Squeezed, quote: TextQuote): Candidate[] {
  const exact = squeeze(quote.exact.normalize('NFKC')).text;
  if (exact === '') return [];
  const prefix = squeeze(quote.prefix.normalize('NFKC')).text;
  const suffix = squeeze(quote.suffix.normalize('NFKC')).text;
  const found: Candidate[] = [];
  for (let i = text.text.indexOf(exact); i >= 0; i = text.text.indexOf(exact, i + 1)) {
    const last = i + exact.length;
    found.push({
      span: { from: text.at[i], to: text.at[last - 1] + 1 },
      score:
        commonEnd(text.text.slice(Math.max(0, i - prefix.length), i), prefix) +
        commonStart(text.text.slice(last, last + suffix.length), suffix),
    });
  }
  return found;
}

/**
 * Where a quotation stands in a text, white space set aside; null where it doesn't. Of several places the one whose
 * context agrees best is taken, and among equals the one nearest to the offset `near`.
 */
export function locateQuote(text: Squeezed, quote: TextQuote, near: number): Span | null {
  let best: Candidate | null = null;
  const distance = ({ span }: Candidate) => Math.abs(span.from - near);
  for (const candidate of candidatesFor(text, quote))
    if (
      best === null ||
      candidate.score > best.score ||
      (candidate.score === best.score && distance(candidate) < distance(best))
    )
      best = candidate;
  return best?.span ?? null;
}

/**
 * The same, but null too where two places are alike in words and context and nothing tells which is meant.
 * @param near an offset that tells; null where there is none
 */
export function locateQuoteSurely(text: Squeezed, quote: TextQuote, near: number | null): Span | null {
  const candidates = candidatesFor(text, quote);
  const most = Math.max(...candidates.map(({ score }) => score));
  const best = candidates.filter(({ score }) => score === most);
  if (best.length === 1) return best[0].span;
  // An offset that lies outside of the text was counted in another one.
  const last = text.at.at(-1) ?? 0;
  return near === null || near > last ? null : locateQuote(text, quote, near);
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

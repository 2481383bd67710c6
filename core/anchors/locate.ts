import { firstFrom } from '../text/ascending.ts';
import { commonEnd, commonStart } from '../text/common.ts';
import { searching, type Occurrences } from '../text/grams.ts';
import type { Span } from '../text/span.ts';
import { squeeze, type Squeezed } from '../text/squeeze.ts';
import type { TextQuote } from '../model/remark.ts';

interface Candidate {
  readonly span: Span;
  /** Characters of context that agree. */
  readonly score: number;
}

interface SqueezedQuote {
  readonly exact: string;
  readonly prefix: string;
  readonly suffix: string;
}

function squeezeQuote({ exact, prefix, suffix }: TextQuote): SqueezedQuote {
  const squeezed = (text: string) => squeeze(text.normalize('NFKC')).text;
  return { exact: squeezed(exact), prefix: squeezed(prefix), suffix: squeezed(suffix) };
}

/** The places at which a quotation's words stand, each with how well its context agrees. */
function candidatesAt(
  text: Squeezed,
  { exact, prefix, suffix }: SqueezedQuote,
  places: readonly number[],
): Candidate[] {
  return places.map((i) => {
    const last = i + exact.length;
    return {
      span: { from: text.at[i], to: text.at[last - 1] + 1 },
      score:
        commonEnd(text.text.slice(Math.max(0, i - prefix.length), i), prefix) +
        commonStart(text.text.slice(last, last + suffix.length), suffix),
    };
  });
}

/** Those that begin at `first` or later and before `end`. */
function candidatesWithin(text: Squeezed, quote: SqueezedQuote, first: number, end: number): Candidate[] {
  const within = searching(text.text.slice(first, end + quote.exact.length - 1));
  return candidatesAt(
    text,
    quote,
    within(quote.exact).map((at) => first + at),
  );
}

/** So far around the expected offset a quotation is looked for first, in UTF-16 units: a page or two. */
const NEARBY = 6000;

/**
 * Where a quotation stands in a text, white space set aside; null where it doesn't. Of several places the one whose
 * context agrees best is taken, and among equals the one nearest to the offset `near`.
 */
export function locateQuote(text: Squeezed, quote: TextQuote, near: number): Span | null {
  const squeezed = squeezeQuote(quote);
  const best = (candidates: readonly Candidate[]): Candidate | null => {
    const distance = ({ span }: Candidate) => Math.abs(span.from - near);
    return candidates.reduce<Candidate | null>(
      (x, y) =>
        x === null || y.score > x.score || (y.score === x.score && distance(y) < distance(x)) ? y : x,
      null,
    );
  };
  // Nothing farther away can be better than a place nearby whose whole context agrees.
  const nearby = best(
    candidatesWithin(
      text,
      squeezed,
      firstFrom(text.at, near - NEARBY),
      firstFrom(text.at, near + NEARBY + 1),
    ),
  );
  if (nearby?.score === squeezed.prefix.length + squeezed.suffix.length) return nearby.span;
  return best(candidatesAt(text, squeezed, searching(text.text)(squeezed.exact)))?.span ?? null;
}

/**
 * The same, but null too where two places are alike in words and context and nothing tells which is meant.
 * @param near an offset that tells; null where there is none
 * @param occurrences how the squeezed text is searched; for many quotations of one text, indexed
 */
export function locateQuoteSurely(
  text: Squeezed,
  quote: TextQuote,
  near: number | null,
  occurrences: Occurrences = searching(text.text),
): Span | null {
  const squeezed = squeezeQuote(quote);
  const candidates = candidatesAt(text, squeezed, occurrences(squeezed.exact));
  const most = Math.max(...candidates.map(({ score }) => score));
  const best = candidates.filter(({ score }) => score === most);
  if (best.length === 1) return best[0].span;
  // An offset that lies outside of the text was counted in another one.
  const last = text.at.at(-1) ?? 0;
  return near === null || near > last ? null : locateQuote(text, quote, near);
}

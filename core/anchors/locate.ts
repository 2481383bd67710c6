import { firstFrom } from '../text/ascending.ts';
import { commonEnd, commonStart } from '../text/common.ts';
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

/** Every place at which a quotation's words stand, white space set aside, that begins at `first` or later and before `end`. */
function candidatesFor(
  text: Squeezed,
  { exact, prefix, suffix }: SqueezedQuote,
  first = 0,
  end = text.text.length,
): Candidate[] {
  if (exact === '') return [];
  const within = text.text.slice(first, end + exact.length - 1);
  const found: Candidate[] = [];
  for (let at = within.indexOf(exact); at >= 0; at = within.indexOf(exact, at + 1)) {
    const i = first + at;
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
    candidatesFor(text, squeezed, firstFrom(text.at, near - NEARBY), firstFrom(text.at, near + NEARBY + 1)),
  );
  if (nearby?.score === squeezed.prefix.length + squeezed.suffix.length) return nearby.span;
  return best(candidatesFor(text, squeezed))?.span ?? null;
}

/**
 * The same, but null too where two places are alike in words and context and nothing tells which is meant.
 * @param near an offset that tells; null where there is none
 */
export function locateQuoteSurely(text: Squeezed, quote: TextQuote, near: number | null): Span | null {
  const candidates = candidatesFor(text, squeezeQuote(quote));
  const most = Math.max(...candidates.map(({ score }) => score));
  const best = candidates.filter(({ score }) => score === most);
  if (best.length === 1) return best[0].span;
  // An offset that lies outside of the text was counted in another one.
  const last = text.at.at(-1) ?? 0;
  return near === null || near > last ? null : locateQuote(text, quote, near);
}

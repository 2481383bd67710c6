import { locateQuote, type Span, type Squeezed } from '#core/anchors/locate.ts';
import { normaliseText } from '#core/text/normalise.ts';

/** So many characters at either end have to agree. */
const END_CHARACTERS = 6;
/** A letter that begins just on a mark's edge may be left out, once a line; no passage has more lines than this. */
const MOST_LEFT_OUT = 12;
const LETTER = /[\p{L}\p{N}]/u;

/**
 * The words under a text markup, as a place in the paper's text. `overlaid` is what pdf.js found under the quads: it may
 * lack a letter at the beginning or end of a line, when the letter begins just on the mark's edge.
 * @param near the offset of the line that the mark begins on
 */
export function locateMarkedWords(
  text: string,
  squeezed: Squeezed,
  overlaid: string,
  near: number,
): Span | null {
  const exact = locateQuote(squeezed, { exact: overlaid, prefix: '', suffix: '' }, near);
  const found = exact ?? locateByEnds(squeezed, overlaid, near);
  return found === null ? null : withEdgeLetters(text, found);
}

function locateByEnds(squeezed: Squeezed, overlaid: string, near: number): Span | null {
  const wanted = normaliseText(overlaid).replace(/\s/g, '');
  if (wanted.length < 2 * END_CHARACTERS) return null;
  const head = wanted.slice(0, END_CHARACTERS);
  const tail = wanted.slice(-END_CHARACTERS);
  let best: Span | null = null;
  for (let i = squeezed.text.indexOf(head); i >= 0; i = squeezed.text.indexOf(head, i + 1)) {
    const j = squeezed.text.indexOf(tail, i + wanted.length - END_CHARACTERS);
    const last = j + END_CHARACTERS - 1;
    if (j < 0 || last + 1 - i > wanted.length + MOST_LEFT_OUT) continue;
    const span = { from: squeezed.at[i], to: squeezed.at[last] + 1 };
    if (best === null || Math.abs(span.from - near) < Math.abs(best.from - near)) best = span;
  }
  return best;
}

/** Takes in one letter at either end where the word would else lack just that one. */
function withEdgeLetters(text: string, { from, to }: Span): Span {
  const isLetter = (at: number) => at >= 0 && at < text.length && LETTER.test(text[at]);
  return {
    from: isLetter(from) && isLetter(from - 1) && !isLetter(from - 2) ? from - 1 : from,
    to: isLetter(to - 1) && isLetter(to) && !isLetter(to + 1) ? to + 1 : to,
  };
}

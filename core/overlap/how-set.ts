import { citationsIn, standsWith } from '../citations/cited.ts';
import { quotedSpans, setOffBlocks } from '../citations/quoted.ts';
import { referenceListOf } from '../citations/references.ts';
import type { Paper } from '../paper/paper.ts';
import { sentenceSpans } from '../text/sentences.ts';
import type { Span } from '../text/span.ts';

/** How words of a draft are set: as somebody else's, and with a source that is named. */
export interface HowSet {
  readonly quoted: boolean;
  readonly cited: boolean;
}

/** Half of the words in marks: the rest may have come in since. */
const LEAST_QUOTED = 0.5;

/** How the words at each of some places of a draft are set, whatever their source is. */
export function howSet(paper: Paper, places: readonly Span[]): HowSet[] {
  const { text } = paper;
  const quoted = [...quotedSpans(text), ...setOffBlocks(paper)];
  const known = (referenceListOf(paper)?.entries ?? []).flatMap(({ names }) => names);
  const citations = citationsIn(text, [...new Set(known)]);
  const sentences = sentenceSpans(text);
  return places.map((place) => {
    const inMarks = quoted.reduce(
      (sum, one) => sum + Math.max(0, Math.min(one.to, place.to) - Math.max(one.from, place.from)),
      0,
    );
    const touched = sentences.filter(({ from, to }) => from < place.to && to > place.from);
    const from = Math.min(place.from, ...touched.map((one) => one.from));
    const to = Math.max(place.to, ...touched.map((one) => one.to));
    return {
      quoted: place.to > place.from && inMarks >= LEAST_QUOTED * (place.to - place.from),
      cited: citations.some((one) => standsWith(one, { from, to }, text)),
    };
  });
}

import type { Paper } from '../paper/paper.ts';
import { sentenceSpans } from '../text/sentences.ts';
import type { Span } from '../text/span.ts';
import { countWords } from '../text/words.ts';
import { citationsIn, standsWith, type Citation } from './cited.ts';
import { quotedSpans, setOffBlocks } from './quoted.ts';
import { referenceListOf, type Reference } from './references.ts';

/** How a paper names its sources. */
type CitingStyle = 'author-date' | 'author-page' | 'numeric';

/** What may be wrong with what a paper cites and lists (computation.md 6). */
export type CitationFault =
  | 'cited, not listed'
  | 'listed, not cited'
  | 'quotation without citation'
  | 'citation without year'
  | 'quotation without page';

export interface CitationFinding {
  readonly fault: CitationFault;
  readonly place: Span;
}

/** Fewer quoted words are a term or a title, and want no citation. */
const LEAST_QUOTED = 5;

/** The style that most citations of a paper are in; author-date where there are none. */
function styleOf(citations: readonly Citation[]): CitingStyle {
  const numeric = citations.filter(({ numbers }) => numbers.length > 0).length;
  const dated = citations.filter(({ year }) => year !== null).length;
  const paged = citations.length - numeric - dated;
  if (numeric > dated && numeric > paged) return 'numeric';
  return paged > dated ? 'author-page' : 'author-date';
}

const isSameYear = (x: string | null, y: string | null) =>
  x === null || y === null || x.slice(0, 4) === y.slice(0, 4);

function leadsToEntry({ names, numbers, year }: Citation, entry: Reference): boolean {
  if (numbers.length > 0) return entry.number !== null && numbers.includes(entry.number);
  return entry.names.some((name) => names.includes(name)) && isSameYear(year, entry.year);
}

/** What may be wrong with the citations of a paper, in the order of its text. */
export function citationFindings(paper: Paper): CitationFinding[] {
  const { text } = paper;
  const list = referenceListOf(paper);
  const entries = list?.entries ?? [];
  const known = [...new Set(entries.flatMap(({ names }) => names))];
  const citations = citationsIn(text, known).filter(
    ({ from }) => list === null || from < list.from || from >= list.to,
  );
  const style = styleOf(citations);
  const found: CitationFinding[] = [];
  const put = (fault: CitationFault, { from, to }: Span) => found.push({ fault, place: { from, to } });
  for (const citation of citations) {
    if (list !== null && !entries.some((entry) => leadsToEntry(citation, entry)))
      put('cited, not listed', citation);
    if (style === 'author-date' && citation.numbers.length === 0 && citation.year === null)
      put('citation without year', citation);
  }
  for (const entry of entries)
    if (!citations.some((citation) => leadsToEntry(citation, entry))) put('listed, not cited', entry);
  const sentences = sentenceSpans(text);
  const quotations = [...quotedSpans(text), ...setOffBlocks(paper)];
  for (const quotation of quotations) {
    const isInList = list !== null && quotation.from >= list.from && quotation.to <= list.to;
    if (isInList || countWords(text.slice(quotation.from, quotation.to)) < LEAST_QUOTED) continue;
    const around = sentences.filter(({ from, to }) => from <= quotation.to && to >= quotation.from);
    const from = Math.min(quotation.from, ...around.map((one) => one.from));
    const to = Math.max(quotation.to, ...around.map((one) => one.to));
    const beside = citations.filter((citation) => standsWith(citation, { from, to }, text));
    if (beside.length === 0) put('quotation without citation', quotation);
    else if (style === 'author-page' && beside.every(({ page }) => page === null))
      put('quotation without page', quotation);
  }
  return found.sort((x, y) => x.place.from - y.place.from || x.place.to - y.place.to);
}

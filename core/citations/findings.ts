import type { Paper } from '../paper/paper.ts';
import { foldedText, placesOfWords } from '../text/find.ts';
import { sentenceSpans } from '../text/sentences.ts';
import type { Span } from '../text/span.ts';
import { countWords } from '../text/words.ts';
import { citationsIn, standsWith, type Citation } from './cited.ts';
import { foldedWords } from './names.ts';
import { quotedSpans, setOffBlocks } from './quoted.ts';
import { referenceListOf, type Reference, type ReferenceList } from './references.ts';

/** How a paper names its sources. */
export type CitingStyle = 'author-date' | 'author-page' | 'numeric';

/** What may be wrong with what a paper cites and lists (computation.md 6). */
export type CitationFault =
  | 'cited, not listed'
  | 'listed, not cited'
  | 'quotation without citation'
  | 'citation without year'
  | 'quotation without page';

/** One of them, and where. */
interface CitationFinding {
  readonly fault: CitationFault;
  readonly place: Span;
}

/** A word that may be a family name: one without its possessive. */
const NAME = /\p{Lu}[\p{L}-]+/gu;
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

/** The citations in the running text of a paper. */
export function citedIn({ text }: Paper, list: ReferenceList | null): Citation[] {
  const known = [...new Set((list?.entries ?? []).flatMap(({ names }) => names))];
  return citationsIn(text, known).filter(({ from }) => list === null || from < list.from || from >= list.to);
}

/** The style that a paper names its sources in. */
export function citingStyleOf(paper: Paper): CitingStyle {
  return styleOf(citedIn(paper, referenceListOf(paper)));
}

const isSameYear = (x: string | null, y: string | null) =>
  x === null || y === null || x.slice(0, 4) === y.slice(0, 4);

/** Whether a citation leads to an entry: by its number, or by a name and no other year. */
export function leadsToEntry({ names, numbers, year }: Citation, entry: Reference): boolean {
  if (numbers.length > 0) return entry.number !== null && numbers.includes(entry.number);
  return entry.names.some((name) => names.includes(name)) && isSameYear(year, entry.year);
}

/** For each entry where one of its names first stands in the running text; null where none does. */
function mentionsOf(text: string, entries: readonly Reference[]): (Span | null)[] {
  const firstAt = new Map<string, Span>();
  for (const { 0: word, index } of text.matchAll(NAME)) {
    const name = foldedWords(word).trim();
    if (!firstAt.has(name)) firstAt.set(name, { from: index, to: index + word.length });
  }
  // Names of more words, of those that are no people.
  const isLong = (name: string) => name.includes(' ');
  const folded = entries.some(({ names }) => names.some(isLong)) ? foldedText(text) : null;
  const mention = (name: string) =>
    folded !== null && isLong(name) ? placesOfWords(folded, name).at(0) : firstAt.get(name);
  return entries.map(({ names }) => names.map(mention).find((at) => at !== undefined) ?? null);
}

/** The citations of a paper, looked over. */
export interface CitationsLookedOver {
  /** How many places name a source, and how many works are listed; null: there is no list. */
  readonly cited: number;
  readonly listed: number | null;
  /** In the order of the text. */
  readonly findings: readonly CitationFinding[];
}

/** What may be wrong with the citations of a paper, and how many there are. */
export function lookOverCitations(paper: Paper): CitationsLookedOver {
  const { text } = paper;
  const list = referenceListOf(paper);
  const entries = list?.entries ?? [];
  const citations = citedIn(paper, list);
  const style = styleOf(citations);
  const found: CitationFinding[] = [];
  const put = (fault: CitationFault, { from, to }: Span) => found.push({ fault, place: { from, to } });
  for (const citation of citations) {
    if (list !== null && !entries.some((entry) => leadsToEntry(citation, entry)))
      put('cited, not listed', citation);
    if (style === 'author-date' && citation.numbers.length === 0 && citation.year === null)
      put('citation without year', citation);
  }
  const mentions = mentionsOf(list === null ? text : text.slice(0, list.from), entries);
  entries.forEach((entry, i) => {
    if (citations.some((citation) => leadsToEntry(citation, entry))) return;
    const mention = mentions[i];
    if (mention === null) put('listed, not cited', entry);
    else if (style === 'author-date') put('citation without year', mention);
  });
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
  found.sort((x, y) => x.place.from - y.place.from || x.place.to - y.place.to);
  return { cited: citations.length, listed: list === null ? null : entries.length, findings: found };
}

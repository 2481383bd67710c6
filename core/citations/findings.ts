import type { CitingStyle } from '../model/look.ts';
import type { Paper } from '../paper/paper.ts';
import { firstOf } from '../text/ascending.ts';
import { foldedText, placesOfWords } from '../text/find.ts';
import { sentenceSpans } from '../text/sentences.ts';
import type { Span } from '../text/span.ts';
import { countWords } from '../text/words.ts';
import { citationsIn, numbersInRound, standsWith, type Citation } from './cited.ts';
import { foldedWords } from './names.ts';
import { quotedSpans, setOffBlocks } from './quoted.ts';
import { referenceListOf, type Reference, type ReferenceList } from './references.ts';

/** What may be wrong with what a paper cites and lists (computation.md 6). */
export type CitationFault =
  | 'cited, not listed'
  | 'listed, not cited'
  | 'quotation without citation'
  | 'citation without year'
  | 'quotation without page'
  | 'year differs';

/** One of them, and where. */
interface CitationFinding {
  readonly fault: CitationFault;
  readonly place: Span;
  /** What the list has instead, where it has; else ''. */
  readonly beside: string;
}

/** A word that may be a family name: one without its possessive. */
const NAME = /\p{Lu}[\p{L}-]+/gu;
/** Works without authors are cited by the first word of their title, if it is long enough to be told. */
const SHORTEST_TITLE = 5;
/** Who was named with a year just before is named without it then. */
const JUST_BEFORE = 300;
/** A number that is so much higher than the last of the list is no slip of who cites, but something else in brackets. */
const MOST_BEYOND = 9;
/** What is said in brackets right behind a quotation tells where it is from, if only "(interview 2)". */
const TOLD_BEHIND = /^["”’»]*\s*\([^()]*\p{L}{3}/u;
/** No citation is longer, and no more of them stand beside a quotation. */
const LONGEST_CITATION = 200;
const MOST_BESIDE = 60;
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
  const inText = ({ from }: Span) => list === null || from < list.from || from >= list.to;
  const all = citationsIn(text, known).filter(inText);
  const last = Math.max(0, ...(list?.entries ?? []).map(({ number }) => number ?? 0));
  if (last > 0 && all.every(({ numbers }) => numbers.length === 0)) {
    const numbered = numbersInRound(text, last + MOST_BEYOND).filter(inText);
    if (numbered.length > 0) return numbered;
  }
  const sure = all.filter(({ isGuess }) => isGuess !== true);
  return styleOf(sure) === 'author-page' ? all : sure;
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
  const isCitedAs = (name: string) =>
    names.some((one) => one === name || (one.length >= SHORTEST_TITLE && name.startsWith(`${one} `)));
  return entry.names.some(isCitedAs) && isSameYear(year, entry.year);
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

/**
 * What may be wrong with the citations of a paper, and how many there are.
 * @param given how the paper cites, where that is known; null: as it shows itself
 */
export function lookOverCitations(paper: Paper, given: CitingStyle | null = null): CitationsLookedOver {
  const { text } = paper;
  const list = referenceListOf(paper);
  const entries = list?.entries ?? [];
  const citations = citedIn(paper, list);
  const style = given ?? styleOf(citations);
  const found: CitationFinding[] = [];
  const put = (fault: CitationFault, { from, to }: Span, beside = '') =>
    found.push({ fault, place: { from, to }, beside });
  // A work that is cited with another year is cited.
  const misdated = new Set<Reference>();
  for (const citation of citations) {
    if (list !== null && !entries.some((entry) => leadsToEntry(citation, entry))) {
      const named = entries.filter((entry) => leadsToEntry({ ...citation, year: null }, entry));
      for (const entry of named) misdated.add(entry);
      if (named.length === 0) put('cited, not listed', citation);
      else put('year differs', citation, named.map(({ year }) => year ?? '').join(', '));
    }
    const isDatedBefore = citations.some(
      ({ year, names, to }) =>
        year !== null &&
        to <= citation.from &&
        citation.from - to < JUST_BEFORE &&
        names.some((name) => citation.names.includes(name)),
    );
    if (style === 'author-date' && citation.numbers.length === 0 && citation.year === null && !isDatedBefore)
      put('citation without year', citation);
  }
  const uncited = entries.filter(
    (entry) => !misdated.has(entry) && !citations.some((citation) => leadsToEntry(citation, entry)),
  );
  const mentions =
    uncited.length === 0 ? [] : mentionsOf(list === null ? text : text.slice(0, list.from), uncited);
  uncited.forEach((entry, i) => {
    const mention = mentions[i];
    if (mention === null) put('listed, not cited', entry);
    else if (style === 'author-date') put('citation without year', mention);
  });
  const sentences = sentenceSpans(text);
  const quotations = [...quotedSpans(text), ...setOffBlocks(paper)];
  for (const quotation of quotations) {
    const isInList = list !== null && quotation.from >= list.from && quotation.to <= list.to;
    if (isInList || countWords(text.slice(quotation.from, quotation.to)) < LEAST_QUOTED) continue;
    const first = Math.max(
      0,
      firstOf(sentences, (one) => one.to, quotation.from),
    );
    let last = first;
    while (last + 1 < sentences.length && sentences[last + 1].from <= quotation.to) last++;
    const around = sentences.slice(first, last + 1);
    const from = Math.min(quotation.from, ...around.map((one) => one.from));
    const to = Math.max(quotation.to, ...around.map((one) => one.to));
    const beside = citations
      .slice(firstOf(citations, (one) => one.from, from - LONGEST_CITATION))
      .slice(0, MOST_BESIDE)
      .filter((citation) => standsWith(citation, { from, to }, text));
    if (beside.length === 0) {
      if (!TOLD_BEHIND.test(text.slice(quotation.to))) put('quotation without citation', quotation);
    } else if (style === 'author-page' && beside.every(({ page }) => page === null))
      put('quotation without page', quotation);
  }
  found.sort((x, y) => x.place.from - y.place.from || x.place.to - y.place.to);
  return { cited: citations.length, listed: list === null ? null : entries.length, findings: found };
}

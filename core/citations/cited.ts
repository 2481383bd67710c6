import type { Span } from '../text/span.ts';
import { sentenceSpans } from '../text/sentences.ts';
import { foldedWords, isNamedIn, namesOf } from './names.ts';
import { YEAR, type Reference } from './references.ts';

/** A place in a text that names a source. */
export interface Citation extends Span {
  /** By which names (namesOf); none where it is by number. */
  readonly names: readonly string[];
  readonly year: string | null;
  readonly page: string | null;
  /** The entries of a numbered list that it names. */
  readonly numbers: readonly number[];
  /** Names that nobody lists, with what may be a page: a citation in a paper that cites by page. */
  readonly isGuess?: boolean;
}

/** What is known of a work that a citation may lead to. */
export interface Work {
  /** As in a list of references; empty where nobody is known. */
  readonly authors: string;
  readonly year: string | null;
  readonly title: string;
}

const IN_ROUND = /\(([^()]{1,160})\)/g;
const IN_SQUARE = /\[([^[\]]{1,60})\]/g;
const NUMBERS =
  /^(?:nos?\.\s*)?(\d{1,3}(?:\s*[-–,;]\s*\d{1,3})*)(?:\s*[,:]\s*(?:pp?\.?|S\.)\s*(\d+(?:[-–]\d+)?))?$/i;
const PAGE_BEHIND_YEAR = /^\s*[,:]?\s*(?:pp?\.?|S\.)?\s*(\d+(?:[-–]\d+)?)/i;
const PAGE_AT_END = /(?:^|[\s,])(?:pp?\.\s*|S\.\s*)?(\d{1,4}(?:[-–]\d{1,4})?)$/i;
const TITLE = /,?\s*["“„«].*$/s;
const SEE = /^(?:see(?: also)?|cf\.|e\.g\.,?|vgl\.|as in|after|from|nach)\s+/i;
/** Names just before a year in brackets. */
const NAMES_BEFORE =
  /((?:\p{Lu}[\p{L}'’-]+(?:,| and| &| of| the| und| et)?\s+)*\p{Lu}[\p{L}'’-]+(?:\s+et al\.)?)(?:['’]s?)?\s*$/u;
/** What stands before a name and is none. */
const BEGINS_SENTENCE =
  /^(?:As|And|But|Both|For|Here|In|Like|Since|Unlike|What|When|While|With|According to)\s+/;
/** "Winslade 112", "Oaks and Bell 14-15". */
const NAMES_AND_PAGE =
  /^(?:\p{Lu}[\p{L}'’-]+(?:\s+et al\.)?(?:,?\s+(?:and|&)\s+|\s+)?){1,4},?\s*(?:pp?\.\s*)?\d{1,4}(?:[-–]\d{1,4})?$/u;
/** What has a number behind it and is nobody. */
const COUNTED =
  /^(?:Act|Appendix|Box|Chapter|Chart|Day|Eqs?|Equation|Experiment|Figs?|Figures?|Group|Item|Lines?|Map|Note|Page|Part|Plate|Question|Room|Rows?|Sample|Scene|Sect(?:ion)?|Site|Stage|Steps?|Still|Stud(?:y|ies)|Tables?|Unit|Vol(?:ume)?|Weeks?|Year|January|February|March|April|May|June|July|August|September|October|November|December)\b/u;
/** As plain text marks italics. */
const EMPHASIS = /[*_]/g;
const LONGEST_NAMES = 90;
const MOST_IN_RANGE = 40;

/** The numbers of "1, 3-5". */
function numbersIn(list: string): number[] {
  return list.split(/[,;]/).flatMap((piece) => {
    const [first, last = first] = piece.split(/[-–]/).map((one) => Number(one.trim()));
    return Array.from(
      { length: Math.min(MOST_IN_RANGE, Math.max(1, last - first + 1)) },
      (_, i) => first + i,
    );
  });
}

/**
 * The places in a text that name a source: by names and year ("(Hask et al., 2018, p. 4)", "Hask (2018)"), by names and page
 * ("(Thorne 42)", "Thorne writes … (42)"), by names alone where they are listed, or by number ("[3, 5-7]").
 * @param known names of what is listed, or of sources that are known (namesOf)
 */
export function citationsIn(text: string, known: readonly string[]): Citation[] {
  const found: Citation[] = [];
  for (const { 0: whole, 1: inside, index } of text.matchAll(IN_SQUARE)) {
    const numbers = NUMBERS.exec(inside.trim());
    if (numbers === null) continue;
    const [, list, page] = numbers as unknown as [string, string, string | undefined];
    found.push({
      from: index,
      to: index + whole.length,
      names: [],
      year: null,
      page: page ?? null,
      numbers: numbersIn(list),
    });
  }
  const sentences = sentenceSpans(text);
  let sentence = 0;
  for (const { 0: whole, 1: inside, index } of text.matchAll(IN_ROUND)) {
    while (sentence < sentences.length - 1 && sentences[sentence].to <= index) sentence++;
    const before = text.slice(sentences[sentence]?.from ?? 0, index);
    for (const piece of inside.split(';')) {
      const citation = inRound(piece.replace(EMPHASIS, '').trim(), before, known);
      if (citation !== null) found.push({ from: index, to: index + whole.length, ...citation });
    }
  }
  return found.sort((x, y) => x.from - y.from);
}

const ROUND_NUMBERS = /\((\d{1,3}(?:\s*[-–,]\s*\d{1,3})*)\)/g;

/**
 * Citations by number in round brackets, as some lists are cited: "(1, 3-5)".
 * @param most the highest number that may be meant
 */
export function numbersInRound(text: string, most: number): Citation[] {
  return [...text.matchAll(ROUND_NUMBERS)].flatMap(({ 0: whole, 1: list, index }) => {
    const numbers = numbersIn(list);
    const mayBe = numbers.every((number) => number >= 1 && number <= most);
    return mayBe
      ? [{ from: index, to: index + whole.length, names: [], year: null, page: null, numbers }]
      : [];
  });
}

/** One of the works that a bracket names; null for what is none. */
function inRound(
  piece: string,
  before: string,
  known: readonly string[],
): Omit<Citation, 'from' | 'to'> | null {
  const named = (names: readonly string[], year: string | null, page: string | null) => ({
    names,
    year,
    page,
    numbers: [],
  });
  const year = YEAR.exec(piece);
  if (year !== null) {
    const page = PAGE_BEHIND_YEAR.exec(piece.slice(year.index + year[0].length))?.[1] ?? null;
    const names = namesInPiece(piece.slice(0, year.index));
    if (names.length > 0) return named(names, year[0], page);
    const written = (NAMES_BEFORE.exec(before.slice(-LONGEST_NAMES))?.[1] ?? '').replace(BEGINS_SENTENCE, '');
    const inSentence = namesWithin(before, known);
    const all = [...new Set([...namesOf(written), ...inSentence])];
    return all.length === 0 ? null : named(all, year[0], page);
  }
  const page = PAGE_AT_END.exec(piece);
  const names = namesInPiece(page === null ? piece : piece.slice(0, page.index));
  const isKnown = names.some((name) => known.includes(name));
  if (isKnown) return named(names, null, page?.[1] ?? null);
  if (page !== null && names.length > 0 && NAMES_AND_PAGE.test(piece) && !COUNTED.test(piece))
    return { ...named(names, null, page[1]), isGuess: true };
  // A page alone goes with who is named in the sentence.
  if (page === null || page.index > 0) return null;
  const inSentence = namesWithin(before, known);
  return inSentence.length === 0 ? null : named(inSentence, null, page[1]);
}

function namesInPiece(piece: string): string[] {
  const bare = piece
    .replace(SEE, '')
    .replace(TITLE, '')
    .replace(/[,\s]+$/, '');
  return /\p{Lu}/u.test(bare) ? namesOf(bare) : [];
}

function namesWithin(text: string, known: readonly string[]): string[] {
  const folded = foldedWords(text);
  return known.filter((name) => isNamedIn(folded, [name]));
}

/** Whether a citation leads to a work: by a name and no other year, or by the number of an entry that names it. */
export function leadsTo(citation: Citation, work: Work, entries: readonly Reference[]): boolean {
  const names = namesOf(work.authors);
  const title = foldedWords(work.title).trim();
  const sameYear = (year: string | null) =>
    year === null || work.year === null || year.slice(0, 4) === work.year.slice(0, 4);
  if (citation.numbers.length > 0)
    return entries.some(
      (entry) =>
        entry.number !== null &&
        citation.numbers.includes(entry.number) &&
        entry.names.some((name) => names.includes(name)),
    );
  const isNamed =
    citation.names.some((name) => names.includes(name)) || (title !== '' && citation.names.includes(title));
  return isNamed && sameYear(citation.year);
}

/** What may stand between the end of a sentence or a quotation and a citation that goes with it. */
const BEHIND = /^[\s"”’»)\].,;]*$/;

/** Whether a citation stands in a place of a text, or by itself just behind it. */
export function standsWith({ from, to }: Span, place: Span, text: string): boolean {
  return (
    (from < place.to && to > place.from) || (from >= place.to && BEHIND.test(text.slice(place.to, from)))
  );
}

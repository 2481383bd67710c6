import type { Paper } from '../paper/paper.ts';
import type { Span } from '../text/span.ts';
import { namesOf } from './names.ts';

/** An entry of a list of references. */
export interface Reference extends Span {
  /** Its number in a numbered list. */
  readonly number: number | null;
  /** The names it is cited by (namesOf). */
  readonly names: readonly string[];
  /** Four digits, perhaps a letter; "no date" where it says so; null where there is none. */
  readonly year: string | null;
}

/** The list of references of a paper: where it stands, its heading included, and its entries. */
export interface ReferenceList extends Span {
  readonly entries: readonly Reference[];
}

const HEADING =
  /^(?:\d+\.?\s+)?(?:references?(?: list)?|list of (?:references|sources)|works cited|cited works|bibliography|literature(?: cited)?|sources(?: cited)?|literatur(?:verzeichnis)?|quellen(?:verzeichnis)?|bibliographie|références|bibliografía|referencias)\W*$/i;
const NUMBER = /^\[?(\d{1,3})(?:\]|\.|\))\s+/;
/** A year as works are dated, with a letter for one of several, or that there is none. */
export const YEAR = /\b(?:1[5-9]|20)\d\d[a-z]?\b|\b(?:no date|n\. ?d\.)/i;
const YEAR_IN_BRACKETS = /\((?:(?:1[5-9]|20)\d\d[a-z]?|no date|n\. ?d\.)[^()]*\)/i;
/** A full stop behind a word, not behind an initial. */
const END_OF_AUTHORS = /(?<=[\p{Ll}\d]{2})\.\s/u;
const TITLE_IN_MARKS = /[,.]?\s*["“„«]/;
/** The last entries of a paper whose list has no heading: so many one after the other, each with a name and a year. */
const LEAST_WITHOUT_HEADING = 3;
const LOOKS_LIKE_ENTRY =
  /^(?:\[?\d{1,3}[\].)]\s+)?(?:\p{Lu}[\p{L}'’-]+, (?:\p{Lu}\.|\p{Lu}\p{Ll}+)|(?:\p{Lu}\.\s?)+\p{Lu}[\p{L}'’-]+).*\b(?:1[5-9]|20)\d\d[a-z]?\b/u;

/** Longer lines are no headings. */
const LONGEST_HEADING = 60;

/** Whether a line is the heading of a list of references. */
export const isReferenceHeading = (line: string) => line.length < LONGEST_HEADING && HEADING.test(line);

/**
 * The list of references of a paper: behind a heading that says so, or the last entries in a row where there is none.
 * @returns null for a paper without one
 */
export function referenceListOf({ blocks, starts, text }: Paper): ReferenceList | null {
  const isHeading = blocks.map((block) => isReferenceHeading(block.text));
  const heading = isHeading.lastIndexOf(true);
  let first = heading + 1;
  let end = blocks.findIndex((block, i) => i > heading && block.kind === 'heading');
  if (end < 0) end = blocks.length;
  if (heading < 0) {
    first = blocks.length;
    while (first > 0 && LOOKS_LIKE_ENTRY.test(blocks[first - 1].text)) first--;
    end = blocks.length;
    if (end - first < LEAST_WITHOUT_HEADING) return null;
  }
  const entries = blocks
    .slice(first, end)
    .map((block, i) =>
      entryOf(block.text, { from: starts[first + i], to: starts[first + i] + block.text.length }),
    );
  const from = starts[heading < 0 ? first : heading] ?? text.length;
  return { from, to: entries.at(-1)?.to ?? from, entries };
}

/** An entry of a list by its words. @param span where it stands */
export function entryOf(text: string, span: Span): Reference {
  const number = NUMBER.exec(text);
  const entry = text.slice(number?.[0].length ?? 0);
  const ends = [YEAR_IN_BRACKETS, TITLE_IN_MARKS, END_OF_AUTHORS]
    .map((pattern) => pattern.exec(entry)?.index ?? -1)
    .filter((index) => index > 0);
  const commas = entry.indexOf(',');
  const authors =
    number !== null && !TITLE_IN_MARKS.test(entry) && commas > 0
      ? entry.slice(0, Math.min(commas, ...ends))
      : entry.slice(0, ends.length === 0 ? Math.max(0, commas) : Math.min(...ends));
  return {
    ...span,
    number: number === null ? null : Number(number[1]),
    names: namesOf(authors),
    year: YEAR.exec(entry)?.[0] ?? null,
  };
}

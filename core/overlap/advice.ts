import { citationsIn, leadsTo, standsWith, type Citation } from '../citations/cited.ts';
import { namesOf } from '../citations/names.ts';
import { quotedSpans, setOffBlocks } from '../citations/quoted.ts';
import { referenceListOf, type ReferenceList } from '../citations/references.ts';
import { blockAt, type Paper } from '../paper/paper.ts';
import { sentenceSpans } from '../text/sentences.ts';
import type { Span } from '../text/span.ts';
import { wordRange, type Words } from '../text/words.ts';
import type { SourceWork } from './source-work.ts';

/** What a match calls for (computation.md 5, Advice). */
export type Advice = 'stands' | 'name-source' | 'mark-words' | 'rewrite' | 'ask';

/** Why a match has its advice. */
export type AdviceReason =
  | 'marked and named'
  | 'list of references'
  | 'words of the brief'
  | 'fixed phrase'
  | 'named below a table or figure'
  | 'marked, not named'
  | 'not named below a table or figure'
  | 'named, not marked'
  | 'neither marked nor named'
  | 'own earlier text'
  | 'text of a fellow student'
  | 'long';

/** What a match calls for, why, and the two facts that it goes by. */
export interface Advised {
  readonly advice: Advice;
  readonly reason: AdviceReason;
  /** Its words are set as somebody else's. */
  readonly quoted: boolean;
  /** A citation with it leads to its source. */
  readonly cited: boolean;
}

/** A match is set as quoted where hardly a word of it is outside of the marks: at most a fifth, */
const MOST_OUTSIDE = 0.2;
/** and so few in any case: 12 unmarked words of another's are never said to stand. */
export const UNMARKED = 12;
/** Longer than a few sentences: whether that much may be taken over, however it is marked, is the instructor's to say. */
const LONG = 60;
/** A phrase that so many texts have belongs to nobody. */
const SHARED_BY = 3;
const CAPTION = /^(?:table|figure|fig\.|map|plate|chart|diagram|photo(?:graph)?|abbildung|tabelle)\s*\d/i;

/** What of a paper bears on the advice for its matches, worked out once. */
export interface Surroundings {
  readonly paper: Paper;
  readonly words: Words;
  readonly quoted: readonly Span[];
  readonly setOff: readonly Span[];
  readonly sentences: readonly Span[];
  readonly references: ReferenceList | null;
  readonly citations: readonly Citation[];
}

/** @param sources of which any may be cited without being listed */
export function surroundingsOf(paper: Paper, words: Words, sources: readonly SourceWork[]): Surroundings {
  const references = referenceListOf(paper);
  const known = new Set([
    ...(references?.entries ?? []).flatMap((entry) => entry.names),
    ...sources.flatMap(({ authors, title }) => [...namesOf(authors), ...namesOf(title)]),
  ]);
  return {
    paper,
    words,
    quoted: quotedSpans(paper.text),
    setOff: setOffBlocks(paper),
    sentences: sentenceSpans(paper.text),
    references,
    citations: citationsIn(paper.text, [...known]),
  };
}

const within = (span: Span, outer: Span) => span.from >= outer.from && span.to <= outer.to;

/** The share of a place's words that are in others. */
function wordsInside(words: Words, place: Span, others: readonly Span[]): { all: number; inside: number } {
  const { from, to } = wordRange(words, place.from, place.to);
  let inside = 0;
  for (let i = from; i < to; i++)
    if (others.some((other) => words.from[i] >= other.from && words.to[i] <= other.to)) inside++;
  return { all: to - from, inside };
}

/**
 * What a match calls for, by two facts (are its words set as somebody else's? does a citation with them lead to their
 * source?) and by what they are.
 * @param sharedBy how many sources have a match at the same words
 */
export function adviceFor(
  place: Span,
  source: SourceWork,
  sharedBy: number,
  surroundings: Surroundings,
): Advised {
  const { words, references, paper } = surroundings;
  const { all, inside } = wordsInside(words, place, [...surroundings.quoted, ...surroundings.setOff]);
  const outside = all - inside;
  const quoted = outside <= MOST_OUTSIDE * all && outside < UNMARKED;
  const cited = citationsBeside(place, surroundings).some((citation) =>
    leadsTo(citation, source, references?.entries ?? []),
  );
  const advised = (advice: Advice, reason: AdviceReason): Advised => ({ advice, reason, quoted, cited });
  if (references !== null && within(place, references)) return advised('stands', 'list of references');
  if (source.relation === 'brief') return advised('stands', 'words of the brief');
  if (quoted && cited) return advised('stands', 'marked and named');
  if (source.relation === 'own') return advised('ask', 'own earlier text');
  if (source.relation === 'fellow') return advised('ask', 'text of a fellow student');
  if (quoted) return advised('name-source', 'marked, not named');
  if (all < UNMARKED && sharedBy >= SHARED_BY) return advised('stands', 'fixed phrase');
  if (CAPTION.test(paper.blocks[blockAt(paper, place.from)]?.text ?? '')) {
    if (!cited) return advised('name-source', 'not named below a table or figure');
    if (all < UNMARKED) return advised('stands', 'named below a table or figure');
  }
  if (all >= LONG) return advised('ask', 'long');
  return cited ? advised('mark-words', 'named, not marked') : advised('rewrite', 'neither marked nor named');
}

/** The citations in the sentences of a place, just behind them, or beside the quotation set off that it stands in. */
function citationsBeside(place: Span, { paper, citations, sentences, setOff }: Surroundings): Citation[] {
  const touched = sentences.filter(({ from, to }) => from < place.to && to > place.from);
  const block = setOff.find((one) => place.from < one.to && place.to > one.from);
  let from = Math.min(place.from, ...touched.map((one) => one.from));
  let to = Math.max(place.to, ...touched.map((one) => one.to));
  if (block !== undefined) {
    // The sentence that leads up to it, and what stands behind it.
    from = Math.min(block.from, sentences.findLast((one) => one.to <= block.from)?.from ?? block.from);
    to = Math.max(to, block.to);
  }
  return citations.filter((citation) => standsWith(citation, { from, to }, paper.text));
}

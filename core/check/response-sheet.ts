import type { PickNow } from '../answers/picks.ts';
import type { Proposal } from '../answers/propose.ts';
import { compareForReading, type Piece } from '../difference/display.ts';
import { differenceOf } from '../difference/difference.ts';
import type { GivenAnswer, PickedPlace } from '../model/work.ts';
import { blockAt, type Paper } from '../paper/paper.ts';
import { firstFrom } from '../text/ascending.ts';
import { sentenceSpans } from '../text/sentences.ts';
import type { Span } from '../text/span.ts';
import { newVocabulary, wordsOf } from '../text/words.ts';
import type { Answer } from './answered.ts';

/** What goes with the new attempt: an account of each remark, and of what came of it. */

/** What a remark is told under. */
export const sheetGroups = ['done', 'not done', 'asked', 'open', 'kept', 'carried', 'noted'] as const;
/** One of them. */
export type SheetGroup = (typeof sheetGroups)[number];

/**
 * Under which group a remark is told.
 * @param callsForChange whether it asks for anything; one that doesn't and was not decided about is only noted
 */
export function groupOf(answer: Answer | undefined, callsForChange: boolean): SheetGroup {
  if (answer === undefined) return 'noted';
  if (!answer.answered) {
    if (answer.because === 'not asked yet') return 'asked';
    return answer.because === 'undecided' && !callsForChange ? 'noted' : 'open';
  }
  switch (answer.by) {
    case 'given':
    case 'replied':
    case 'changed':
      return 'done';
    case 'declined':
      return 'not done';
    case 'kept':
      return 'kept';
    case 'asked':
      return 'asked';
    case 'carried':
      return 'carried';
  }
}

/** Where something stands in a text, as one would say it. */
export interface InText {
  /** The heading above it; null before the first one. */
  readonly heading: string | null;
  /** Which paragraph below that heading, from 1. */
  readonly paragraph: number;
}

/** Where a place stands: its heading, and which paragraph below it. */
export function inText(paper: Paper, place: Span): InText {
  const at = blockAt(paper, place.from);
  const above = paper.blocks.slice(0, at + 1);
  const heading = above.findLastIndex(({ kind }) => kind === 'heading');
  const below = above.slice(heading + 1).filter(({ cell }) => cell === undefined).length;
  return { heading: heading < 0 ? null : paper.blocks[heading].text, paragraph: Math.max(1, below) };
}

/** The page that a place is on, from 1; null where there are no pages. @param starts where each page begins */
export function pageAt(starts: readonly number[], at: number): number | null {
  return starts.length === 0 ? null : Math.max(1, firstFrom(starts, at + 1));
}

/** A passage as it was and as it is now, word by word. */
export interface BeforeAfter {
  readonly before: string;
  readonly after: readonly Piece[];
}

/** More of a passage would not be read. */
const MOST_UNITS = 600;

/** The sentences that a place stands in. */
function sentencesAt(text: string, { from, to }: Span): string {
  const around = sentenceSpans(text).filter((one) => one.from <= to && one.to >= from);
  const first = around.at(0)?.from ?? from;
  return text.slice(first, Math.min(around.at(-1)?.to ?? to, first + MOST_UNITS));
}

/**
 * The sentences of a passage before, and those of what answers it; null where nothing is there to be read.
 * @param passage in the older text; null for a remark about no words
 * @param places in the newer text, ascending
 */
export function beforeAfter(
  older: Paper | null,
  passage: Span | null,
  newer: Paper,
  places: readonly Span[],
): BeforeAfter | null {
  const [first] = places;
  if ((first as Span | undefined) === undefined) return null;
  const last = places[places.length - 1];
  // What was inserted beside a passage is read by itself, with nothing before it.
  const before =
    older === null || passage === null || passage.to === passage.from ? '' : sentencesAt(older.text, passage);
  const now = sentencesAt(newer.text, { from: first.from, to: last.to });
  const vocabulary = newVocabulary();
  const { passages } = compareForReading(differenceOf(wordsOf(before, vocabulary), wordsOf(now, vocabulary)));
  const after = passages.flatMap((pieces, i) =>
    i === 0 ? pieces : [{ kind: 'kept' as const, text: ' ' }, ...pieces],
  );
  return { before, after: after.filter(({ kind }) => kind !== 'removed' && kind !== 'moved away') };
}

/** The words that the student took, where they stand now; those that are gone since are left out. */
export function takenPlaces({ places }: GivenAnswer, picks: ReadonlyMap<PickedPlace, PickNow>): Span[] {
  return places.flatMap((pick) => picks.get(pick)?.place ?? []).sort((x, y) => x.from - y.from);
}

/** The words that the student took, as they read now; those that are gone since as they were. */
export function takenWords(
  { places }: GivenAnswer,
  picks: ReadonlyMap<PickedPlace, PickNow>,
  text: string,
): string[] {
  return places.map((pick) => {
    const place = picks.get(pick)?.place ?? null;
    return place === null ? pick.exact : text.slice(place.from, place.to);
  });
}

/** The words of a proposal; '' where some were taken out. */
export function proposedWords({ places }: Proposal, text: string): string[] {
  return places.map(({ from, to }) => text.slice(from, to));
}

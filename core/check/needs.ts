import type { Assignment } from '../model/facts.ts';
import type { Instant } from '../model/ids.ts';
import { sentenceSpans } from '../text/sentences.ts';
import { countWords, wordKeysOf } from '../text/words.ts';

/** One thing that an assignment asks of a text, and whether it is there. */
export type Need =
  | {
      readonly kind: 'words';
      readonly count: number;
      readonly min: number | null;
      readonly max: number | null;
      readonly met: boolean;
    }
  | { readonly kind: 'sentences'; readonly count: number; readonly min: number; readonly met: boolean }
  | {
      readonly kind: 'reading';
      readonly name: string;
      readonly met: boolean;
    };

/**
 * What an assignment asks of a text, counted: words, sentences, readings by the names they go by. Whether a reading is
 * used well no count can tell; it counts as there where all words of its name stand in one sentence.
 */
export function needsOf({ requirements }: Pick<Assignment, 'requirements'>, text: string): Need[] {
  const { wordsMin, wordsMax, sentencesMin = null, readings = [] } = requirements;
  const needs: Need[] = [];
  if (wordsMin !== null || wordsMax !== null) {
    const count = countWords(text);
    const met = (wordsMin === null || count >= wordsMin) && (wordsMax === null || count <= wordsMax);
    needs.push({ kind: 'words', count, min: wordsMin, max: wordsMax, met });
  }
  const sentences = sentenceSpans(text).map(({ from, to }) => wordKeysOf(text.slice(from, to)));
  if (sentencesMin !== null) {
    const count = sentences.filter((keys) => keys.length > 0).length;
    needs.push({ kind: 'sentences', count, min: sentencesMin, met: count >= sentencesMin });
  }
  for (const name of readings) {
    const wanted = wordKeysOf(name);
    const met = sentences.some((keys) => wanted.every((word) => keys.includes(word)));
    needs.push({ kind: 'reading', name, met });
  }
  return needs;
}

/** A departure from what the assignment asks or prefers, to be explained to the instructor. */
export type Departure =
  | Need
  | { readonly kind: 'late'; readonly dueAt: Instant }
  | { readonly kind: 'other file'; readonly name: string; readonly preferred: string };

/**
 * Where what goes departs from what the assignment asks or prefers.
 * @param text null: what goes is no text
 * @param files names of the files that go as the work itself; the first kind that an assignment names is the preferred one
 */
export function departuresFrom(
  assignment: Pick<Assignment, 'requirements' | 'dueAt' | 'extendedTo'>,
  what: {
    readonly text: string | null;
    readonly files: readonly string[];
    readonly atMs: number;
    /** A later attempt has no due time of its own. */
    readonly isFirst: boolean;
  },
): Departure[] {
  const due = assignment.extendedTo ?? assignment.dueAt;
  const preferred = assignment.requirements.fileTypes.at(0);
  const unmet = what.text === null ? [] : needsOf(assignment, what.text).filter(({ met }) => !met);
  const others =
    preferred === undefined
      ? []
      : what.files.filter((name) => !name.toLowerCase().endsWith(`.${preferred.toLowerCase()}`));
  return [
    ...unmet,
    ...(what.isFirst && due !== null && what.atMs > Date.parse(due)
      ? [{ kind: 'late' as const, dueAt: due }]
      : []),
    ...others.map((name) => ({ kind: 'other file' as const, name, preferred: preferred ?? '' })),
  ];
}

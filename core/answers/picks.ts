import { followPassages } from '../anchors/outcome.ts';
import type { GivenAnswer, PickedPlace } from '../model/work.ts';
import type { Paper } from '../paper/paper.ts';
import { searching } from '../text/grams.ts';
import type { Span } from '../text/span.ts';

/** What became of words that were taken as an answer. */
export interface PickNow {
  readonly pick: PickedPlace;
  /** They read as they did when they were taken; else they were changed again since. */
  readonly stands: boolean;
  /** Where they, or what became of them, stand in the newer text; null where they are gone, or that isn't known. */
  readonly place: Span | null;
}

/**
 * Where words that were taken stand in a newer text; of several places alike the nearest to where they stood.
 * @param version the text that they were taken from, for words that read otherwise now; null where it isn't at hand
 */
export function pickIn(newer: Paper, pick: PickedPlace, version: Paper | null): PickNow {
  // A gap says that something was taken out there: nothing can be read in it.
  if (pick.exact === '') return { pick, stands: true, place: null };
  const found = searching(newer.text)(pick.exact);
  if (found.length > 0) {
    const from = found.reduce((x, y) => (Math.abs(y - pick.from) < Math.abs(x - pick.from) ? y : x));
    return { pick, stands: true, place: { from, to: from + pick.exact.length } };
  }
  const isAsTaken = version?.text.slice(pick.from, pick.to) === pick.exact;
  if (version === null || !isAsTaken) return { pick, stands: false, place: null };
  const [outcome] = followPassages(version, newer, [pick]);
  return {
    pick,
    stands: false,
    place: outcome.kind === 'gone' ? null : withMarks(outcome.place, pick.exact, newer.text),
  };
}

/** A place of words with the mark that ends what was taken, where the same one follows: a sentence with its stop. */
function withMarks({ from, to }: Span, exact: string, text: string): Span {
  const last = exact.at(-1) ?? '';
  const isMark = /[^\p{L}\p{N}\s]/u.test(last);
  return { from, to: isMark && text.startsWith(last, to) ? to + 1 : to };
}

/** The answers of which words were changed again since they were taken, or are gone. */
export function changedAgain(
  given: Iterable<GivenAnswer>,
  picks: ReadonlyMap<PickedPlace, PickNow>,
): GivenAnswer[] {
  return [...given].filter(({ places }) => places.some((pick) => picks.get(pick)?.stands === false));
}

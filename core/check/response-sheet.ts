import type { PickNow } from '../answers/picks.ts';
import type { Proposal } from '../answers/propose.ts';
import type { GivenAnswer, PickedPlace } from '../model/work.ts';

/** A table of text: what goes with the new attempt, remark by remark. Cells are paragraphs. */
export interface ResponseSheet {
  readonly title: string;
  readonly lead: readonly string[];
  readonly columns: readonly string[];
  readonly rows: readonly (readonly (readonly string[])[])[];
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

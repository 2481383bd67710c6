import type { Departure, Need } from '#core/check/needs.ts';
import type { Instant } from '#core/model/ids.ts';
import * as words from '../../words/en.ts';

/** What an assignment asks, and how far it is met, as a sentence. */
export function needTold(need: Need): string {
  switch (need.kind) {
    case 'words':
      return words.needs.words(need.count, need.min, need.max, need.met);
    case 'sentences':
      return words.needs.sentences(need.count, need.min, need.met);
    case 'reading':
      return words.needs.reading(need.name, need.met);
  }
}

/** The note to the instructor that departures call for; '' where there are none. */
export function noteFor(departures: readonly Departure[], shownMoment: (at: Instant) => string): string {
  const sentences = departures.map((departure) => {
    switch (departure.kind) {
      case 'words':
        return words.needs.noteWords(departure.count, departure.min, departure.max);
      case 'sentences':
        return words.needs.noteSentences(departure.count, departure.min);
      case 'reading':
        return words.needs.noteReading(departure.name);
      case 'late':
        return words.needs.noteLate(shownMoment(departure.dueAt));
      case 'other file':
        return words.needs.noteFile(departure.name, departure.preferred);
    }
  });
  return sentences.length === 0 ? '' : [...sentences, words.needs.noteBecause].join(' ');
}

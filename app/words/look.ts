import type { LookGroup } from '#core/look/groups.ts';
import type { CitingStyle } from '#core/model/look.ts';
import { many } from './many.ts';

export const look = {
  title: 'Last look',
  looking: 'Looking the draft over …',
  nothing: 'Nothing to look at again.',
  count: (count: number) => `${many(count, 'line', 'lines')} to look at again. You may send all the same.`,
  group: {
    since: 'Mended in one place only',
    citations: 'Citations and references',
    figures: 'Figures and tables',
    words: 'Spelling and slips',
  } satisfies Record<LookGroup, string>,
  groupCount: (group: string, count: number) => `${group} (${count})`,
  show: (says: string) => `${says} Show it in the draft`,
  ignore: 'Let it be',
  ignoreTitle: 'Let this line be?',
  ignoreLead: 'It stays away from this draft and the next ones. A reason is kept with it, if you give one.',
  reason: 'Reason, if you like',
  ignoreIt: 'Let it be',
  ignored: (count: number) => `Let be (${count})`,
  noReason: 'no reason given',
  again: 'Look at it again',
  suggest: 'What may be meant',
  suggestions: (found: readonly string[]) =>
    found.length === 0 ? 'Nothing like it is known.' : `Perhaps ${found.slice(0, 5).join(', ')}.`,
  mine: 'It is a word of mine',
  otherLanguage:
    'There is no dictionary for the language of this text: spelling was not looked at, all else was.',
  style: 'How sources are named',
  asItShows: 'as the draft shows',
  styles: {
    'author-date': 'by author and year',
    'author-page': 'by author and page',
    numeric: 'by number',
  } satisfies Record<CitingStyle, string>,
  readFromBrief: 'Read out of the brief',
  readLead: 'Is this asked of your text?',
  saying: (sentence: string) => `“${sentence}”`,
  asked: 'Asked',
  notMeant: 'Not asked',
  takeOut: (what: string) => `Take out: ${what}`,
  contradicts: (one: string, other: string) =>
    `The brief asks for ${one} and for ${other}: both can’t be. Ask which one counts.`,
  addOwn: 'Add what is asked …',
  addTitle: 'What is asked?',
  addLead:
    'As the brief would say it: “at least three sources”, “900 to 1,200 words”, “a part headed Method”.',
  addField: 'What is asked',
  addIt: 'Add it',
  notUnderstood: 'That is nothing that can be counted or looked for. Say it as in the examples.',
  keepInMind: 'To keep in mind',
  aimedAt: (criterion: string, level: string, done: number, of: number) =>
    `${criterion}: aiming at ${level}, ${done} of ${of} done`,
  marks: 'Mark the last look',
  back: 'Back to the last look',
  undo: {
    ignored: 'a line that is let be',
    style: 'how sources are named',
    asked: 'what is asked',
    ownWord: 'a word of your own',
    marks: 'marks of the last look',
  },
};

import { many } from './many.ts';

export const learn = {
  title: 'Did it work',
  seeOpen: 'See what is open for another attempt',
  lead: 'What changes were expected to win and what came back, over every assignment that was marked again.',
  none: 'Nothing was marked a second time yet. Once an attempt that you revised comes back, what was planned stands here beside what came of it.',
  fromTo: (before: string, after: string) => `${before} → ${after}`,
  planned: (points: string) => `Your changes were expected to win ${points}.`,
  takenLine: (answered: number, taken: number, again: number) =>
    [
      answered === 0
        ? ''
        : `Of ${many(answered, 'answer', 'answers')} ${taken === answered ? 'none' : answered - taken} said again.`,
      again > answered - taken ? `In all ${many(again, 'thing is', 'things are')} said again.` : '',
    ]
      .filter((one) => one !== '')
      .join(' '),
  whole: 'The whole',
  noCriterion: 'Under no criterion',
  unworded: 'a mark without words',
  changedCount: (count: number) => `Answers, and what is said again (${count})`,
  was: (text: string) => `Before: ${text}`,
  is: (text: string) => `Now: ${text}`,
  shown: (count: number) => `${many(count, 'place or file', 'places or files')} shown as the answer.`,
  again: 'Said again:',
  courseSame: (grade: string) => `The course grade stays at ${grade}.`,
  courseMoved: (before: string, after: string) => `The course grade went from ${before} to ${after} with it.`,
  nextOpen: (number: number, of: number) => `The rules allow another one: attempt ${number} of ${of}.`,
  nextNone: 'The rules allow no further attempt.',
  question: (number: number) => `Question ${number}`,
  noResponse: 'no answer',
  questionCounts: (gained: number, still: number, newly: number, kept: number) =>
    `${many(gained, 'question', 'questions')} gained, ${still} still lost, ${newly} newly lost, ${kept} as before.`,
  questionKinds: {
    gained: 'gained',
    'still lost': 'still lost',
    'newly lost': 'newly lost',
    kept: 'as before',
  },
  byAssignment: 'By assignment',
  byKind: 'By kind of change',
  plannedHead: 'Expected',
  realHead: 'Came back',
  minutesPlanned: 'Minutes planned',
  minutesSpent: 'Minutes spent',
  made: 'Made',
  nowTaken: (chance: number, minutes: number) =>
    `Taken from now on to win ${Math.round(chance * 100)} % of its points in ${minutes} min.`,
  notKnown: '–',
  chartLabel: (rows: string) => `Points expected and points that came back: ${rows}`,
  chartRow: (title: string, planned: string, real: string) =>
    `${title}: ${planned} expected, ${real} came back`,
  expectedSeries: 'expected',
  cameSeries: 'came back',
  recordLead: 'Plans go by your own record:',
  standardLead: 'Plans go by the standard estimates. Your own record says:',
  recordKind: (kind: string, chance: number, minutes: number, standardMinutes: number) =>
    `${kind}: wins ${Math.round(chance * 100)} % of its points (70 % to begin with), ${minutes} min (${standardMinutes} to begin with)`,
  toStandard: 'Use the standard ones',
  toRecord: 'Use my record',
};

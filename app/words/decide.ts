import { many } from './many.ts';

export const deciding = {
  title: (n: number, of: number) => `Remark ${n} of ${of}`,
  passage: 'The passage',
  noPassage: 'This remark is about the work as a whole.',
  aboutCriterion: (title: string) => `About the criterion “${title}”.`,
  none: 'Nothing came back to decide about.',
  summary: 'What was decided',
  toSummary: 'Summary',
  left: (count: number) =>
    count === 0 ? 'Everything is decided.' : `${many(count, 'remark', 'remarks')} left to decide.`,
  nextUndecided: 'Next undecided',
  toPlan: 'Go on to Plan',
  groupEmpty: 'none',
  choose: 'Choose for several',
  chosen: (count: number) => `${many(count, 'remark', 'remarks')} chosen`,
  chooseAll: 'All of these',
  chooseRemark: (n: number) => `Choose remark ${n}`,
  decideAll: 'Decide for all chosen',
  done: 'Done',
  undecided: 'Not decided',
  nextLevel: (level: string) => `Reached “${level}”.`,
  inItsPlace: 'See it in its place',
  elsewhere: 'Does it hold elsewhere too?',
  elsewhereFound: (sought: string, count: number, taken: number) =>
    `“${sought}” stands at ${many(count, 'other place', 'other places')}${taken > 0 ? `, ${taken} taken` : ''}`,
  elsewhereWords: 'Look for',
  elsewhereNone: 'These words stand nowhere else in the paper.',
  proposed: (decision: string) => `Proposed: ${decision}`,
  because: {
    rule: (rule: string, count: number) => `since you decided so ${count} times about “${rule}”`,
    stance: (stance: string) => `since it says: ${stance}`,
  },
  takeProposed: 'Take it',
  sameCalls: (numbers: string, count: number) =>
    count === 1 ? `Remark ${numbers} calls for the same.` : `Remarks ${numbers} call for the same.`,
  decideSame: (decision: string, count: number) =>
    `${decision}, ${count === 1 ? 'both' : `all ${count + 1}`}`,
  decideFirst: 'Decide this one, and they can be decided with it.',
};

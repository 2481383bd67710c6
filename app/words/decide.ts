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
};

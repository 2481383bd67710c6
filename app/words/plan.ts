import { many } from './many.ts';

export const plan = {
  title: 'To do, in this order',
  summary: (count: number, time: string, done: number) =>
    `${many(count, 'task', 'tasks')}, ${time} left, ${done} done`,
  expected: 'expected gain',
  behind: 'points behind',
  ofPoints: (points: string) => `of ${points}`,
  done: 'Done',
  minutes: 'Minutes',
  minutesShort: 'min',
  minutesWrong: (kept: number) =>
    `Type minutes or hours, such as 45, 1h or 1:30, up to a day. It stays at ${kept}.`,
  partOf: (n: number, of: number) => `part ${n} of ${of}`,
  remarks: (numbers: string) => `remark ${numbers}`,
  noRemark: 'no remark any more',
  taskTitle: 'What is to be done',
  kind: 'Kind of change',
  proposed: 'Order as proposed',
  order: (byPoints: boolean, touch: boolean) =>
    `${byPoints ? 'Best gain per minute first.' : 'What weighs most per minute first.'} ${
      touch
        ? 'Drag a task by its handle to move it.'
        : 'Drag a task, or take it with Space and move it with the arrow keys.'
    }`,
  move: 'Drag a task, or take it with Space and move it with the arrow keys.',
  ownOrder: 'In your own order.',
  taskWithoutWords: 'See to the mark without words',
  total: 'What it could bring',
  totalLine: (gain: string, score: string) => `The tasks together: about +${gain} points on ${score}.`,
  capLine: (cap: string) => `Under the rules at most ${cap} count.`,
  estimate:
    'An estimate: points behind the remarks of a task, times a chance of 0.7 that the change wins them.',
  byCriterion: 'Where the points went',
  criterion: 'Criterion',
  lost: 'lost',
  planned: 'planned gain',
  unexplained: (points: string, criterion: string) =>
    `${points} points of “${criterion}” are unexplained: no remark calls for a change there.`,
  unexplainedWhole: (points: string) => `${points} points are unexplained: no remark calls for a change.`,
  whole: 'The whole',
  stake: 'at stake',
  stakeCaption: 'What is at stake in the final',
  stakeLine: (gain: string) => `The tasks together: about +${gain} points of those at stake in the final.`,
  noPoints:
    'No points are known for this assignment. The plan goes by what each remark asks: must-fix weighs 3, fix 2, polish 1.',
  time: 'Time you have',
  allTime: (time: string) => `${time}, for all`,
  buys: (points: string) => `It buys about +${points} points.`,
  more: (time: string, points: string) => `${time} more would add ${points}.`,
  moreLater: (time: string, points: string) =>
    `The next half hour adds nothing; ${time} more would add ${points}.`,
  weightiest: 'What weighs most is done in it.',
  nothingToWin: 'No points can be won here any more; what was lost stands below.',
  noMore: 'More time would add nothing.',
  notProven: 'So many tasks that a better set may exist.',
  left: 'Left out at this much time',
  leftShort: (time: string) => `takes ${time} more than is left`,
  curveLabel: (steps: string) => `What each amount of time gains: ${steps}`,
  curveStep: (time: string, points: string) => `${time} +${points}`,
  curveCap: (points: string) => `+${points} at most counts`,
  hours: (minutes: number) =>
    minutes < 60
      ? `${minutes} min`
      : minutes % 60 === 0
        ? `${minutes / 60} h`
        : `${Math.floor(minutes / 60)} h ${minutes % 60} min`,
};

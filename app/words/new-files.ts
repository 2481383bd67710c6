import { many } from './many.ts';

export const title = 'What goes';
export const bringIn = 'Bring in the new file';
export const bringInMore = 'Bring in another file';
export const anyKind = 'Any kind of file is taken, up to 300 MB each.';
export const kindsTaken = (types: readonly string[]) =>
  `Taken are ${types.map((type) => `.${type}`).join(', ')}, up to 300 MB each.`;
export const empty =
  'No new file is here yet. Bring in what you made anew; what was marked stays as it is, and both are shown together.';
export const sentAlready = 'These files were sent. They are kept as they were.';
export const fileEmpty = (name: string) =>
  `“${name}” is empty: it has no content at all. Save it again and bring that in.`;
export const fileOfOtherKind = (name: string, types: readonly string[]) =>
  `“${name}” is of no kind that this assignment takes. Save it as ${types.map((type) => `.${type}`).join(' or ')}.`;
export const up = (name: string) => `Move “${name}” up`;
export const down = (name: string) => `Move “${name}” down`;
export const takeOut = (name: string) => `Take “${name}” out`;
export const look = 'How the two are shown';
export const beside = 'Side by side';
export const over = 'Over one another';
export const slider = 'How much of the new one shows';
export const sliderAt = (percent: number) => `${percent} % of the new one`;
export const overCaption = 'Left of the line the new picture, right of it the marked one.';
export const marked = (name: string) => `Marked: ${name}`;
export const isNew = (name: string) => `New: ${name}`;
export const noPicture = 'This is no picture, so it can’t be laid beside the old one here.';
export const openFile = (name: string) => `Open “${name}” in a tab of its own`;
export const drawNow = 'Draw a box in the new picture around what answers the remark.';
export const showPlace = 'Show where in the new picture';
export const noPlace = 'Don’t draw';
export const withoutPlaces = 'Take the places away';
export const places = (count: number) => many(count, 'place shown', 'places shown');
export const whatWasDone = 'What you did about it';
export const whatWasDoneAbout = (number: number) => `What you did about remark ${number}`;

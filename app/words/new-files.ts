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
export const takeOut = (name: string) => `Take “${name}” out`;
export const look = 'How the two are shown';
export const beside = 'Side by side';
export const over = 'Over one another';
export const slider = 'How much of the new one shows';
export const sliderAt = (percent: number) => `${percent} % of the new one`;
export const overCaption = 'Left of the line the new picture, right of it the marked one.';
export const marked = (name: string) => `Marked: ${name}`;
export const isNew = (name: string) => `New: ${name}`;
export const drawNow = 'Draw a box in the new picture around what answers the remark.';
export const showPlace = 'Show where in the new picture';
export const noPlace = 'Don’t draw';
export const withoutPlaces = 'Take the places away';
export const places = (count: number) => many(count, 'place shown', 'places shown');
export const whatWasDone = 'What you did about it';
export const whatWasDoneAbout = (number: number) => `What you did about remark ${number}`;
export const orderHint = 'Take a file with Space and move it with the arrow keys.';
export const edit = (name: string) => `Turn or cut “${name}”`;
export const editTitle = 'Turn or cut';
export const editLead =
  'Draw a box around what is to stay, or move the edges with the arrow keys. Undo takes every step back.';
export const turnLeft = 'Turn left';
export const turnRight = 'Turn right';
export const cut = 'Cut to the box';
export const editDone = 'Done';
export const edges = {
  left: 'Left edge',
  right: 'Right edge',
  top: 'Upper edge',
  bottom: 'Lower edge',
};
export const edgeAt = (percent: number) => `${percent} %`;
export const soft =
  'Looks soft: small writing may be hard to read. Take it again with more light, held still.';
export const join = (count: number) =>
  count === 1 ? 'Make a PDF of the picture' : `Join ${count} pictures into one PDF`;
export const joining = 'Joining …';
export const joinedName = (title: string) => `${title}, pages.pdf`;
export const pageAlt = (page: number, name: string) => `Page ${page}: photograph “${name}”`;
export const placeByKeys = 'The place by its edges';
export const keepPlace = 'Keep this place';
export const aligned = 'Laid so that what both show lies on itself.';
export const fitted = 'What both show could not be found, so they are laid by their width.';

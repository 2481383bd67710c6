/** What is said of rows that are put in order. */

export const drag = (title: string) => `Move “${title}”`;
export const moved = (title: string, place: number, of: number) =>
  `${title} is now at place ${place} of ${of}.`;
export const pickedUp = (title: string) =>
  `Took ${title}. Move it with the arrow keys, put it down with Space.`;
export const dropped = (title: string) => `Put down ${title}.`;
export const cancelled = 'Not moved.';

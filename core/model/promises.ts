import type { Channel } from './channels.ts';

/** Where a remark says that more feedback is to be found. `class`: in person; `other`: by mail and the like. */
export const promisePlaces = ['paper', 'recording', 'criterion', 'overall', 'class', 'other'] as const;
/** One of these places. */
export type PromisePlace = (typeof promisePlaces)[number];

/** The channels in which a promise can be kept; none for what is said in person or by mail. */
export const CHANNELS_BY_PROMISE: Readonly<Record<PromisePlace, readonly Channel[]>> = {
  paper: ['passage', 'region', 'post', 'question'],
  recording: ['recording'],
  criterion: ['criterion'],
  overall: ['overall'],
  class: [],
  other: [],
};

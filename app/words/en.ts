import { frame, signIn, undo, notice } from './frame.ts';
import { arrivals, tally } from './arrivals.ts';
import { takeIn, comingIn } from './take-in.ts';
import { assignment, line } from './assignment.ts';
import { slip, reading, keys } from './read.ts';
import { deciding } from './decide.ts';
import { plan } from './plan.ts';
import { revise, check } from './revise.ts';
import { send, response } from './send.ts';
import { asks } from './ask.ts';
import { shelf } from './shelf.ts';
import { settings } from './settings.ts';
import { rubric } from './rubric.ts';
import { standing } from './standing.ts';
import {
  decisions,
  channels,
  stances,
  outcomes,
  changeKinds,
  unreadable,
  promisePlaces,
  contradictions,
  unanswered,
} from './kinds.ts';

/** Every word of the interface, by place. Sentences are whole; figures come in as arguments. */
export const words = {
  name: 'Juncture',
  places: {
    arrivals: 'Arrivals',
    standing: 'Standing',
    asks: 'To ask',
    shelf: 'Shelf',
    settings: 'Settings',
  },
  skip: 'Skip to the content',
  decisions,
  channels,
  stances,
  outcomes,
  changeKinds,
  rubric,
  standing,
  unreadable,
  unanswered,
  promisePlaces,
  contradictions,
  frame,
  signIn,
  arrivals,
  tally,
  takeIn,
  comingIn,
  assignment,
  line,
  slip,
  reading,
  keys,
  deciding,
  plan,
  revise,
  check,
  send,
  response,
  asks,
  shelf,
  settings,
  undo,
  notice,
  sizeOf: (bytes: number) =>
    bytes < 1024 * 1024
      ? `${Math.max(1, Math.round(bytes / 1024))} kB`
      : `${(bytes / 1024 / 1024).toFixed(1)} MB`,
};

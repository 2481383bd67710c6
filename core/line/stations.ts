import type { Decision } from '../model/work.ts';

/** The way of the work, in its order (product.md, The line). */
export const stations = ['read', 'decide', 'plan', 'revise', 'check', 'send'] as const;
/** One of them. */
export type Station = (typeof stations)[number];

/** What the progress of the stations follows from: counts of remarks, decisions and tasks. */
export interface LineInput {
  readonly received: number;
  readonly read: number;
  readonly decided: number;
  readonly countByDecision: Readonly<Record<Decision | 'carry', number>>;
  readonly tasks: number;
  readonly tasksDone: number;
  readonly draftBegun: boolean;
  readonly unanswered: number;
  readonly sent: boolean;
  readonly resubmittable: boolean;
}

/** How far one station is. */
export interface StationState {
  readonly station: Station;
  /** not needed: this assignment takes no other attempt, so nothing has to be done here. */
  readonly progress: 'not begun' | 'begun' | 'done' | 'not needed';
}

function step(done: number, of: number): StationState['progress'] {
  if (of > 0 && done >= of) return 'done';
  return done > 0 ? 'begun' : 'not begun';
}

/** How far each station of an assignment is. */
export function lineOf(input: LineInput): StationState[] {
  const later = (progress: StationState['progress']): StationState['progress'] =>
    input.resubmittable || input.sent || progress !== 'not begun' ? progress : 'not needed';
  return [
    { station: 'read', progress: input.received === 0 ? 'not needed' : step(input.read, input.received) },
    {
      station: 'decide',
      progress: input.received === 0 ? 'not needed' : step(input.decided, input.received),
    },
    { station: 'plan', progress: later(step(input.tasksDone, input.tasks)) },
    { station: 'revise', progress: later(input.sent ? 'done' : input.draftBegun ? 'begun' : 'not begun') },
    {
      station: 'check',
      progress: later(input.sent || (input.draftBegun && input.unanswered === 0) ? 'done' : 'not begun'),
    },
    { station: 'send', progress: later(input.sent ? 'done' : 'not begun') },
  ];
}

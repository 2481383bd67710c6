import type { WorkKind } from '../model/work-kind.ts';
import type { AssignmentState } from './assignment-state.ts';
import type { Station } from './stations.ts';

/** What a station is for a kind of work (product.md, By kind of work). */
export type Meaning =
  | 'remarks'
  | 'decisions'
  | 'tasks'
  | 'study list'
  | 'items to do again'
  | 'draft'
  | 'new files'
  | 'practice'
  | 'post'
  | 'items'
  | 'answers and text'
  | 'answers and files'
  | 'readiness'
  | 'answers and post'
  | 'answers by item'
  | 'hand in'
  | 'another try'
  | 'posting'
  | 'answers to the desk';

const MEANINGS: Readonly<Record<WorkKind, Readonly<Record<Station, Meaning>>>> = {
  paper: {
    read: 'remarks',
    decide: 'decisions',
    plan: 'tasks',
    revise: 'draft',
    check: 'answers and text',
    send: 'hand in',
  },
  files: {
    read: 'remarks',
    decide: 'decisions',
    plan: 'tasks',
    revise: 'new files',
    check: 'answers and files',
    send: 'hand in',
  },
  quiz: {
    read: 'remarks',
    decide: 'decisions',
    plan: 'study list',
    revise: 'practice',
    check: 'readiness',
    send: 'another try',
  },
  posts: {
    read: 'remarks',
    decide: 'decisions',
    plan: 'tasks',
    revise: 'post',
    check: 'answers and post',
    send: 'posting',
  },
  items: {
    read: 'remarks',
    decide: 'decisions',
    plan: 'items to do again',
    revise: 'items',
    check: 'answers by item',
    send: 'answers to the desk',
  },
};

/** Why a station is not simply gone through; told as a sentence. */
export type Reason =
  /** No remark is here yet: nothing was sent, or it is not marked. */
  | 'nothing came back'
  | 'remarks are on the draft stage'
  | 'nothing to decide'
  | 'it is done in the final'
  | 'its final is gone'
  | 'no tasks'
  | 'no draft'
  | 'not open yet'
  | 'it is being marked'
  | 'the rest is to come'
  | 'no other attempt'
  | 'missed'
  | 'excused'
  | 'taken at the school'
  | 'no course desk';

/** Where one goes on: a station or the page of an assignment, of this work or of the other stage of it. */
export interface Way {
  readonly of: 'this' | 'final' | 'stage';
  readonly to: Station | 'page';
}

/** What a station is for one assignment as it stands. */
export interface StationFact {
  readonly station: Station;
  readonly means: Meaning;
  /**
   * do: it is for that now; look: nothing has to be done, but what there is can be seen, or done for oneself;
   * elsewhere: it is done on the other stage; nothing: there is nothing here yet.
   */
  readonly is: 'do' | 'look' | 'elsewhere' | 'nothing';
  /** null: there is nothing to explain. */
  readonly why: Reason | null;
  /** Where one goes on; never none where there is nothing here. */
  readonly ways: readonly Way[];
}

/** What work is among stages that lead to one final; a draft stage whose final isn't there is worked on by itself. */
export type Stage = 'none' | 'draft stage' | 'draft stage without its final' | 'final';

/** What the facts of the stations follow from. */
export interface StationInput {
  readonly kind: WorkKind;
  readonly state: AssignmentState['kind'];
  readonly stage: Stage;
  /** Remarks that came back to this work. */
  readonly received: number;
  /** For a final: remarks that came back to its draft stages. */
  readonly receivedOnStage: number;
  readonly tasks: number;
  /** A draft, new files, a post, answers to items: something of the next attempt. */
  readonly draftBegun: boolean;
  /** Something was sent, by Juncture or elsewhere. */
  readonly sent: boolean;
  /** A course desk takes it. */
  readonly byDesk: boolean;
}

const here = (to: Way['to']): Way => ({ of: 'this', to });

type Told = Omit<StationFact, 'station' | 'means'>;
const doing = (why: Reason | null = null, ...ways: Way[]): Told => ({ is: 'do', why, ways });
const looking = (why: Reason, ...ways: Way[]): Told => ({ is: 'look', why, ways });
const nothing = (why: Reason, first: Way, ...ways: Way[]): Told => ({
  is: 'nothing',
  why,
  ways: [first, ...ways],
});

/** What each station is for an assignment as it stands: no station is without a way on. */
export function stationFacts(input: StationInput): StationFact[] {
  const told: Readonly<Record<Station, Told>> = {
    read: readTold(input),
    decide: decideTold(input),
    plan: ofTheFinal(input, 'plan', planTold),
    revise: ofTheFinal(input, 'revise', reviseTold),
    check: ofTheFinal(input, 'check', checkTold),
    send: ofTheFinal(input, 'send', sendTold),
  };
  return (Object.keys(MEANINGS.paper) as Station[]).map((station) => ({
    station,
    means: MEANINGS[input.kind][station],
    ...told[station],
  }));
}

function readTold({ received, receivedOnStage }: StationInput): Told {
  if (received > 0) return doing();
  if (receivedOnStage > 0)
    return {
      is: 'elsewhere',
      why: 'remarks are on the draft stage',
      ways: [{ of: 'stage', to: 'read' }],
    };
  // What was sent, the brief and the rubric can be read all the same.
  return looking('nothing came back', here('page'));
}

function decideTold({ received, receivedOnStage }: StationInput): Told {
  if (received > 0) return doing();
  if (receivedOnStage > 0)
    return {
      is: 'elsewhere',
      why: 'remarks are on the draft stage',
      ways: [{ of: 'stage', to: 'decide' }],
    };
  return nothing('nothing to decide', here('page'), here('revise'));
}

/** The later stations of a draft stage that was handed in are those of its final; until then it is work like any other. */
function ofTheFinal(input: StationInput, station: Station, told: (input: StationInput) => Told): Told {
  if (input.stage === 'draft stage' && (input.sent || input.received > 0))
    return { is: 'elsewhere', why: 'it is done in the final', ways: [{ of: 'final', to: station }] };
  const own = told(input);
  return input.stage === 'draft stage without its final' && own.why === null
    ? { ...own, why: 'its final is gone' }
    : own;
}

function planTold(input: StationInput): Told {
  const { tasks, received, receivedOnStage, stage } = input;
  // Where nothing more is taken no points are to be won; what was said of a draft is for a final yet to come.
  const later = stage === 'draft stage without its final' ? doing() : reviseTold(input);
  if (tasks > 0)
    return later.is === 'look' && later.why !== null ? looking(later.why, here('revise')) : doing();
  // Where the points went can be seen all the same.
  if (received > 0) return looking('no tasks', here('decide'));
  if (receivedOnStage > 0) return looking('no tasks', { of: 'stage', to: 'decide' });
  return nothing('nothing came back', here('revise'), here('page'));
}

function reviseTold({ state, draftBegun, byDesk }: StationInput): Told {
  if (!byDesk) return doing();
  switch (state) {
    case 'open, nothing sent':
    case 'draft begun':
    case 'open for another attempt':
      return doing();
    case 'not open yet':
      return looking('not open yet', here('page'));
    case 'waiting to be marked':
    case 'waiting again':
      return looking('it is being marked', here('send'));
    case 'part marked':
      return looking('the rest is to come', here('read'));
    case 'finished':
      return looking('no other attempt', ...(draftBegun ? [] : [here('read')]));
    case 'closed':
      return looking('missed', here('page'));
    case 'excused':
      return looking('excused', here('page'));
  }
}

function checkTold({ kind, draftBegun, received, receivedOnStage }: StationInput): Told {
  // How sure one is of a quiz can be looked at without anything written.
  if (draftBegun || (kind === 'quiz' && received > 0)) return doing();
  // What is not answered yet can be seen all the same.
  return received + receivedOnStage > 0
    ? looking('no draft', here('revise'))
    : nothing('no draft', here('revise'));
}

/** States in which an attempt is taken. */
const OPEN: ReadonlySet<AssignmentState['kind']> = new Set([
  'open, nothing sent',
  'draft begun',
  'open for another attempt',
]);

function sendTold({ state, draftBegun, kind, byDesk, sent }: StationInput): Told {
  const begun = draftBegun;
  // A quiz is taken at the course desk: nothing has to be made before.
  if (kind === 'quiz' && !byDesk) return looking('taken at the school', here('revise'), here('page'));
  if (kind === 'quiz' && OPEN.has(state)) return doing();
  if (!byDesk) return begun ? doing('no course desk') : nothing('no draft', here('revise'));
  switch (state) {
    case 'open, nothing sent':
    case 'draft begun':
    case 'open for another attempt':
      return begun ? doing() : nothing('no draft', here('revise'));
    case 'not open yet':
      return nothing('not open yet', here('page'));
    case 'waiting to be marked':
    case 'waiting again':
      return looking('it is being marked', here('page'));
    case 'part marked':
      return looking('the rest is to come', here('read'));
    case 'finished':
      return sent
        ? looking('no other attempt', here('read'))
        : nothing('no other attempt', here('read'), here('page'));
    case 'closed':
      return nothing('missed', here('page'));
    case 'excused':
      return nothing('excused', here('page'));
  }
}

import { promisePlaces, type PromisePlace } from '../model/promises.ts';
import type { Change } from '../model/remark.ts';
import { stances, type Stance } from '../model/work.ts';
import type { Span } from '../text/span.ts';
import { featuresOf, type Features } from './features.ts';
import { probabilities, promiseClasses, stanceProbabilities, type SayingModel } from './model.ts';
import { pointsNamed } from './named-points.ts';
import { promiseIn } from './promise.ts';
import { cutIntoParts, piecesOf } from './parts.ts';
import { stanceOfMark } from './stance.ts';
import { taskWording } from './task-wording.ts';

/** Goes up whenever the same model comes to say something else: what was kept of it is worked out anew. */
export const SAYS_VERSION = 1;

/** One thing that a remark says. */
export interface SaidPart extends Span {
  readonly stance: Stance;
  readonly callsForChange: boolean;
  /** How likely each stance is. */
  readonly likely: Readonly<Record<Stance, number>>;
  readonly promise: PromisePlace | null;
  /** How likely it promises more feedback anywhere. */
  readonly promising: number;
}

/** What a remark says, as a model sees it: a proposal, which the student corrects. */
export interface Saying {
  /** That of its weightiest part. */
  readonly stance: Stance;
  /** How likely that is, 0 to 1. */
  readonly confidence: number;
  readonly sure: boolean;
  readonly callsForChange: boolean;
  /** The words that are a hint for next time, whatever else the remark says; null where there are none. */
  readonly hint: string | null;
  /** Where it says that more feedback is; null where it doesn't. */
  readonly promise: PromisePlace | null;
  /** Points that it says were lost; null where it names none. */
  readonly points: number | null;
  /** What is to be done about it, in words; null where it has none. */
  readonly task: string | null;
  readonly parts: readonly SaidPart[];
  /** Which model says so. */
  readonly model: string;
}

/** What parts weigh against one another, weightiest first: what is to be changed before what is well. */
export const WEIGHTIEST: readonly Stance[] = [
  'must-fix',
  'fix',
  'question',
  'polish',
  'advice',
  'pointer',
  'praise',
  'note',
];
/** Stances of what calls for a change. */
export const CALLS_FOR_CHANGE: ReadonlySet<Stance> = new Set(['must-fix', 'fix', 'polish']);

/** What a remark says is told from these alone. */
export interface Said {
  readonly text: string;
  readonly kind: string;
  readonly change: Change | null;
}

/** What a remark says (computation.md 2): its parts, each with a stance, and what follows for the whole. */
export function says(remark: Said, model: SayingModel): Saying {
  const pieces = piecesOf(remark.text);
  if (pieces.length === 0) return markSays(remark, model.version);
  const known = new Map<string, { features: Features; likely: Record<Stance, number> }>();
  const look = ({ from, to }: Span) => {
    const key = `${from} ${to}`;
    const found = known.get(key);
    if (found !== undefined) return found;
    const features = featuresOf(remark.text.slice(from, to));
    const looked = { features, likely: stanceProbabilities(model, features) };
    known.set(key, looked);
    return looked;
  };
  const spans = cutIntoParts(pieces, (span) => Math.max(...Object.values(look(span).likely)));
  const parts = joined(
    spans.map((span) => {
      const { features, likely } = look(span);
      const words = remark.text.slice(span.from, span.to);
      return { ...span, ...stanceIn(likely, model), likely, ...promiseOf(words, features, model) };
    }),
  );
  return wholeOf(remark.text, parts, model);
}

/** A mark without words says what its kind does. */
function markSays({ kind, change }: Said, model: string): Saying {
  const stance = stanceOfMark(kind, change);
  return {
    stance,
    confidence: 1,
    sure: true,
    callsForChange: CALLS_FOR_CHANGE.has(stance),
    hint: null,
    promise: null,
    points: null,
    task: null,
    parts: [],
    model,
  };
}

function stanceIn(likely: Record<Stance, number>, { callsFrom }: SayingModel) {
  const change = likely['must-fix'] + likely.fix + likely.polish;
  const callsForChange = change > callsFrom;
  const fitting = stances.filter((stance) => CALLS_FOR_CHANGE.has(stance) === callsForChange);
  const stance = fitting.reduce((most, one) => (likely[one] > likely[most] ? one : most));
  return { stance, callsForChange };
}

/** By the rules, which seldom err, and where they find none by the model. */
function promiseOf(text: string, features: Features, { promise, promisesFrom }: SayingModel) {
  const told = promiseIn(text);
  if (told !== null) return { promise: told.place, promising: 1 };
  const likely = probabilities(promise, features);
  const promising = 1 - likely[promiseClasses.indexOf('none')];
  const place = promisePlaces.reduce((most, one) =>
    likely[promiseClasses.indexOf(one)] > likely[promiseClasses.indexOf(most)] ? one : most,
  );
  return { promise: promising > promisesFrom ? place : null, promising };
}

/** Neighbours that say the same are one part, a fault that must be mended and how to mend it too. */
function joined(parts: readonly SaidPart[]): SaidPart[] {
  const one: SaidPart[] = [];
  for (const part of parts) {
    const before = one.at(-1);
    if (before === undefined || !saySame(before, part)) one.push(part);
    else one[one.length - 1] = { ...weightier(before, part), from: before.from, to: part.to };
  }
  return one;
}

const MENDS: ReadonlySet<Stance> = new Set(['must-fix', 'fix']);

function saySame(x: SaidPart, y: SaidPart): boolean {
  return x.promise === y.promise && (x.stance === y.stance || (MENDS.has(x.stance) && MENDS.has(y.stance)));
}

/** Of two that say the same the one that asks for more, else the surer. */
function weightier(x: SaidPart, y: SaidPart): SaidPart {
  const [first, second] = [WEIGHTIEST.indexOf(x.stance), WEIGHTIEST.indexOf(y.stance)];
  if (first !== second) return first < second ? x : y;
  return x.likely[x.stance] >= y.likely[y.stance] ? x : y;
}

function wholeOf(text: string, parts: readonly SaidPart[], model: SayingModel): Saying {
  const stance = WEIGHTIEST.find((one) => parts.some((part) => part.stance === one)) ?? 'note';
  const confidence = Math.max(
    ...parts.filter((part) => part.stance === stance).map(({ likely }) => likely[stance]),
  );
  const hint = parts.find((part) => part.stance === 'advice');
  return {
    stance,
    confidence,
    sure: confidence >= model.sureFrom,
    callsForChange: parts.some((part) => part.callsForChange),
    hint: hint === undefined ? null : text.slice(hint.from, hint.to),
    promise: parts.find(({ promise }) => promise !== null)?.promise ?? null,
    points: pointsNamed(text),
    task: taskWording(text, parts),
    parts,
    model: model.version,
  };
}

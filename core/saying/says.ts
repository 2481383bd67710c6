import { promisePlaces } from '../model/promises.ts';
import { stances, type Stance } from '../model/work.ts';
import type { Span } from '../text/span.ts';
import { featuresOf, type Features } from './features.ts';
import { probabilities, promiseClasses, stanceProbabilities, type SayingModel } from './model.ts';
import { pointsNamed } from './named-points.ts';
import { promiseIn } from './promise.ts';
import { cutIntoParts, piecesOf } from './parts.ts';
import { CALLS_FOR_CHANGE, toldBy, WEIGHTIEST, type Said, type SaidPart, type Saying } from './saying.ts';
import { stanceOfMark } from './stance.ts';

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
    promiseSaid: null,
    points: null,
    parts: [],
    model,
    because: null,
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

function wholeOf(text: string, parts: readonly SaidPart[], { sureFrom, version }: SayingModel): Saying {
  const told = toldBy(text, parts);
  const promising = parts.find(({ promise }) => promise !== null);
  return {
    ...told,
    sure: told.confidence >= sureFrom,
    promise: promising?.promise ?? null,
    promiseSaid: promising === undefined ? null : sentenceOfPromise(text.slice(promising.from, promising.to)),
    points: pointsNamed(text),
    parts,
    model: version,
    because: null,
  };
}

function sentenceOfPromise(words: string): string {
  return promiseIn(words)?.sentence ?? words;
}

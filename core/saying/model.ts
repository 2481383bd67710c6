import * as v from 'valibot';
import { promisePlaces } from '../model/promises.ts';
import { stances, type Stance } from '../model/work.ts';
import { BUCKETS, type Features } from './features.ts';

/** Classes of one question about a part, and what each feature says for each of them. */
export interface Head {
  readonly bias: readonly number[];
  /** A bucket's weights stand together, one a class. */
  readonly weights: Float32Array;
  /** Divides what is summed up, so that a probability is as often right as it says (temperature scaling, Guo and others 2017). */
  readonly temperature: number;
}

/** What a promise is of; 'none' where a part promises nothing. */
export const promiseClasses = ['none', ...promisePlaces] as const;
/** A model of what parts of remarks say, learnt from labelled remarks (training/). */
export interface SayingModel {
  /** Changes with every byte of it. */
  readonly version: string;
  readonly stance: Head;
  readonly promise: Head;
  /** A change is called for where must-fix, fix and polish together are likelier than this. */
  readonly callsFrom: number;
  /** A promise is made where one place or another is likelier than this. */
  readonly promisesFrom: number;
  /** A stance that is less likely than this is said with a "perhaps". */
  readonly sureFrom: number;
}

/** How likely each class is, in their order; sums up to 1. */
export function probabilities({ bias, weights, temperature }: Head, { buckets, values }: Features): number[] {
  const classes = bias.length;
  const sums = [...bias];
  for (let n = 0; n < buckets.length; n++) {
    const at = buckets[n] * classes;
    for (let k = 0; k < classes; k++) sums[k] += weights[at + k] * values[n];
  }
  const most = Math.max(...sums);
  const shares = sums.map((sum) => Math.exp((sum - most) / temperature));
  const all = shares.reduce((x, y) => x + y, 0);
  return shares.map((share) => share / all);
}

/** How likely a part has each stance. */
export function stanceProbabilities(model: SayingModel, features: Features): Record<Stance, number> {
  const likely = probabilities(model.stance, features);
  return Object.fromEntries(stances.map((stance, k) => [stance, likely[k]])) as Record<Stance, number>;
}

const HeadHeader = v.object({ bias: v.array(v.number()), largest: v.number(), temperature: v.number() });
const Header = v.object({
  buckets: v.literal(BUCKETS),
  stance: HeadHeader,
  promise: HeadHeader,
  callsFrom: v.number(),
  promisesFrom: v.number(),
  sureFrom: v.number(),
});

/** A weight in 8 bits: its root, so that small ones are told apart. */
const STEPS = 127;
/** Weights of fewer steps say next to nothing, and are most of them: as zeros they cost nothing on the way. */
const LEAST_STEPS = 15;

/** Weights as bytes; the model that is read back from them is the one that is used. */
export function encodeModel(model: Omit<SayingModel, 'version'>): Uint8Array<ArrayBuffer> {
  const { stance, promise, ...thresholds } = model;
  const largest = (head: Head) => head.weights.reduce((most, weight) => Math.max(most, Math.abs(weight)), 0);
  const headOf = (head: Head) => ({
    bias: head.bias,
    largest: largest(head),
    temperature: head.temperature,
  });
  const header = { buckets: BUCKETS, stance: headOf(stance), promise: headOf(promise), ...thresholds };
  const text = Uint8Array.from(`${JSON.stringify(header)}\n`, (letter) => letter.charCodeAt(0));
  const bytes = new Uint8Array(text.length + stance.weights.length + promise.weights.length);
  bytes.set(text);
  let at = text.length;
  for (const head of [stance, promise]) {
    const most = largest(head);
    for (const weight of head.weights) {
      const steps = Math.round(Math.sqrt(Math.abs(weight) / most) * STEPS);
      bytes[at++] = steps < LEAST_STEPS ? 0 : Math.sign(weight) * steps;
    }
  }
  return bytes;
}

/**
 * Reads a model.
 * @throws ValiError or SyntaxError where the bytes are no model
 */
export function decodeModel(bytes: Uint8Array): SayingModel {
  const end = bytes.indexOf('\n'.charCodeAt(0));
  const header = v.parse(Header, JSON.parse(String.fromCharCode(...bytes.subarray(0, end))));
  const signed = new Int8Array(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = end + 1;
  const headOf = ({ bias, largest, temperature }: v.InferOutput<typeof HeadHeader>): Head => {
    const weights = new Float32Array(bias.length * BUCKETS);
    for (let n = 0; n < weights.length; n++) {
      const step = signed[at++] / STEPS;
      weights[n] = step * Math.abs(step) * largest;
    }
    return { bias, weights, temperature };
  };
  const { callsFrom, promisesFrom, sureFrom } = header;
  const stance = headOf(header.stance);
  const promise = headOf(header.promise);
  return { version: versionOf(bytes), stance, promise, callsFrom, promisesFrom, sureFrom };
}

function versionOf(bytes: Uint8Array): string {
  let hash = 2_166_136_261;
  for (const byte of bytes) hash = Math.imul(hash ^ byte, 16_777_619);
  return (hash >>> 0).toString(16).padStart(8, '0');
}

import { stances } from '../../model/work.ts';
import { BUCKETS, featuresOf, type Features } from '../features.ts';
import { probabilities, promiseClasses, type Head, type SayingModel } from '../model.ts';
import { seeded } from './seeded.ts';
import type { LabelledPart, LabelledRemark } from './voices.ts';

/** Something to be learnt: what it is told by, how much it is each class, and how much it counts. */
interface Example {
  readonly features: Features;
  readonly target: readonly number[];
  readonly weight: number;
}

/** Rounds over all examples; more of them fit the training voices and no others. These five were found on held-out voices. */
const ROUNDS = 8;
const RATE = 0.07;
const SHRINKING = 2e-4;
/** Rare classes count for more, by this power of how rare they are: 0 not at all, 1 as much as common ones. */
const RARITY = { stance: 0.6, promise: 0.3 };
/** Where the two labels of a part differ, how much the first is believed. */
const FIRST_LABEL = 0.6;
const BIAS_RATE = 0.05;

const known = new Map<string, Features>();

function featuresKept(text: string): Features {
  const found = known.get(text) ?? featuresOf(text);
  known.set(text, found);
  return found;
}

/**
 * Learns what parts say from labelled remarks: multinomial logistic regression by stochastic gradients with steps that
 * shrink by what was stepped before (AdaGrad; Duchi, Hazan, Singer 2011). The same remarks give the same weights.
 * @param temperature that of stances, once it was found on held-out voices
 */
export function learn(
  remarks: readonly LabelledRemark[],
  temperature = 1,
): Pick<SayingModel, 'stance' | 'promise'> {
  const parts = remarks.flatMap((remark) => remark.parts);
  return {
    stance: { ...learnHead(parts, stances.length, stanceTarget, RARITY.stance), temperature },
    promise: learnHead(parts, promiseClasses.length, promiseTarget, RARITY.promise),
  };
}

function stanceTarget({ stance, doubt }: LabelledPart): number[] {
  return stances.map((one) => {
    if (doubt === null) return Number(one === stance);
    return one === stance ? FIRST_LABEL : one === doubt ? 1 - FIRST_LABEL : 0;
  });
}

function promiseTarget({ promise }: LabelledPart): number[] {
  return promiseClasses.map((one) => Number(one === (promise ?? 'none')));
}

function learnHead(
  parts: readonly LabelledPart[],
  classes: number,
  targetOf: (part: LabelledPart) => number[],
  power: number,
): Head {
  const targets = parts.map(targetOf);
  const count = Array.from({ length: classes }, (_, k) =>
    targets.reduce((sum, target) => sum + target[k], 0),
  );
  const rarity = count.map((n) => (n === 0 ? 0 : (parts.length / classes / n) ** power));
  const examples = parts.map(({ text }, index) => ({
    features: featuresKept(text),
    target: targets[index],
    weight: targets[index].reduce((sum, share, k) => sum + share * rarity[k], 0),
  }));
  return descend(examples, classes);
}

function descend(examples: readonly Example[], classes: number): Head {
  const weights = new Float32Array(BUCKETS * classes);
  const squares = new Float32Array(weights.length).fill(1e-6);
  const bias = Array.from({ length: classes }, () => 0);
  const head = { weights, bias, temperature: 1 };
  const random = seeded(1);
  const order = examples.map((_, index) => index);
  for (let round = 0; round < ROUNDS; round++) {
    random.shuffle(order);
    for (const index of order) step(examples[index], head, squares);
  }
  return head;
}

function step(
  { features, target, weight }: Example,
  head: { weights: Float32Array; bias: number[]; temperature: number },
  squares: Float32Array,
): void {
  const { buckets, values } = features;
  const classes = head.bias.length;
  const errors = probabilities(head, features).map((likely, k) => weight * (likely - target[k]));
  errors.forEach((error, k) => (head.bias[k] -= BIAS_RATE * error));
  for (let n = 0; n < buckets.length; n++) {
    const at = buckets[n] * classes;
    for (let k = 0; k < classes; k++) {
      const slope = errors[k] * values[n] + SHRINKING * head.weights[at + k];
      squares[at + k] += slope * slope;
      head.weights[at + k] -= (RATE * slope) / Math.sqrt(squares[at + k]);
    }
  }
}

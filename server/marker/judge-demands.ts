import { add, fromDecimal, ZERO, type Fraction } from '#core/scores/fraction.ts';
import { wordKeysOf } from '#core/text/words.ts';
import { copiedFrom } from './copied.ts';
import { finds, type Demand } from './demand.ts';
import type { TextRules } from './marking-rules.ts';
import { sentencesOf, type Sentence } from './sentences.ts';
import { textJudgeFor } from './soundness.ts';

/** What is to be judged by demands: a text that was sent, whether something of it was marked before or not. */
export interface Sent {
  readonly text: string;
  /** What there was before: the draft stage, the thread. Its sentences are not looked at for how they are written. */
  readonly before: string;
  /** What was said about it: copying it back is no answer. */
  readonly remarks: readonly string[];
  /** What other people wrote: it is nobody's answer. */
  readonly others: readonly string[];
}

/** A demand with what was found of it. */
export interface Found<D> {
  readonly demand: D;
  readonly met: boolean;
  /** The words that meet it, or that lack it; null: none of their own. */
  readonly quote: string | null;
}

type TextFault = 'unreadable' | 'repeated';
export type Judged<D> =
  | { readonly fault: TextFault; readonly found: null }
  | { readonly fault: null; readonly found: readonly Found<D>[] };

/** Fewer words are no sentence in which something could be said, unless beside one that is. */
const LEAST_WORDS = 4;

/** A demand may lie over this many sentences that follow each other. */
const NEAR = 2;

/** Judges a text by what is looked for in it: only in sentences that are sentences, and not copied from the remarks. */
export function judgeDemands<D extends Omit<Demand, 'criterion'>>(
  sent: Sent,
  demands: readonly D[],
  rules: TextRules,
): Judged<D> {
  const judge = textJudgeFor(sent.before, rules);
  const sentences = sentencesOf(sent.text);
  // A list or a figure is no writing, and needn't be.
  const fault = demands.every(({ anywhere }) => anywhere) ? null : judge.faultOf(sentences);
  if (fault !== null) return { fault, found: null };
  const copied = copiedFrom([...sent.remarks, ...sent.others], sent.before);
  const fresh = new Set(judge.newAmong(sentences));
  const stands = (one: Sentence) => judge.isSound(one) && !copied(one);
  const isWhole = (one: Sentence | undefined) =>
    one !== undefined && one.keys.length >= LEAST_WORDS && stands(one);
  const counting = sentences.filter(
    (one, index) =>
      !fresh.has(one) ||
      (stands(one) && [one, sentences[index - 1], sentences[index + 1]].some((near) => isWhole(near))),
  );
  return {
    fault: null,
    found: demands.map((demand) => found(demand, demand.anywhere ? sentences : counting, fresh)),
  };
}

function found<D extends Omit<Demand, 'criterion'>>(
  demand: D,
  sentences: readonly Sentence[],
  fresh: ReadonlySet<Sentence>,
): Found<D> {
  const { needs, without, times, about } = demand;
  const [first = [], ...others] = needs;
  const places = new Set<string>();
  let met: Sentence | null = null;
  let isNew = false;
  for (const [index, sentence] of sentences.entries()) {
    const around = sentences.slice(Math.max(0, index - NEAR + 1), index + NEAR);
    const text = around.map((one) => one.text).join(' ');
    if (!first.some((source) => finds(source, sentence.text))) continue;
    if (!others.every((group) => group.some((source) => finds(source, text)))) continue;
    for (const source of first)
      for (const [word] of sentence.text.matchAll(new RegExp(source, 'giu'))) places.add(word);
    // What is said new meets it rather than what stood there.
    const said = [sentence, ...around].find(
      (one) => fresh.has(one) && needs.some((group) => group.some((source) => finds(source, one.text))),
    );
    if (met === null || (!isNew && said !== undefined)) met = said ?? sentence;
    isNew ||= said !== undefined;
  }
  const barred = sentences.find(({ text }) => without.some((source) => finds(source, text)));
  // What stands as it was is answered by what is said new of it, too.
  const isBarred = barred !== undefined && !(isNew && !fresh.has(barred));
  if (met !== null && places.size >= times && !isBarred) return { demand, met: true, quote: met.text };
  const lacking = barred ?? sentences.find(({ text }) => about !== undefined && finds(about, text));
  return { demand, met: false, quote: lacking?.text ?? null };
}

/** An answer of a few words so that it can be judged as a sentence: as a sentence is written. */
export function asSentence(answer: string): string {
  const text = answer.trim();
  if (text === '') return '';
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}${/[.!?]$/.test(text) ? '' : '.'}`;
}

/** Whether there is enough of an answer to judge it: a word alone names something and says nothing about it. */
export function saysSomething(answer: string): boolean {
  return wordKeysOf(answer).length >= LEAST_WORDS;
}

/** The points of what was met. */
export function pointsOf(found: readonly Found<Pick<Demand, 'points'>>[]): Fraction {
  return found
    .filter(({ met }) => met)
    .reduce<Fraction>((sum, { demand }) => add(sum, fromDecimal(demand.points)), ZERO);
}

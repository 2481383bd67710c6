import type { Judgement, Stance } from '../model/work.ts';
import { WEIGHTIEST, type Said, type SaidPart, type Saying } from './saying.ts';

/** Remarks with the same key say the same. */
export function sayingKey({ text, kind, change }: Said): string {
  return JSON.stringify([kind, text, change]);
}

/** What is known of remarks, by their ids: what the student made of each, and what each was found to say. */
export interface Understood {
  readonly judgements: ReadonlyMap<string, Judgement>;
  /** Without those that are not worked out yet. */
  readonly sayings: ReadonlyMap<string, Saying>;
}

/**
 * What a remark says: the student's word, of the whole or of its parts; else what it was taken to say when it was decided;
 * else as proposed. Which decision it was changes nothing of it. null while nothing is known.
 */
export function stanceOf(remarkId: string, { judgements, sayings }: Understood): Stance | null {
  const judgement = judgements.get(remarkId);
  return (
    judgement?.stance ??
    weightiestOf(judgement) ??
    judgement?.taken?.stance ??
    sayings.get(remarkId)?.stance ??
    null
  );
}

/** The weightiest of what the parts say, where the student put right what one of them says. */
export function weightiestOf(judgement: Judgement | undefined): Stance | null {
  const parts = judgement?.parts ?? [];
  if (parts.every(({ stance }) => stance === null)) return null;
  return WEIGHTIEST.find((one) => parts.some(({ stance, said }) => (stance ?? said) === one)) ?? null;
}

/**
 * The parts of a remark where they say different things; none where it says one thing, is not worked out, or where the
 * student said what it says as a whole.
 */
export function partsApart(remarkId: string, { judgements, sayings }: Understood): readonly SaidPart[] {
  const parts = sayings.get(remarkId)?.parts ?? [];
  const isSettled = (judgements.get(remarkId)?.stance ?? null) !== null;
  return isSettled || new Set(parts.map(({ stance }) => stance)).size < 2 ? [] : parts;
}

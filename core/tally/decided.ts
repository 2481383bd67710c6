import type { PartId } from '../model/ids.ts';
import type { Decision, Judgement } from '../model/work.ts';

/** Something that is decided about: a remark as a whole, or one of its parts. */
export interface DecidedThing {
  /** null: the whole. */
  readonly partId: PartId | null;
  readonly decision: Decision | null;
  readonly carry: boolean;
}

const isThingDecided = ({ decision, carry }: DecidedThing) => decision !== null || carry;

/** What of a remark is decided about: its parts, once one of them was decided by itself; else the whole. */
export function decidedThings(judgement: Judgement): DecidedThing[] {
  const { decision, carry } = judgement;
  const parts = judgement.parts.map((part) => ({
    partId: part.id,
    decision: part.decision,
    carry: part.carry,
  }));
  const whole = { partId: null, decision, carry };
  return decision === null && parts.some(isThingDecided) ? parts : [whole];
}

/** It is decided about as a whole, or in every part; to be carried to the next assignment is a decision too. */
export function isDecided(judgement: Judgement | undefined): boolean {
  return judgement !== undefined && (judgement.carry || decidedThings(judgement).every(isThingDecided));
}

/** What was decided about a remark or its parts, each once. */
export function decisionsIn(judgement: Judgement | undefined): (Decision | 'carry')[] {
  if (judgement === undefined) return [];
  const things = decidedThings(judgement);
  const made = things.flatMap(({ decision }) => (decision === null ? [] : [decision]));
  const carried = judgement.carry || things.some(({ carry }) => carry);
  return [...new Set(made), ...(carried ? (['carry'] as const) : [])];
}

/** What of a remark is to be acted on: its parts, null for the whole. */
export function actedOn(judgement: Judgement): (PartId | null)[] {
  return decidedThings(judgement).flatMap(({ decision, partId }) => (decision === 'act' ? [partId] : []));
}

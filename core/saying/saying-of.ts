import type { Remark } from '../model/remark.ts';
import type { Judgement, Stance } from '../model/work.ts';
import { whatItSays, type Saying } from './stance.ts';

/** What a remark says is told from these alone. */
type Said = Pick<Remark, 'text' | 'kind' | 'change'>;

const proposed = new Map<string, Saying>();

/** What the rules propose for a remark; computed once for all that say the same. */
export function proposalFor({ text, kind, change }: Said): Saying {
  const key = JSON.stringify([kind, text, change]);
  const known = proposed.get(key);
  if (known !== undefined) return known;
  const saying = whatItSays({ text, kind, change });
  proposed.set(key, saying);
  return saying;
}

/** Stances of remarks that call for a change. */
const CALLS_FOR_CHANGE: ReadonlySet<Stance> = new Set(['must-fix', 'fix', 'polish']);

/**
 * What a remark says: the student's word; else what the decision tells (what is kept is praise, what is acted on calls for
 * a change); else as the rules propose.
 */
export function stanceOf(remark: Remark, judgement: Judgement | undefined): Stance {
  if (judgement?.stance !== undefined && judgement.stance !== null) return judgement.stance;
  if (judgement?.decision === 'keep') return 'praise';
  const { stance } = proposalFor(remark);
  return judgement?.decision === 'act' && !CALLS_FOR_CHANGE.has(stance) ? 'fix' : stance;
}

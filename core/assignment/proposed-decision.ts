import { entryFor } from '../key/signs.ts';
import type { Remark } from '../model/remark.ts';
import type { Decision, Stance } from '../model/work.ts';
import { likenessOf, THEME_LIKENESS } from '../plan/likeness.ts';
import { CALLS_FOR_CHANGE } from '../saying/saying.ts';
import { stanceOf } from '../saying/saying-of.ts';
import { isDecided } from '../tally/decided.ts';
import { stemsOf } from '../text/stems.ts';
import type { AssignmentView } from './view.ts';

/** What could be decided about a remark, and why; the student decides. */

export interface ProposedDecision {
  readonly decision: Decision | 'carry';
  readonly why:
    /** What the student confirmed that the author's sign means. */
    | { readonly kind: 'key'; readonly meaning: string }
    /** So many remarks by the same rule were all decided so. */
    | { readonly kind: 'rule'; readonly rule: string; readonly count: number }
    | { readonly kind: 'stance'; readonly stance: Stance; readonly sure: boolean };
}

type Known = Pick<AssignmentView, 'remarks' | 'judgements' | 'sayings' | 'markKeys'>;

/** What a remark calls for, by what it says; nothing follows from a plain note or from what points elsewhere. */
const BY_STANCE: Readonly<Partial<Record<Stance, Decision | 'carry'>>> = {
  'must-fix': 'act',
  fix: 'act',
  polish: 'act',
  question: 'act',
  praise: 'keep',
  advice: 'carry',
};
/** So many of a rule's remarks, all decided the same, tell how the student takes it. */
const RULE_TIMES = 2;

/** What could be decided: by the author's key, else as the same rule was decided, else by what it says. null for nothing. */
export function proposedDecision(known: Known, remark: Remark): ProposedDecision | null {
  const entry = entryFor(
    remark,
    known.markKeys.filter(({ author }) => author === remark.author.name),
  );
  if (entry !== null && entry.decision !== null)
    return { decision: entry.decision, why: { kind: 'key', meaning: entry.meaning } };
  const byRule = remark.rule === null ? null : decidedByRule(known, remark, remark.rule);
  if (byRule !== null) return byRule;
  const stance = stanceOf(remark.id, known);
  const decision = stance === null ? undefined : BY_STANCE[stance];
  if (stance === null || decision === undefined) return null;
  const sure = known.judgements.get(remark.id)?.stance != null || known.sayings.get(remark.id)?.sure === true;
  return { decision, why: { kind: 'stance', stance, sure } };
}

function decidedByRule(
  { remarks, judgements }: Known,
  { id }: Remark,
  rule: string,
): ProposedDecision | null {
  const decided = remarks.flatMap((one) =>
    one.rule === rule && one.id !== id ? (judgements.get(one.id)?.decision ?? []) : [],
  );
  const [decision] = decided;
  if (decided.length < RULE_TIMES || decided.some((one) => one !== decision)) return null;
  return { decision, why: { kind: 'rule', rule, count: decided.length } };
}

/** Undecided remarks that call for the same change as one: by the same rule, in the same words, or on the same theme. */
export function sameCalls(
  known: Pick<Known, 'remarks' | 'judgements' | 'sayings'>,
  remark: Remark,
): Remark[] {
  const others = known.remarks.filter(
    (one) => one.id !== remark.id && !isDecided(known.judgements.get(one.id)),
  );
  const alike = likenessOf([remark, ...others].map(stemsIn));
  const words = plain(remark.text);
  // Praise is often worded like the blame beside it.
  const calls = ({ id }: Remark) => CALLS_FOR_CHANGE.has(stanceOf(id, known) ?? 'note');
  return others.filter(
    (one, index) =>
      (remark.rule !== null && one.rule === remark.rule) ||
      (words !== '' && plain(one.text) === words) ||
      (alike(0, index + 1) >= THEME_LIKENESS && calls(remark) && calls(one)),
  );
}

/** Looked for anew with each remark that is shown, over all that are not decided. */
const stemsByRemark = new WeakMap<Remark, ReadonlySet<string>>();

function stemsIn(remark: Remark): ReadonlySet<string> {
  const known = stemsByRemark.get(remark);
  if (known !== undefined) return known;
  const stems = new Set(stemsOf(remark.text));
  stemsByRemark.set(remark, stems);
  return stems;
}

function plain(text: string): string {
  return text
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
}

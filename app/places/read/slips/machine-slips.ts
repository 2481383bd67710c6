import type { Remark } from '#core/model/remark.ts';

/** Remarks that have slips, and how many stand folded under the first of a rule. */
interface MachineSlips {
  readonly remarks: readonly Remark[];
  /** For the first of several by one rule: what it is folded under, how many there are, and whether they are. */
  readonly folds: ReadonlyMap<
    string,
    { readonly key: string; readonly count: number; readonly open: boolean }
  >;
}

/**
 * Which of some remarks have slips: those of a machine only where they are wanted, and of several by one rule the first
 * alone until they are unfolded. The one in focus always has one.
 */
export function machineSlips(
  remarks: readonly Remark[],
  wanted: boolean,
  unfolded: readonly string[],
  focusedId: string | null,
): MachineSlips {
  const byRule = new Map<string, Remark[]>();
  for (const remark of remarks) {
    const key = ruleKey(remark);
    if (key === null) continue;
    const own = byRule.get(key);
    if (own === undefined) byRule.set(key, [remark]);
    else own.push(remark);
  }
  const folds = new Map<string, { key: string; count: number; open: boolean }>();
  for (const [key, own] of byRule)
    if (own.length > 1) folds.set(own[0].id, { key, count: own.length, open: unfolded.includes(key) });
  const isShown = (remark: Remark) => {
    if (remark.id === focusedId || remark.author.role !== 'machine') return true;
    if (!wanted) return false;
    const key = ruleKey(remark);
    return key === null || unfolded.includes(key) || byRule.get(key)?.at(0) === remark;
  };
  return { remarks: remarks.filter(isShown), folds };
}

function ruleKey({ author, rule }: Remark): string | null {
  return author.role === 'machine' && rule !== null ? `rule ${author.name}/${rule}` : null;
}

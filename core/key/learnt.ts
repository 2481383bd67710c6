import type { Remark } from '../model/remark.ts';
import type { MarkKey, MarkSign, Stance } from '../model/work.ts';
import { abbreviationsOf } from '../saying/abbreviations.ts';
import { stanceOf, type Understood } from '../saying/saying-of.ts';
import { termOf } from '../terms/terms.ts';
import { shortStatementsIn, signMeant, statementsIn } from './statements.ts';
import { isSame, signsOf } from './signs.ts';

/** What a sign of a hand may mean; it goes into the key once the student confirms it. */
export interface ProposedKey {
  readonly sign: MarkSign;
  /** In the author's words, or in those of the trade; null where only the remarks tell. */
  readonly meaning: string | null;
  /** What remarks with it mostly say; null where they differ. */
  readonly stance: Stance | null;
  /** By what: the author says so, it is a term of the trade, or so remarks with it turn out. */
  readonly by: 'said' | 'term' | 'turned out';
  /** The remark that says so. */
  readonly saidBy: Remark | null;
  readonly remarks: readonly Remark[];
}

/** From so many remarks with a sign on, of which so large a part says the same, what they say is a habit. */
const LEAST = 3;
const MOSTLY = 2 / 3;

/** What is marked for this is well as it is. */
const PRAISE = /\b(?:good|well|strong|best|like[ds]?|praise|nice|works?|keep|great|right)\b/i;

/** What the remarks of one author say about the marks of that hand, and how remarks with a mark turn out. */
export function proposedKeys(
  remarks: readonly Remark[],
  understood: Understood,
  known: readonly MarkKey[],
): ProposedKey[] {
  const used = signsUsed(remarks);
  const found: ProposedKey[] = [];
  const add = (proposed: ProposedKey) => {
    const isKnown = known.some(({ sign }) => isSame(sign, proposed.sign));
    if (!isKnown && !found.some(({ sign }) => isSame(sign, proposed.sign))) found.push(proposed);
  };
  for (const { sign, meaning, saidBy } of statements(remarks, [...used.keys()].map(signIn))) {
    const own = used.get(keyOf(sign)) ?? [];
    if (own.length > 0)
      add({
        sign,
        meaning,
        stance: mostly(own, understood) ?? (PRAISE.test(meaning) ? 'praise' : 'fix'),
        by: 'said',
        saidBy,
        remarks: own,
      });
  }
  for (const { written, remarkIds } of abbreviationsOf(remarks)) {
    const name = written.replace(/[.:]$/, '').toLowerCase();
    const own = remarks.filter(({ id }) => remarkIds.includes(id));
    const meaning = termOf(name)?.meaning ?? null;
    const stance = mostly(own, understood);
    add({ sign: { kind: 'short', name }, meaning, stance, by: 'term', saidBy: null, remarks: own });
  }
  const colors = [...used.keys()].filter((key) => signIn(key).kind === 'color');
  for (const [key, own] of used) {
    const sign = signIn(key);
    const stance = mostly(own, understood);
    // One colour, or one kind of mark, tells nothing apart.
    if (sign.kind === 'short' || stance === null || own.length < LEAST) continue;
    if (sign.kind === 'color' && colors.length < 2) continue;
    if (sign.kind === 'mark' && own.length === remarks.length) continue;
    // Nor does what the hand's other remarks say too.
    if (
      stance ===
      mostly(
        remarks.filter((remark) => !own.includes(remark)),
        understood,
      )
    )
      continue;
    add({ sign, meaning: null, stance, by: 'turned out', saidBy: null, remarks: own });
  }
  return found;
}

const keyOf = ({ kind, name }: MarkSign) => `${kind} ${name}`;

function signIn(key: string): MarkSign {
  const at = key.indexOf(' ');
  return { kind: key.slice(0, at) as MarkSign['kind'], name: key.slice(at + 1) };
}

function signsUsed(remarks: readonly Remark[]): ReadonlyMap<string, readonly Remark[]> {
  const used = new Map<string, Remark[]>();
  for (const remark of remarks)
    for (const sign of signsOf(remark)) {
      const own = used.get(keyOf(sign));
      if (own === undefined) used.set(keyOf(sign), [remark]);
      else own.push(remark);
    }
  return used;
}

/** What most of some remarks with words say; null where they are few or differ. */
function mostly(remarks: readonly Remark[], understood: Understood): Stance | null {
  const said = remarks.flatMap(({ id, text }) => (text === '' ? [] : (stanceOf(id, understood) ?? [])));
  if (said.length < LEAST) return null;
  const count = new Map<Stance, number>();
  for (const stance of said) count.set(stance, (count.get(stance) ?? 0) + 1);
  const [best] = [...count].sort((x, y) => y[1] - x[1]);
  return best[1] >= MOSTLY * said.length ? best[0] : null;
}

/** What the author says that marks mean, for those that stand in the work. */
function statements(
  remarks: readonly Remark[],
  used: readonly MarkSign[],
): { sign: MarkSign; meaning: string; saidBy: Remark }[] {
  const colors = used.flatMap(({ kind, name }) => (kind === 'color' ? [name] : []));
  return remarks.flatMap((remark) => {
    const marks = statementsIn(remark.text).flatMap(({ word, meaning }) =>
      signMeant(word, colors).map((sign) => ({ sign, meaning, saidBy: remark })),
    );
    const shorts = shortStatementsIn(remark.text).map(({ name, meaning }) => ({
      sign: { kind: 'short' as const, name },
      meaning,
      saidBy: remark,
    }));
    return [...marks, ...shorts];
  });
}

/** The signs of one author that stand in some remarks, for choosing one by hand; the most used first. */
export function signsIn(remarks: readonly Remark[]): { readonly sign: MarkSign; readonly count: number }[] {
  return [...signsUsed(remarks)]
    .map(([key, own]) => ({ sign: signIn(key), count: own.length }))
    .sort((x, y) => y.count - x.count);
}

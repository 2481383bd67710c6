import { stances, type Stance } from '../model/work.ts';
import { wordKeysOf } from '../text/words.ts';
import { CALLS_FOR_CHANGE, withParts, type SaidPart, type Saying } from './saying.ts';

/** What a remark or a part of one was proposed to say, and what the student put in its place. */
export interface Correction {
  readonly text: string;
  readonly proposed: Stance;
  readonly stance: Stance;
}

/** What the corrections of one author's remarks teach: which stances they speak for and against, by sign. */
export interface Taught {
  readonly bySign: ReadonlyMap<string, ReadonlyMap<Stance, number>>;
}

/**
 * From so many corrections alike on they are a habit; fewer are chance. On voices left out, whose labels have no habits of a
 * student's in them, a habit from one correction on costs 1 in 100 remarks, from two on 1 in 1,000.
 */
const HABIT_FROM = 2;
/** What each correction of a habit adds, as the logarithm of a ratio of probabilities, and how many count at most. */
const EACH = 0.5;
const MOST = 4;
/** The same words said by the same hand say the same, nearly always. */
const SAME_WORDS = 4;

/** By what a remark is like one that was put right: the very same words; or what was proposed, and whether it asks. */
function signsOf(text: string, proposed: Stance): { readonly words: string; readonly habit: string } {
  return {
    words: `words ${wordKeysOf(text).join(' ') || text.trim()}`,
    habit: `${proposed}${/\?["”’')]*$/.test(text.trim()) ? '?' : ''}`,
  };
}

/** A function of the corrections alone, in whatever order they were made (computation.md 2). */
export function taughtBy(corrections: readonly Correction[]): Taught {
  const bySign = new Map<string, Map<Stance, number>>();
  for (const { text, proposed, stance } of corrections) {
    const signs = signsOf(text, proposed);
    for (const sign of [signs.words, signs.habit]) {
      const count = bySign.get(sign) ?? new Map<Stance, number>();
      bySign.set(sign, count);
      count.set(stance, (count.get(stance) ?? 0) + 1);
    }
  }
  return { bySign };
}

/** For each stance how many corrections speak for it, those that speak for others taken off. */
function netOf(count: ReadonlyMap<Stance, number> | undefined): [Stance, number][] {
  if (count === undefined) return [];
  const all = [...count.values()].reduce((x, y) => x + y, 0);
  return [...count].map(([stance, own]) => [stance, own - (all - own)]);
}

function shiftFor(part: SaidPart, text: string, { bySign }: Taught): ReadonlyMap<Stance, number> {
  const { words, habit } = signsOf(text, part.stance);
  const shift = new Map<Stance, number>();
  for (const [stance, net] of netOf(bySign.get(habit)))
    if (net >= HABIT_FROM) shift.set(stance, EACH * Math.min(net, MOST));
  for (const [stance, net] of netOf(bySign.get(words)))
    if (net > 0) shift.set(stance, (shift.get(stance) ?? 0) + SAME_WORDS);
  return shift;
}

/** A part as another stance, where its corrections make that one the likeliest; else as it was. */
function shifted(part: SaidPart, shift: ReadonlyMap<Stance, number>): SaidPart {
  const raised = stances.map((stance) => part.likely[stance] * Math.exp(shift.get(stance) ?? 0));
  const best = raised.indexOf(Math.max(...raised));
  const stance = stances[best];
  if (!shift.has(stance) || stance === part.stance) return part;
  const all = raised.reduce((x, y) => x + y, 0);
  const likely = Object.fromEntries(stances.map((one, i) => [one, raised[i] / all])) as Record<
    Stance,
    number
  >;
  return { ...part, likely, stance, callsForChange: CALLS_FOR_CHANGE.has(stance) };
}

/**
 * What a remark is proposed to say once the student put others of its author right; the same where that changes nothing.
 * What it changes is never sure.
 */
export function asTaught(saying: Saying, text: string, taught: Taught): Saying {
  if (taught.bySign.size === 0) return saying;
  let times = 0;
  const parts = saying.parts.map((part) => {
    const said = text.slice(part.from, part.to);
    const next = shifted(part, shiftFor(part, said, taught));
    if (next === part) return part;
    const { words, habit } = signsOf(said, part.stance);
    for (const sign of [words, habit])
      times = Math.max(times, taught.bySign.get(sign)?.get(next.stance) ?? 0);
    return next;
  });
  if (times === 0) return saying;
  return { ...withParts(saying, text, parts), sure: false, because: { kind: 'put right', times } };
}

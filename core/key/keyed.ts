import { stances, type MarkKey, type Stance } from '../model/work.ts';
import type { Remark } from '../model/remark.ts';
import { CALLS_FOR_CHANGE, withParts, type SaidPart, type Saying } from '../saying/saying.ts';
import { shortMarkIn } from '../saying/abbreviations.ts';
import { entryFor } from './signs.ts';

/** How much the key speaks for its stance beside a remark's own words, as the logarithm of a ratio of probabilities. */
const BESIDE_WORDS = 1;
/** What an abbreviation means is nearly all that is said by it. */
const FOR_ABBREVIATION = 5;
/**
 * What a remark says by its author's key: a mark without words says what the key has for it; one with words leans to it.
 * The same where the key has nothing for it.
 */
export function asKeyed(saying: Saying, remark: Remark, key: readonly MarkKey[]): Saying {
  const entry = entryFor(remark, key);
  if (entry === null) return saying;
  const because = { kind: 'key' as const, meaning: entry.meaning };
  if (remark.text === '') return remark.change === null ? markKeyed(saying, entry) : saying;
  const { stance } = entry;
  if (stance === null) return saying;
  const isShort = entry.sign.kind === 'short';
  const isAll = isShort && shortMarkIn(remark.text) === remark.text.trim().replace(/[.:]$/, '').toLowerCase();
  const lean = isShort ? FOR_ABBREVIATION : BESIDE_WORDS;
  const parts = saying.parts.map((part, i) => (isShort && i > 0 ? part : leaning(part, stance, lean)));
  const whole = withParts(saying, remark.text, parts);
  const changed = parts.some((part, i) => part !== saying.parts[i]);
  if (!changed && !isAll) return saying;
  return { ...whole, sure: isAll || saying.sure, because };
}

function markKeyed(saying: Saying, entry: MarkKey): Saying {
  const stance = entry.stance ?? 'question';
  return {
    ...saying,
    stance,
    callsForChange: CALLS_FOR_CHANGE.has(stance),
    because: { kind: 'key', meaning: entry.meaning },
  };
}

function leaning(part: SaidPart, toward: Stance, lean: number): SaidPart {
  const raised = stances.map((stance) => part.likely[stance] * (stance === toward ? Math.exp(lean) : 1));
  const all = raised.reduce((x, y) => x + y, 0);
  if (stances[raised.indexOf(Math.max(...raised))] !== toward || part.stance === toward) return part;
  const likely = Object.fromEntries(stances.map((one, i) => [one, raised[i] / all])) as Record<
    Stance,
    number
  >;
  return { ...part, likely, stance: toward, callsForChange: CALLS_FOR_CHANGE.has(toward) };
}

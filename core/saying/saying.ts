import type { PromisePlace } from '../model/promises.ts';
import type { Change } from '../model/remark.ts';
import { stances, type Stance } from '../model/work.ts';
import type { Span } from '../text/span.ts';

/** Goes up whenever the same model comes to say something else: what was kept of it is worked out anew. */
export const SAYS_VERSION = 4;

/** One thing that a remark says. */
export interface SaidPart extends Span {
  readonly stance: Stance;
  readonly callsForChange: boolean;
  /** How likely each stance is. */
  readonly likely: Readonly<Record<Stance, number>>;
  readonly promise: PromisePlace | null;
  /** How likely it promises more feedback anywhere. */
  readonly promising: number;
}

/** What a remark says, as a model sees it: a proposal, which the student corrects. */
export interface Saying {
  /** That of its weightiest part. */
  readonly stance: Stance;
  /** How likely that is, 0 to 1. */
  readonly confidence: number;
  readonly sure: boolean;
  readonly callsForChange: boolean;
  /** The words that are a hint for next time, whatever else the remark says; null where there are none. */
  readonly hint: string | null;
  /** Where it says that more feedback is; null where it doesn't. */
  readonly promise: PromisePlace | null;
  /** The sentence that says so. */
  readonly promiseSaid: string | null;
  /** Points that it says were lost; null where it names none. */
  readonly points: number | null;
  readonly parts: readonly SaidPart[];
  /** Which model says so. */
  readonly model: string;
  /** What else than the words it goes by; null: nothing. */
  readonly because: Because | null;
}

/** Why something else is proposed than the words alone say. */
type Because =
  /** The student put right so many of the author's remarks that are like it. */
  | { readonly kind: 'put right'; readonly times: number }
  /** The author's key: what the student confirmed that a colour, a kind of mark or an abbreviation means. */
  | { readonly kind: 'key'; readonly meaning: string };

/** What parts weigh against one another, weightiest first: what is to be changed before what is well. */
export const WEIGHTIEST: readonly Stance[] = [
  'must-fix',
  'fix',
  'question',
  'polish',
  'advice',
  'pointer',
  'praise',
  'note',
];
/** Stances of what calls for a change. */
export const CALLS_FOR_CHANGE: ReadonlySet<Stance> = new Set(['must-fix', 'fix', 'polish']);

/** What a remark says is told from these alone. */
export interface Said {
  readonly text: string;
  readonly kind: string;
  readonly change: Change | null;
}

/** What parts make of the whole: the weightiest tells. */
export function toldBy(
  text: string,
  parts: readonly SaidPart[],
): Pick<Saying, 'stance' | 'confidence' | 'callsForChange' | 'hint'> {
  const stance = WEIGHTIEST.find((one) => parts.some((part) => part.stance === one)) ?? 'note';
  const hint = parts.find((part) => part.stance === 'advice');
  return {
    stance,
    confidence: Math.max(
      ...parts.filter((part) => part.stance === stance).map(({ likely }) => likely[stance]),
    ),
    callsForChange: parts.some((part) => part.callsForChange),
    hint: hint === undefined ? null : text.slice(hint.from, hint.to),
  };
}

/** The same remark with its parts seen otherwise; it is as sure as it was. */
export function withParts(saying: Saying, text: string, parts: readonly SaidPart[]): Saying {
  return { ...saying, ...toldBy(text, parts), parts, because: null };
}

/** The same remark as one thing, whose stance is known by something else than its words. */
export function asStance(saying: Saying, text: string, stance: Stance): Saying {
  const likely = Object.fromEntries(stances.map((one) => [one, Number(one === stance)])) as unknown as Record<
    Stance,
    number
  >;
  const whole: SaidPart = {
    from: 0,
    to: text.length,
    stance,
    callsForChange: CALLS_FOR_CHANGE.has(stance),
    likely,
    promise: null,
    promising: 0,
  };
  return { ...withParts(saying, text, [whole]), promise: null, promiseSaid: null, sure: true };
}

import type { Channel } from '../model/channels.ts';
import type { PartId } from '../model/ids.ts';
import type { Remark } from '../model/remark.ts';
import type { Decision, JudgedPart, RemarkRef, Stance } from '../model/work.ts';
import type { Span } from '../text/span.ts';
import { eachWordSpan } from '../text/word-spans.ts';
import { CALLS_FOR_CHANGE } from './saying.ts';
import { partsApart, stanceOf, type Understood } from './saying-of.ts';

/** A part of a remark as it is shown and decided about. */
export interface RemarkPart extends Span {
  /** null: derived from the text, and nothing was made of it yet. */
  readonly id: PartId | null;
  readonly said: Stance;
  /** The student's word, else `said`. */
  readonly stance: Stance;
  readonly corrected: boolean;
  readonly decision: Decision | null;
  readonly carry: boolean;
  readonly note: string;
  readonly reply: string;
}

/**
 * The parts of a remark: as the student left them, else as they are derived where they say different things; none where it
 * is one thing. A part whose words the school took out of the remark is left out.
 */
export function partsOf(
  { id, text }: Pick<Remark, 'id' | 'text'>,
  understood: Understood,
): readonly RemarkPart[] {
  const stored = understood.judgements.get(id)?.parts ?? [];
  if (stored.length > 0) return stored.flatMap((part) => placed(part, text) ?? []);
  return partsApart(id, understood).map(({ from, to, stance }) => ({
    id: null,
    from,
    to,
    said: stance,
    stance,
    corrected: false,
    decision: null,
    carry: false,
    note: '',
    reply: '',
  }));
}

/** Where a part stands in the remark as it reads now. */
function placed(part: JudgedPart, text: string): RemarkPart | null {
  const { id, quote, said, stance, decision, carry, note, reply } = part;
  const from = text.startsWith(quote, part.from) ? part.from : text.indexOf(quote);
  if (from < 0) return null;
  const to = from + quote.length;
  return {
    id,
    from,
    to,
    said,
    stance: stance ?? said,
    corrected: stance !== null,
    decision,
    carry,
    note,
    reply,
  };
}

/** Whether something that is about remarks or parts is about this remark, or about just this part of it. */
export function isAbout(refs: readonly RemarkRef[], remarkId: string, partId?: PartId | null): boolean {
  return refs.some((ref) => ref.remarkId === remarkId && (partId === undefined || ref.partId === partId));
}

/** A part begins before the word at `at`: the part that it stands in becomes two, of which the first stays what it was. */
export function splitAt(
  parts: readonly JudgedPart[],
  text: string,
  at: number,
  made: { readonly id: PartId; readonly before: Stance; readonly after: Stance },
): readonly JudgedPart[] {
  return parts.flatMap((part) => {
    if (at <= part.from || at >= part.to) return [part];
    const to = part.from + text.slice(part.from, at).trimEnd().length;
    const first = { ...part, to, quote: text.slice(part.from, to), said: made.before };
    const rest = { ...nothingMade, id: made.id, from: at, to: part.to, said: made.after };
    return [first, { ...rest, quote: text.slice(at, part.to) }];
  });
}

/** The part that begins at `at` and the one before it become one, which keeps what was made of either. */
export function joinAt(
  parts: readonly JudgedPart[],
  text: string,
  at: number,
  said: Stance,
): readonly JudgedPart[] {
  const index = parts.findIndex(({ from }) => from === at);
  if (index < 1) return parts;
  const [first, second] = [parts[index - 1], parts[index]];
  const one: JudgedPart = {
    ...first,
    to: second.to,
    quote: text.slice(first.from, second.to),
    said,
    stance: first.stance ?? second.stance,
    decision: first.decision ?? second.decision,
    carry: first.carry || second.carry,
    note: both(first.note, second.note),
    reply: both(first.reply, second.reply),
  };
  return [...parts.slice(0, index - 1), one, ...parts.slice(index + 1)];
}

const nothingMade = { stance: null, decision: null, carry: false, note: '', reply: '' } as const;

/** Parts as they are derived, to be kept from now on; one for the whole where there are none. */
export function partsToKeep(
  text: string,
  derived: readonly RemarkPart[],
  whole: Stance,
  newId: () => PartId,
): readonly JudgedPart[] {
  const spans = derived.length > 0 ? derived : [{ from: 0, to: text.length, said: whole }];
  return spans.map(({ from, to, said }) => ({
    ...nothingMade,
    id: newId(),
    from,
    to,
    quote: text.slice(from, to),
    said,
  }));
}

function both(x: string, y: string): string {
  return [x, y].filter((text) => text.trim() !== '').join('\n');
}

/** Opening marks go with the word that they open. */
const OPENING = /[“"‘'([«¿¡]/;

/** The words of a remark with what follows each: a part may begin at any of them. */
export function cuttableWords(text: string): Span[] {
  const starts: number[] = [];
  eachWordSpan(text, (from) => {
    let start = from;
    while (start > 0 && OPENING.test(text.charAt(start - 1))) start--;
    starts.push(start);
  });
  return starts.map((from, index) => ({
    from: index === 0 ? 0 : from,
    to: index + 1 < starts.length ? starts[index + 1] : text.length,
  }));
}

/**
 * Parts in the order in which they are shown, each with its number in the text: what calls for a change first. What was spoken
 * stays as it was said: out of its order it can't be followed.
 */
export function inOrderShown(
  parts: readonly RemarkPart[],
  channel: Channel,
): readonly (RemarkPart & { readonly number: number })[] {
  const numbered = parts.map((part, index) => ({ ...part, number: index + 1 }));
  if (channel === 'recording') return numbered;
  const calls = numbered.filter(({ stance }) => CALLS_FOR_CHANGE.has(stance));
  return [...calls, ...numbered.filter((part) => !calls.includes(part))];
}

/** What a remark says: of several things each kind once; nothing while it isn't known. */
export function stancesIn(remark: Pick<Remark, 'id' | 'text'>, understood: Understood): Stance[] {
  const parts = partsOf(remark, understood);
  if (parts.length > 0) return [...new Set(parts.map(({ stance }) => stance))];
  const whole = stanceOf(remark.id, understood);
  return whole === null ? [] : [whole];
}

/** The pieces of a remark that come of letting a part begin at `at`, or of joining the one that does: two, or one. */
export function piecesAt(text: string, parts: readonly Span[], at: number): string[] {
  const before = parts.findLast(({ from }) => from < at);
  const own = parts.find(({ from }) => from === at);
  const start = before?.from ?? 0;
  if (own !== undefined) return [text.slice(start, own.to)];
  return [text.slice(start, at), text.slice(at, before?.to ?? text.length)];
}

import type { Relation, Switch } from '../model/source.ts';
import { wordRange, type Words } from '../text/words.ts';
import type { Span } from '../text/span.ts';

/** What of a match bears on the count. */
export interface CountableMatch {
  readonly source: number;
  /** Words of the draft, from one up to another. */
  readonly draftFrom: number;
  readonly draftTo: number;
  /** The student doesn't count it, with a reason. */
  readonly isSetAside: boolean;
}

/** A source, as it is counted. */
export interface CountableSource {
  /** Tells ties apart. */
  readonly id: string;
  readonly relation: Relation;
  readonly isSetAside: boolean;
}

/** How it is counted. */
export interface Counting {
  /** Matches of fewer words are left out. */
  readonly least: number;
  readonly without: ReadonlySet<Switch>;
}

/** As a count begins: all is counted but for the brief and one's own earlier work. */
export const usualCounting: Counting = { least: 8, without: new Set<Switch>(['brief', 'own']) };

const QUOTED = 1;
const REFERENCES = 2;
const BRIEF = 4;

/** Which words of a draft are quoted, and which are in its list of references. */
export function wordsLeftOut(words: Words, quoted: readonly Span[], references: Span | null): Uint8Array {
  const mask = new Uint8Array(words.ids.length);
  const mark = (span: Span, bit: number) => {
    const { from, to } = wordRange(words, span.from, span.to);
    for (let i = from; i < to; i++) mask[i] |= bit;
  };
  for (const span of quoted) mark(span, QUOTED);
  if (references !== null) mark(references, REFERENCES);
  return mask;
}

/** The order in which words are credited: the longest match first, ties by the source's id. */
export function inOrderOfCredit<Match extends CountableMatch>(
  matches: readonly Match[],
  sources: readonly CountableSource[],
): Match[] {
  return matches.toSorted(
    (x, y) =>
      y.draftTo - y.draftFrom - (x.draftTo - x.draftFrom) ||
      compared(sources[x.source].id, sources[y.source].id) ||
      x.draftFrom - y.draftFrom,
  );
}

const compared = (x: string, y: string) => (x < y ? -1 : x > y ? 1 : 0);

/** How many words of a draft are in a match that counts, and to which source each is credited. */
export interface Shares {
  /** All words of the draft: what nothing that is left out changes. */
  readonly words: number;
  readonly matched: number;
  /** By source; they add up to `matched`. */
  readonly bySource: readonly number[];
}

/**
 * Shares of a draft, of matches that were found before. A word counts once, and is credited to one source. What is left
 * out lowers `matched` and never `words`: the brief's words count for nobody, those of one's own earlier work for others.
 * @param words of the draft
 * @param mask of the draft's words (wordsLeftOut)
 * @param matches in order of credit
 */
export function sharesOf(
  words: number,
  mask: Uint8Array,
  matches: readonly CountableMatch[],
  sources: readonly CountableSource[],
  counting: Counting,
): Shares {
  const { least, without } = counting;
  let out = (without.has('quoted') ? QUOTED : 0) | (without.has('references') ? REFERENCES : 0);
  let masked = mask;
  if (without.has('brief')) {
    const ofBrief = matches.filter(
      ({ source, draftFrom, draftTo }) =>
        sources[source].relation === 'brief' && draftTo - draftFrom >= least,
    );
    if (ofBrief.length > 0) {
      masked = mask.slice();
      out |= BRIEF;
      for (const { draftFrom, draftTo } of ofBrief)
        for (let i = draftFrom; i < draftTo; i++) masked[i] |= BRIEF;
    }
  }
  const isCredited = new Uint8Array(words);
  const bySource = sources.map(() => 0);
  let matched = 0;
  for (const { source, draftFrom, draftTo, isSetAside } of matches) {
    const { relation, isSetAside: isSourceAside } = sources[source];
    if (isSetAside || isSourceAside || draftTo - draftFrom < least) continue;
    if (relation === 'own' && without.has('own')) continue;
    for (let i = draftFrom; i < draftTo; i++) {
      if (isCredited[i] !== 0 || (masked[i] & out) !== 0) continue;
      isCredited[i] = 1;
      bySource[source]++;
      matched++;
    }
  }
  return { words, matched, bySource };
}

/** The counting with a switch turned. */
export function turned({ least, without }: Counting, which: Switch): Counting {
  const others = new Set(without);
  if (!others.delete(which)) others.add(which);
  return { least, without: others };
}

/** Words in a hundred, to one decimal, half up; 0 for a draft without words. */
export function percentOf(matched: number, words: number): number {
  return words === 0 ? 0 : Math.round((matched * 1000) / words) / 10;
}

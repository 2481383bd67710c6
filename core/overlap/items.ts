import type { Switch } from '../model/source.ts';
import type { Paper } from '../paper/paper.ts';
import { firstFrom } from '../text/ascending.ts';
import type { Span } from '../text/span.ts';
import type { Match, Overlap } from './compare-sources.ts';
import type { ComparedSource } from './known-sources.ts';
import {
  inOrderOfCredit,
  percentOf,
  sharesOf,
  turned,
  type CountableMatch,
  type Counting,
  type CountableSource,
} from './shares.ts';

/** A match of a draft as it is shown: known again, whatever stands before it, by its source and its place there. */
export interface ShownMatch extends Match {
  readonly id: string;
  /** A, B, ... Z, AA ... in the order of the draft. */
  readonly letter: string;
  readonly sourceId: string;
}

/** The letters of a place in an order, from 0. */
export function letterOf(index: number): string {
  const last = String.fromCharCode(65 + (index % 26));
  return index < 26 ? last : letterOf(Math.floor(index / 26) - 1) + last;
}

/** Matches with their letters; those with an earlier attempt have none, and are only counted. */
export function shownMatches({ matches }: Overlap, sources: readonly ComparedSource[]): ShownMatch[] {
  let count = 0;
  return matches.map((match) => {
    const { id: sourceId, isAttempt } = sources[match.source];
    const letter = isAttempt ? '' : letterOf(count++);
    return { ...match, id: `${sourceId}/${match.sourceFrom}`, letter, sourceId };
  });
}

/** Those that call for something. */
export const withLetters = (matches: readonly ShownMatch[]): ShownMatch[] =>
  matches.filter(({ letter }) => letter !== '');

/** Figures of an overlap as they are counted, and what each switch does to them. */
export interface Figures {
  readonly words: number;
  readonly matched: number;
  readonly percent: number;
  /** With all left in: neither switch nor anything set aside. */
  readonly all: { readonly matched: number; readonly percent: number };
  /** By source, as credited. */
  readonly bySource: readonly number[];
  /** What turning each switch on takes off, or has taken off. */
  readonly effects: Readonly<Record<Switch, number>>;
}

/** @param aside ids of sources and matches that the student sets aside */
export function figuresOf(
  { words, mask }: Overlap,
  shown: readonly ShownMatch[],
  sources: readonly ComparedSource[],
  counting: Counting,
  aside: ReadonlySet<string>,
): Figures {
  const ofSources = (isSetAside: (id: string) => boolean): CountableSource[] =>
    sources.map(({ id, work }) => ({ id, relation: work.relation, isSetAside: isSetAside(id) }));
  const ofMatches = (isSetAside: (id: string) => boolean, from: readonly CountableSource[]) =>
    inOrderOfCredit(
      shown.map((match): CountableMatch => ({ ...match, isSetAside: isSetAside(match.id) })),
      from,
    );
  const countable = ofSources((id) => aside.has(id));
  const matches = ofMatches((id) => aside.has(id), countable);
  const shares = (by: Counting) => sharesOf(words, mask, matches, countable, by);
  const { matched, bySource } = shares(counting);
  const effectOf = (which: Switch) => Math.abs(shares(turned(counting, which)).matched - matched);
  const nothingOut = ofSources(() => false);
  const all = sharesOf(
    words,
    mask,
    ofMatches(() => false, nothingOut),
    nothingOut,
    {
      ...counting,
      without: new Set(),
    },
  ).matched;
  return {
    words,
    matched,
    percent: percentOf(matched, words),
    all: { matched: all, percent: percentOf(all, words) },
    bySource,
    effects: {
      quoted: effectOf('quoted'),
      references: effectOf('references'),
      brief: effectOf('brief'),
      own: effectOf('own'),
    },
  };
}

/** Half of a match in another one of the same source: it is the same, changed. */
const SAME_SHARE = 0.5;

/** What a newer draft's matches are beside an older one's: those that came in, and those that are gone. */
export function changedMatches(
  older: readonly ShownMatch[],
  newer: readonly ShownMatch[],
): { readonly fresh: ReadonlySet<string>; readonly gone: readonly ShownMatch[] } {
  const isIn = (match: ShownMatch, others: readonly ShownMatch[]) =>
    others.some(
      (other) =>
        other.sourceId === match.sourceId &&
        Math.min(other.sourceTo, match.sourceTo) - Math.max(other.sourceFrom, match.sourceFrom) >=
          SAME_SHARE * Math.min(match.sourceTo - match.sourceFrom, other.sourceTo - other.sourceFrom),
    );
  return {
    fresh: new Set(newer.filter((match) => !isIn(match, older)).map(({ id }) => id)),
    gone: older.filter((match) => !isIn(match, newer)),
  };
}

/** A stretch of a paragraph, and the matches that it is in. */
export interface MarkedPiece {
  /** Where it begins in the text. */
  readonly from: number;
  readonly text: string;
  readonly in: readonly ShownMatch[];
}

/** A paragraph in stretches at whose ends matches begin or end. @param matches in the order of the text */
export function markedPieces(text: string, span: Span, matches: readonly ShownMatch[]): MarkedPiece[] {
  const here = matches.filter(({ place }) => place.from < span.to && place.to > span.from);
  const cuts = new Set([span.from, span.to]);
  for (const { place } of here) {
    if (place.from > span.from) cuts.add(place.from);
    if (place.to < span.to) cuts.add(place.to);
  }
  const ordered = [...cuts].sort((x, y) => x - y);
  return ordered.slice(0, -1).map((from, i) => {
    const to = ordered[i + 1];
    return {
      from,
      text: text.slice(from, to),
      in: here.filter(({ place }) => place.from < to && place.to > from),
    };
  });
}

/** For each paragraph the matches that have words in it. @param matches in the order of the text */
export function matchesByBlock({ blocks, starts }: Paper, matches: readonly ShownMatch[]): ShownMatch[][] {
  const found: ShownMatch[][] = blocks.map(() => []);
  for (const match of matches) {
    const first = Math.max(0, firstFrom(starts, match.place.from + 1) - 1);
    for (let block = first; block < blocks.length && starts[block] < match.place.to; block++)
      found[block].push(match);
  }
  return found;
}

import { bucketOf, mayHold, runHash, sourceAt, type SourceIndex } from './source-index.ts';

/** A passage of a draft and one of a source that share most of their words; places count words, from 0. */
export interface WordMatch {
  /** The number of the source in its index. */
  readonly source: number;
  readonly draftFrom: number;
  readonly draftTo: number;
  /** In the source itself. */
  readonly sourceFrom: number;
  readonly sourceTo: number;
  /** Words that are the same on both sides, in order. */
  readonly equal: number;
}

/** What of a draft is looked up: words from `from` up to `to`. What is found there may reach beyond. */
interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** A run that stands more often than this is looked up only where no run beside it is rarer. */
const OFTEN = 24;
/** The most places of one run that are looked at, against sources that repeat themselves. */
const MOST_PLACES = 2000;
/** The most words left out, put in or replaced between two runs of one match. */
const WIDEST_GAP = 4;
/** One equal word behind a gap is chance. */
const LEAST_RUN = 2;
/** A match goes on over worse places as long as it hasn't lost more than this on the way. */
const MOST_LOST = 10;
/** What a word that differs costs in equal ones while a match is made longer: two behind a gap of one are worth it. */
const GAP_COST = 1.5;
/** The least share of equal words (computation.md 5). */
const LEAST_IDENTITY = 0.8;
/** A run behind a gap tells no more by being longer. */
const LONG_RUN = 16;

/** Equal words in one piece. */
interface Run {
  readonly draft: number;
  /** In the index's words. */
  readonly place: number;
  readonly length: number;
  /** Words that differ between the run before and this, on the side where they are more. */
  readonly gap: number;
  /** Equal words within that gap, one for one. */
  readonly within: number;
}

/** The share of words that are equal, of the longer side; 0 to 1. */
export function identityOf({ draftFrom, draftTo, sourceFrom, sourceTo, equal }: WordMatch): number {
  return equal / Math.max(draftTo - draftFrom, sourceTo - sourceFrom);
}

/**
 * Every passage of a draft that a source has too: runs of equal words, found by hashes and made longer on both sides over
 * small differences, at least 80 % equal (seed and extend, as of Altschul et al., 1990, on words). All that stands word for
 * word in a source and has `least` words or more is found.
 * @param draft its words as hashes (hashedWordsOf)
 * @param least words of a match on the draft's side, at least the index's run
 * @param stretch only where a run begins in it is looked up
 * @returns by place in the draft, the longer first
 */
export function findMatches(
  index: SourceIndex,
  draft: Int32Array,
  least: number,
  stretch: Stretch = { from: 0, to: draft.length },
): WordMatch[] {
  const { run, words, buckets, places, filter } = index;
  const from = Math.max(0, stretch.from);
  const to = Math.min(stretch.to, draft.length - run + 1);
  if (to <= from) return [];
  // How many places there may be of each run, and its bucket.
  const counts = new Int32Array(to - from);
  const bucketAt = new Uint32Array(to - from);
  for (let i = from; i < to; i++) {
    const hash = runHash(draft, i, run);
    if (!mayHold(filter, hash)) continue;
    const bucket = bucketOf(index, hash);
    bucketAt[i - from] = bucket;
    counts[i - from] = buckets[bucket + 1] - buckets[bucket];
  }
  const isRarest = rarestOf(counts, Math.max(1, least - run + 1));
  // For each diagonal (place less place) how far in the draft it is known.
  const known = new Map<number, number>();
  const found: WordMatch[] = [];
  for (let i = from; i < to; i++) {
    const count = counts[i - from];
    if (count === 0 || (count > OFTEN && !isRarest(i - from))) continue;
    const first = buckets[bucketAt[i - from]];
    const last = first + Math.min(count, MOST_PLACES);
    for (let at = first; at < last; at++) {
      const place = places[at];
      if ((known.get(place - i) ?? 0) >= i + run) continue;
      let same = 0;
      while (same < run && words[place + same] === draft[i + same]) same++;
      if (same < run) continue;
      const runs = cutToIdentity(lengthened(words, draft, i, place, run));
      for (const one of runs) {
        const end = one.draft + one.length;
        if ((known.get(one.place - one.draft) ?? 0) < end) known.set(one.place - one.draft, end);
      }
      const match = matchOf(index, runs);
      if (match.draftTo - match.draftFrom >= least && identityOf(match) >= LEAST_IDENTITY) found.push(match);
    }
  }
  return withoutContained(found);
}

/** Tells whether a run is the rarest of some so many neighbours that all stand in a source, by their counts. */
function rarestOf(counts: Int32Array, neighbours: number): (at: number) => boolean {
  return (at) => {
    for (let first = Math.max(0, at - neighbours + 1); first <= at; first++) {
      const end = first + neighbours;
      if (end > counts.length) return true;
      let i = first;
      while (i < end && counts[i] !== 0 && (i < at ? counts[i] > counts[at] : counts[i] >= counts[at])) i++;
      if (i === end) return true;
    }
    return false;
  };
}

/** A run made as long as it goes, and what follows on both sides over small gaps, in order. */
function lengthened(
  words: Int32Array,
  draft: Int32Array,
  draftAt: number,
  placeAt: number,
  run: number,
): Run[] {
  let first = draftAt;
  let place = placeAt;
  while (first > 0 && draft[first - 1] === words[place - 1]) {
    first--;
    place--;
  }
  let end = draftAt + run;
  while (end < draft.length && draft[end] === words[placeAt + end - draftAt]) end++;
  const seed: Run = { draft: first, place, length: end - first, gap: 0, within: 0 };
  const behind = runsFrom(seed, (last) =>
    nextRun(words, draft, last.draft + last.length, last.place + last.length, 1),
  );
  const before = runsFrom(seed, (last) => nextRun(words, draft, last.draft - 1, last.place - 1, -1));
  if (before.length === 0) return [seed, ...behind];
  // A gap is told by the run behind it.
  const all = [...before.toReversed(), seed, ...behind];
  return all.map((one, i) => {
    if (i === 0) return { ...one, gap: 0, within: 0 };
    if (i > before.length) return one;
    const { gap, within } = before[before.length - i];
    return { ...one, gap, within };
  });
}

/** The runs that follow one another from a run on, as far as they gain more than the gaps between them cost. */
function runsFrom(seed: Run, next: (last: Run) => Run | null): Run[] {
  const runs: Run[] = [];
  let gained = 0;
  let most = 0;
  let kept = 0;
  for (let run = next(seed); run !== null; run = next(run)) {
    runs.push(run);
    gained += gainOf(run.length, run.gap, run.within);
    if (gained > most) {
      most = gained;
      kept = runs.length;
    } else if (gained < most - MOST_LOST) break;
  }
  return runs.slice(0, kept);
}

/** What a run behind a gap is worth. */
function gainOf(length: number, gap: number, within: number): number {
  return Math.min(length, LONG_RUN) + within - GAP_COST * (gap - within);
}

/** The run behind the gap that costs least, from the first words that differ on, forwards (1) or backwards (-1). */
function nextRun(
  words: Int32Array,
  draft: Int32Array,
  draftAt: number,
  placeAt: number,
  step: 1 | -1,
): Run | null {
  let best: Run | null = null;
  let bestGain = -Infinity;
  for (let skip = 0; skip <= WIDEST_GAP; skip++) {
    const i = draftAt + step * skip;
    if (i < 0 || i >= draft.length) break;
    for (let jump = skip === 0 ? 1 : 0; jump <= WIDEST_GAP; jump++) {
      const place = placeAt + step * jump;
      // Over the end of its source no match goes.
      if (jump > 0 && words[place - step] === 0) break;
      if (draft[i] !== words[place]) continue;
      let length = 1;
      for (
        let next = i + step;
        next >= 0 && next < draft.length && draft[next] === words[place + step * length];
        next += step
      )
        length++;
      if (length < LEAST_RUN) continue;
      const gap = Math.max(skip, jump);
      const within = skip === jump ? equalWithin(words, draft, draftAt, placeAt, step, gap) : 0;
      const gain = gainOf(length, gap, within);
      if (gain <= bestGain) continue;
      bestGain = gain;
      best =
        step === 1
          ? { draft: i, place, length, gap, within }
          : { draft: i - length + 1, place: place - length + 1, length, gap, within };
    }
  }
  return best;
}

function equalWithin(
  words: Int32Array,
  draft: Int32Array,
  draftAt: number,
  placeAt: number,
  step: number,
  gap: number,
): number {
  let equal = 0;
  for (let into = 0; into < gap; into++)
    if (draft[draftAt + step * into] === words[placeAt + step * into]) equal++;
  return equal;
}

/** The longest row of runs, one behind another, with words enough that are equal. */
function cutToIdentity(runs: Run[]): Run[] {
  let best = runs.slice(0, 1);
  let longest = 0;
  for (let from = 0; from < runs.length; from++) {
    if (lengthOf(runs, from, runs.length) <= longest) break;
    let equal = 0;
    let differing = 0;
    for (let to = from; to < runs.length; to++) {
      const { length, gap, within } = runs[to];
      equal += length + (to > from ? within : 0);
      differing += to > from ? gap - within : 0;
      if (equal < LEAST_IDENTITY * (equal + differing)) continue;
      const words = lengthOf(runs, from, to + 1);
      if (words <= longest) continue;
      longest = words;
      best = runs.slice(from, to + 1);
    }
  }
  return best;
}

/** Words of the draft from one run up to another. */
function lengthOf(runs: readonly Run[], from: number, to: number): number {
  const last = runs[to - 1];
  return last.draft + last.length - runs[from].draft;
}

function matchOf(index: SourceIndex, runs: readonly Run[]): WordMatch {
  const first = runs[0];
  const last = runs[runs.length - 1];
  const source = sourceAt(index, first.place);
  const start = index.starts[source];
  return {
    source,
    draftFrom: first.draft,
    draftTo: last.draft + last.length,
    sourceFrom: first.place - start,
    sourceTo: last.place + last.length - start,
    equal: runs.reduce((sum, run, i) => sum + run.length + (i === 0 ? 0 : run.within), 0),
  };
}

/** In order, and without those that lie in a longer one of the same source. */
function withoutContained(found: readonly WordMatch[]): WordMatch[] {
  const inOrder = found.toSorted(
    (x, y) => x.draftFrom - y.draftFrom || y.draftTo - x.draftTo || x.source - y.source || y.equal - x.equal,
  );
  const reached = new Map<number, number>();
  return inOrder.filter(({ source, draftTo }) => {
    if ((reached.get(source) ?? -1) >= draftTo) return false;
    reached.set(source, draftTo);
    return true;
  });
}

/**
 * The matches of a draft that was changed in one stretch, of those it had before: only what touches the change is looked up.
 * @param before the draft's words, and its matches by `findMatches` with the same index and `least`
 */
export function findMatchesAgain(
  index: SourceIndex,
  before: { readonly draft: Int32Array; readonly matches: readonly WordMatch[] },
  draft: Int32Array,
  least: number,
): WordMatch[] {
  const old = before.draft;
  const shorter = Math.min(old.length, draft.length);
  let start = 0;
  while (start < shorter && old[start] === draft[start]) start++;
  let end = 0;
  while (end < shorter - start && old[old.length - 1 - end] === draft[draft.length - 1 - end]) end++;
  if (start === old.length && start === draft.length) return [...before.matches];
  const shift = draft.length - old.length;
  // A run behind the widest gap tells whether a match goes on, and another edit may lie behind that.
  const margin = 2 * (WIDEST_GAP + LONG_RUN) + least;
  let from = start - margin;
  let to = old.length - end + margin;
  const touches = (match: WordMatch) => match.draftTo > from && match.draftFrom < to;
  // What is looked up anew is looked up whole.
  const touched = before.matches.filter(touches);
  for (const match of touched) {
    from = Math.min(from, match.draftFrom);
    to = Math.max(to, match.draftTo);
  }
  const dropped = new Set(touched);
  const kept = before.matches
    .filter((match) => !dropped.has(match))
    .map((match) =>
      match.draftFrom < start
        ? match
        : { ...match, draftFrom: match.draftFrom + shift, draftTo: match.draftTo + shift },
    );
  return withoutContained([...kept, ...findMatches(index, draft, least, { from, to: to + shift })]);
}

import type { Outcome } from '../anchors/outcome.ts';
import type { Paper } from '../paper/paper.ts';
import { stemsOf } from '../text/stems.ts';
import { firstFrom } from '../text/ascending.ts';
import type { Span } from '../text/span.ts';
import { askedKinds, broughtKinds, kindsInBoth } from './asked-for.ts';
import { sentencesAt, type Changed, type ChangedText } from './changed.ts';

/**
 * What may answer each remark, of all that changed: by where it stands (in the remark's words, their sentence, beside it, in
 * its paragraph, its section or elsewhere), by rare words that it shares with the remark, by the kind of thing that is asked
 * for, and by which other remarks have more of a claim to it (computation.md 3).
 */

/** Where a change stands, seen from a remark. */
export type Where =
  'in its words' | 'in its sentence' | 'beside it' | 'in its paragraph' | 'in its section' | 'elsewhere';

/** A change, or several, that may answer a remark. */
export interface Proposal {
  /** In the newer text, UTF-16 units, ascending; a gap for words that were taken out. */
  readonly places: readonly Span[];
  readonly where: Where;
  /** How likely it is that it was made for this remark, 0 to 1: an order, tested at LIKELY. */
  readonly likely: number;
}

/** From this likelihood on a proposal is offered as the answer; below, only where the student looks for one. */
export const LIKELY = 0.5;

/** A remark, for whoever looks for what answers it. */
export interface Asking {
  readonly id: string;
  /** What it says. */
  readonly text: string;
  /** The words of the older text that it is about, or beside which it stands; '' for none. */
  readonly about: string;
  /** Whether it calls for a change: one that doesn't claims none. */
  readonly calls: boolean;
  /** What became of each of its targets. */
  readonly outcomes: readonly Outcome[];
}

/** In a text without headings a section reaches so many sentences each way: some pages. */
const SECTION_REACH = 60;
/** How likely a change is made for a remark by its place alone, before any word is looked at. */
const BY_PLACE: Record<Where, number> = {
  'in its words': 0.8,
  'in its sentence': 0.6,
  'beside it': 0.55,
  'in its paragraph': 0.2,
  'in its section': 0.1,
  elsewhere: 0.04,
};
/** What comes before a passage is less often its answer than what comes after. */
const BEFORE = 0.8;
/** A long passage with little changed in it was changed for something in it. */
const HARDLY_CHANGED = { units: 72, kept: 0.85, byPlace: 0.4 };
/** All its words stand: what is new of it is a mark between them. */
const MARKS_ONLY = 0.55;
const UNSURE = 0.35;
/** Shared words that weigh so much together make half of all that words can make. */
const HALF_SHARED = 7;
/** Words can't make a change an answer by themselves more than so surely. */
const MOST_BY_WORDS = 0.85;
const BY_KIND = 0.18;
/** A word that the remark is about counts less than one that it says. */
const ABOUT = 0.6;
/** A word in more than this share of all sentences tells nothing. */
const COMMON = 0.12;
/** How much another remark's better claim takes away. */
const RIVALRY = 1.5;
/** Elsewhere, a change that shares less with a remark than this part of the rarest word is nothing to it. */
const LEAST_SHARED = 0.4;
/** A word that so many changes share tells them apart no more. */
const MOST_CHANGES = 60;
/** So many are kept for a remark. */
const MOST = 5;

const EVERYWHERE =
  /\b(?:throughout|everywhere|all through|all over|each time|every time|again and again|in each|both)\b/i;

/** For each remark what may answer it, likeliest first. */
export function proposeAnswers(
  changed: ChangedText,
  newer: Paper,
  remarks: readonly Asking[],
  stems: Stems = stemsOf,
): Map<string, readonly Proposal[]> {
  const prepared: Prepared = {
    changed,
    newer,
    brought: changed.changes.map(({ place }) => broughtKinds(newer.text.slice(place.from, place.to))),
    leastShared: LEAST_SHARED * Math.log(changed.sentences.length + remarks.length),
    ...neighbourhoodOf(changed),
  };
  const shared = sharing(changed, newer, remarks, stems);
  const claims = remarks.map((remark, index) => claimsOf(prepared, remark, shared(index)));
  const best = new Float64Array(changed.changes.length);
  for (const [index, { calls }] of remarks.entries()) {
    if (!calls) continue;
    for (const { change, score } of claims[index].near) best[change] = Math.max(best[change], score);
    for (const { change, score } of claims[index].taken) best[change] = Math.max(best[change], score);
  }
  return new Map(
    remarks.map((remark, index) => {
      const { own, near } = claims[index];
      const others = near.map(({ change, where, score }): Proposal => {
        const rivalry = best[change] <= score ? 1 : (score / best[change]) ** RIVALRY;
        return { places: [changed.changes[change].place], where, likely: score * rivalry };
      });
      const ranked = [...joined(own), ...others].sort(
        (x, y) => y.likely - x.likely || x.places[0].from - y.places[0].from,
      );
      return [remark.id, together(remark, ranked).slice(0, MOST)];
    }),
  );
}

/** The stems of a piece of text. */
export type Stems = (text: string) => readonly string[];

/** A newer text with what is asked of it again and again. */
interface Prepared {
  readonly changed: ChangedText;
  readonly newer: Paper;
  /** The kinds of thing that each change brings. */
  readonly brought: readonly number[];
  readonly leastShared: number;
  /** For each sentence whether it came in as a whole. */
  readonly isNew: Uint8Array;
  /** The numbers of the first change in each sentence, or behind it, and one more behind the last. */
  readonly firstIn: Int32Array;
}

function neighbourhoodOf({ sentences, changes }: ChangedText): Pick<Prepared, 'isNew' | 'firstIn'> {
  const isNew = new Uint8Array(sentences.length);
  const firstIn = new Int32Array(sentences.length + 1).fill(changes.length);
  for (let index = changes.length - 1; index >= 0; index--) {
    const { sentence, how, place } = changes[index];
    firstIn[sentence] = index;
    const { from, to } = sentences[sentence];
    if (how === 'came in' && place.from === from && place.to === to) isNew[sentence] = 1;
  }
  for (let sentence = sentences.length - 1; sentence >= 0; sentence--)
    firstIn[sentence] = Math.min(firstIn[sentence], firstIn[sentence + 1]);
  return { isNew, firstIn };
}

/** The changes of several targets are one answer. */
function joined(own: readonly Proposal[]): Proposal[] {
  if (own.length < 2) return [...own];
  return [
    {
      places: inOrder(own.flatMap(({ places }) => places)),
      where: 'in its words',
      likely: Math.max(...own.map(({ likely }) => likely)),
    },
  ];
}

/** What is asked for throughout is answered by all that is likely. */
function together({ text }: Asking, ranked: readonly Proposal[]): Proposal[] {
  const likely = ranked.filter((one) => one.likely >= LIKELY);
  if (likely.length < 2 || !EVERYWHERE.test(text)) return [...ranked];
  return [{ ...likely[0], places: inOrder(likely.flatMap(({ places }) => places)) }, ...ranked];
}

function inOrder(places: readonly Span[]): Span[] {
  return places.toSorted((x, y) => x.from - y.from);
}

interface Claim {
  readonly change: number;
  readonly where: Where;
  readonly score: number;
}

interface Claims {
  /** What became of its own words, where they changed. */
  readonly own: readonly Proposal[];
  readonly near: readonly Claim[];
  /** The changes that are, or reach into, what became of its own words. */
  readonly taken: readonly Omit<Claim, 'where'>[];
}

/** By change what the words weigh that a remark shares with it, where it shares any. */
type Shared = ReadonlyMap<number, number>;

function claimsOf(prepared: Prepared, remark: Asking, shared: Shared): Claims {
  const { changes } = prepared.changed;
  const own: Proposal[] = [];
  // What is new within words that all stand came in beside them.
  const inOwn: Span[] = [];
  const whereOf = new Map<number, { where: Where; byPlace: number }>();
  const put = (change: number, where: Where, byPlace: number) => {
    if (byPlace > (whereOf.get(change)?.byPlace ?? 0)) whereOf.set(change, { where, byPlace });
  };
  for (const [change, weight] of shared)
    if (weight >= prepared.leastShared) put(change, 'elsewhere', BY_PLACE.elsewhere);
  for (const outcome of remark.outcomes) {
    const proposal = ownOf(outcome);
    if (proposal !== null) own.push(proposal);
    if (proposal !== null && outcome.kept < 1) inOwn.push(...proposal.places);
    nearOf(prepared, outcome, put);
  }
  const isOwn = ({ place }: Changed) => inOwn.some((one) => place.from < one.to && place.to > one.from);
  const asked = askedKinds(remark.text);
  const near = [...whereOf].flatMap(([change, { where, byPlace }]): Claim[] => {
    if (isOwn(changes[change])) return [];
    const weight = shared.get(change) ?? 0;
    const byWords = MOST_BY_WORDS * (weight / (weight + HALF_SHARED));
    const kinds = kindsInBoth(asked, prepared.brought[change]);
    return [{ change, where, score: 1 - (1 - byPlace) * (1 - byWords) * (1 - BY_KIND) ** kinds }];
  });
  const taken = own.flatMap(({ places, likely }) =>
    places.flatMap((place) =>
      changesWithin(prepared.changed, place).map((change) => ({ change, score: likely })),
    ),
  );
  return { own, near, taken };
}

/** The changes that a place has words in common with. */
function changesWithin({ changes, changeEnds }: ChangedText, { from, to }: Span): number[] {
  const found: number[] = [];
  for (
    let index = firstFrom(changeEnds, from + 1);
    index < changes.length && changes[index].place.from < to;
    index++
  )
    found.push(index);
  return found;
}

function ownOf({ kind, place, kept }: Outcome): Proposal | null {
  const as = (likely: number): Proposal => ({ places: [place], where: 'in its words', likely });
  switch (kind) {
    case 'untouched':
    case 'added to':
      return null;
    case 'unsure':
      return as(UNSURE);
    case 'gone':
      // Where other words came in they may be of anything.
      return as(place.from === place.to ? BY_PLACE['in its words'] : UNSURE);
    case 'moved':
    case 'split':
    case 'joined':
      return as(BY_PLACE['in its words']);
    case 'reworded': {
      if (place.from === place.to) return null;
      const isLong = place.to - place.from > HARDLY_CHANGED.units;
      if (isLong && kept >= HARDLY_CHANGED.kept) return as(HARDLY_CHANGED.byPlace);
      return as(kept === 1 ? MARKS_ONLY : BY_PLACE['in its words']);
    }
  }
}

/** Puts the changes in and around a passage, each with how likely it is made for it by its place. */
function nearOf(
  { changed, newer, isNew, firstIn }: Prepared,
  { place }: Outcome,
  put: (change: number, where: Where, byPlace: number) => void,
): void {
  const { sentences, changes } = changed;
  if (sentences.length === 0) return;
  const [from, to] = sentencesAt(changed, newer, place);
  const at = sentences[Math.min(from, sentences.length - 1)];
  let first = from;
  while (first > 0 && isNew[first - 1] === 1) first--;
  let last = to;
  while (last < sentences.length && isNew[last] === 1) last++;
  let begin = Math.min(first, sentences.length - 1);
  while (begin > 0 && sentences[begin - 1].section === at.section && from - begin < SECTION_REACH) begin--;
  for (let index = firstIn[begin]; index < changes.length; index++) {
    const { sentence, how } = changes[index];
    const { block, section } = sentences[sentence];
    if (sentence >= last && (section !== at.section || sentence - from > SECTION_REACH)) break;
    if (sentence >= from && sentence < to) put(index, 'in its sentence', BY_PLACE['in its sentence']);
    else if (how === 'came in' && sentence >= first && sentence < last)
      put(index, 'beside it', BY_PLACE['beside it'] * (sentence < from ? BEFORE : 1));
    else if (block === at.block) put(index, 'in its paragraph', BY_PLACE['in its paragraph']);
    else if (section === at.section) put(index, 'in its section', BY_PLACE['in its section']);
  }
}

/** For each remark by change what the words weigh that both have. */
function sharing(
  { sentences, changes }: ChangedText,
  { text }: Paper,
  remarks: readonly Asking[],
  stems: Stems,
): (remark: number) => Shared {
  const holding = new Map<string, number>();
  const count = (once: ReadonlySet<string>) => {
    for (const stem of once) holding.set(stem, (holding.get(stem) ?? 0) + 1);
  };
  for (const { from, to } of sentences) count(new Set(stems(text.slice(from, to))));
  const bags = remarks.map((remark) => bagOf(remark, stems));
  for (const bag of bags) count(new Set(bag.keys()));
  const all = sentences.length + remarks.length;
  const most = Math.max(3, COMMON * all);
  const changesWith = new Map<string, number[]>();
  for (const [index, { place }] of changes.entries())
    for (const stem of new Set(stems(text.slice(place.from, place.to)))) {
      const known = changesWith.get(stem);
      if (known === undefined) changesWith.set(stem, [index]);
      else known.push(index);
    }
  return (remark) => {
    const shared = new Map<number, number>();
    for (const [stem, weight] of bags[remark]) {
      const times = holding.get(stem) ?? 1;
      const having = changesWith.get(stem);
      if (having === undefined || times > most || having.length > MOST_CHANGES) continue;
      const worth = weight * Math.log(all / times);
      for (const change of having) shared.set(change, (shared.get(change) ?? 0) + worth);
    }
    return shared;
  };
}

/** What a remark says and is about, by stem. */
function bagOf({ text, about }: Asking, stems: Stems): Map<string, number> {
  const bag = new Map<string, number>();
  for (const stem of stems(about)) bag.set(stem, ABOUT);
  for (const stem of stems(text)) bag.set(stem, 1);
  return bag;
}

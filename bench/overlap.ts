/** A1 to A4: what a draft shares with two million words of sources. */
import { copiedDraft, copyings, madeCorpus, recallAndPrecision } from '#core/overlap/copied-text.ts';
import { findMatches, findMatchesAgain } from '#core/overlap/find-matches.ts';
import { inOrderOfCredit, sharesOf, usualCounting } from '#core/overlap/shares.ts';
import { bytesOfIndex, indexSources, USUAL_RUN } from '#core/overlap/source-index.ts';
import { hashedWordsOf } from '#core/text/words.ts';
import { inTurn, row, theRatio } from './measure.ts';
import { realText } from './real-text.ts';

const LEAST = 8;
const DRAFT_WORDS = 40_000;
const SOURCES = 230;

const hashes = (text: string) => hashedWordsOf(text).ids;

/** The same by a map of every run of words as a string, which is what comes to mind first. */
function mapOfRuns(sources: readonly string[]): Map<string, number[]> {
  const places = new Map<string, number[]>();
  let at = 0;
  for (const source of sources) {
    const words = source.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
    for (let i = 0; i + USUAL_RUN <= words.length; i++) {
      const key = words.slice(i, i + USUAL_RUN).join(' ');
      const there = places.get(key);
      if (there === undefined) places.set(key, [at + i]);
      else there.push(at + i);
    }
    at += words.length;
  }
  return places;
}

function lookUpInMap(draft: string, places: Map<string, number[]>): number {
  const words = draft.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
  let found = 0;
  for (let i = 0; i + USUAL_RUN <= words.length; i++)
    found += places.get(words.slice(i, i + USUAL_RUN).join(' '))?.length ?? 0;
  return found;
}

const words = realText(1_790_000).split(/\s+/);
const heldOut = words.slice(-DRAFT_WORDS).join(' ');
const size = Math.floor((words.length - DRAFT_WORDS) / SOURCES);
const real = Array.from({ length: SOURCES }, (_, i) => words.slice(i * size, (i + 1) * size).join(' '));
const made = madeCorpus(2_000_000, 400, 3);
const madeSources = made.sources.map((source) => source.join(' '));
// Every word is a source's, of set phrases above all.
const ofPhrases = Array.from({ length: DRAFT_WORDS / 100 }, (_, i) =>
  words
    .slice((i * 3701) % (words.length - 200))
    .slice(0, 100)
    .join(' '),
).join(' ');

const index = indexSources(real.map(hashes));
const madeIndex = indexSources(madeSources.map(hashes));
const map = mapOfRuns(real.slice(0, 60));

console.log(
  'A1  a draft of 40,000 words against 1.75 million words of speeches; bar 4.5 × lb, 6 × on set phrases',
);
for (const [name, draft] of [
  ['a speech held out', heldOut],
  ['all of it copied, set phrases', ofPhrases],
] as const) {
  const query = () => findMatches(index, hashes(draft), LEAST);
  const [lb, own, peer] = inTurn(15, [() => hashes(draft), query, () => lookUpInMap(draft, map)]);
  console.log(row(name, { lb, own, ratio: theRatio(own, lb), matches: String(query().length) }));
  console.log(row('  looking up only, a map of a quarter of it', { peer, ratio: theRatio(peer, lb) }));
}

console.log('A2  indexing; bar 2.2 × splitting the sources into words, 14 bytes a word');
for (const [name, sources] of [
  ['speeches', real],
  ['made words', madeSources],
] as const) {
  const [split, own] = inTurn(5, [() => sources.map(hashes), () => indexSources(sources.map(hashes))]);
  const built = indexSources(sources.map(hashes));
  const bytes = (bytesOfIndex(built) / built.words.length).toFixed(1);
  console.log(row(name, { split, own, ratio: theRatio(own, split), 'bytes a word': bytes }));
}

console.log(
  'A3  words found of 2 million made words; bar 100 % word for word, 98.5 % edited, precision 99.5 %',
);
for (const copying of copyings) {
  const draft = copiedDraft(made, DRAFT_WORDS, copying, 9);
  const { recall, precision } = recallAndPrecision(
    draft,
    findMatches(madeIndex, hashes(draft.words.join(' ')), LEAST),
  );
  console.log(
    row(copying, { found: `${(recall * 100).toFixed(2)} %`, right: `${(precision * 100).toFixed(2)} %` }),
  );
}

console.log('A4  a switch; bar 5 % of lb. A changed paragraph; bar 1/50 of a query');
const draft = copiedDraft(made, DRAFT_WORDS, 'replaced', 21);
const before = { draft: hashes(draft.words.join(' ')), matches: [] as ReturnType<typeof findMatches> };
before.matches = findMatches(madeIndex, before.draft, LEAST);
const after = before.draft.slice();
for (let i = 20_000; i < 20_060; i++) after[i] = i;
const mask = new Uint8Array(before.draft.length);
const text = draft.words.join(' ');
const ofSources = madeSources.map((_, i) => ({
  id: String(i),
  relation: 'published' as const,
  isSetAside: false,
}));
const counted = inOrderOfCredit(
  before.matches.map((match) => ({ ...match, isSetAside: false })),
  ofSources,
);
const [lb, whole, again, share] = inTurn(31, [
  () => hashes(text),
  () => findMatches(madeIndex, hashes(text), LEAST),
  () => findMatchesAgain(madeIndex, before, after, LEAST),
  () => sharesOf(before.draft.length, mask, counted, ofSources, usualCounting),
]);
console.log(row('a switch', { own: `${share.toFixed(3)} ms`, lb, ratio: theRatio(share, lb) }));
console.log(
  row('a changed paragraph', { own: `${again.toFixed(3)} ms`, whole, ratio: theRatio(again, whole) }),
);

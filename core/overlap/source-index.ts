import { firstFrom } from '../text/ascending.ts';

/**
 * Where every run of a few words stands in a set of sources: hashes of k words in counting-sorted buckets, with a bit
 * filter in front (computation.md 5). It holds words as hashes (hashedWordsOf) and no text; sources are kept one by one and
 * the index is put together from them, which takes a fraction of splitting them into words.
 */
export interface SourceIndex {
  /** Words of a run that is looked up. */
  readonly run: number;
  /** The words of all sources one behind another, a 0 before, between and behind them. */
  readonly words: Int32Array;
  /** Where each source's first word is in `words`, ascending. */
  readonly starts: Int32Array;
  /** For each bucket where its places begin in `places`; one more at the end. */
  readonly buckets: Uint32Array;
  readonly places: Uint32Array;
  readonly filter: Uint32Array;
}

/** Five words are rare enough to be looked up one by one, and stand whole between edits of every sixth word. */
export const USUAL_RUN = 5;

/** Two places a bucket, and eight bits of the filter for each, take 12 bytes a word in all, and few look-ups in vain. */
const PLACES_A_BUCKET = 2;
const BITS_A_PLACE = 8;

const ceilLog2 = (value: number) => Math.max(5, Math.ceil(Math.log2(Math.max(2, value))));

/** The number of a run of words, from their hashes. */
export function runHash(words: Int32Array, at: number, run: number): number {
  let hash = 0;
  for (let i = at; i < at + run; i++) hash = Math.imul(hash, 0x2c1b3c6d) + words[i];
  hash ^= hash >>> 15;
  hash = Math.imul(hash, 0x297a2d39);
  return hash ^ (hash >>> 16);
}

/** The bucket that a run with this hash is in: its upper bits. */
export const bucketOf = (index: SourceIndex, hash: number) =>
  hash >>> (Math.clz32(index.buckets.length - 1) + 1);

/** Whether a run with this hash may be in the sources; never false for one that is. */
export function mayHold(filter: Uint32Array, hash: number): boolean {
  const bit = hash >>> (Math.clz32(filter.length) - 4);
  return (filter[bit >>> 5] & (1 << (bit & 31))) !== 0;
}

/**
 * Indexes sources.
 * @param sources the words of each, as hashes (hashedWordsOf)
 * @param run words of a run that is looked up, 2 and more; no run that is shorter is found
 */
export function indexSources(sources: readonly Int32Array[], run = USUAL_RUN): SourceIndex {
  const count = sources.reduce((sum, words) => sum + words.length + 1, 1);
  const words = new Int32Array(count);
  const starts = new Int32Array(sources.length);
  let at = 1;
  sources.forEach((source, i) => {
    starts[i] = at;
    words.set(source, at);
    at += source.length + 1;
  });
  const bucketBits = ceilLog2(count / PLACES_A_BUCKET);
  const runs = hashesOfRuns(words, starts, sources, run);
  const { hashes, at: places } = partitioned(runs);
  const filter = new Uint32Array(2 ** (ceilLog2(count * BITS_A_PLACE) - 5));
  const filterShift = Math.clz32(filter.length) - 4;
  const buckets = new Uint32Array(2 ** bucketBits + 1);
  const shift = 32 - bucketBits;
  for (const hash of hashes) {
    buckets[(hash >>> shift) + 1]++;
    const bit = hash >>> filterShift;
    filter[bit >>> 5] |= 1 << (bit & 31);
  }
  for (let b = 1; b < buckets.length; b++) buckets[b] += buckets[b - 1];
  const next = buckets.slice(0, -1);
  const sorted = new Uint32Array(hashes.length);
  for (let i = 0; i < hashes.length; i++) sorted[next[hashes[i] >>> shift]++] = places[i];
  return { run, words, starts, buckets, places: sorted, filter };
}

interface RunHashes {
  readonly hashes: Int32Array;
  /** Where each run stands. */
  readonly at: Uint32Array;
}

/** The hash of each run in order of place; those that would reach over the end of a source are none. */
function hashesOfRuns(
  words: Int32Array,
  starts: Int32Array,
  sources: readonly Int32Array[],
  run: number,
): RunHashes {
  const total = sources.reduce((sum, source) => sum + Math.max(0, source.length - run + 1), 0);
  const hashes = new Int32Array(total);
  const at = new Uint32Array(total);
  let count = 0;
  sources.forEach((source, i) => {
    const end = starts[i] + source.length - run;
    for (let place = starts[i]; place <= end; place++) {
      hashes[count] = runHash(words, place, run);
      at[count++] = place;
    }
  });
  return { hashes, at };
}

/** The same by the upper eight bits: what is sorted part by part stays in the processor's own memory, which takes a third of the time. */
function partitioned({ hashes, at }: RunHashes): RunHashes {
  const next = new Uint32Array(257);
  for (const hash of hashes) next[(hash >>> 24) + 1]++;
  for (let part = 1; part < 257; part++) next[part] += next[part - 1];
  const parted = { hashes: new Int32Array(hashes.length), at: new Uint32Array(at.length) };
  for (let i = 0; i < hashes.length; i++) {
    const to = next[hashes[i] >>> 24]++;
    parted.hashes[to] = hashes[i];
    parted.at[to] = at[i];
  }
  return parted;
}

/** Which source a word of the index belongs to. */
export function sourceAt(index: SourceIndex, word: number): number {
  return firstFrom(index.starts, word + 1) - 1;
}

/** What an index takes, in bytes. */
export function bytesOfIndex({ words, starts, buckets, places, filter }: SourceIndex): number {
  return [words, starts, buckets, places, filter].reduce((sum, array) => sum + array.byteLength, 0);
}

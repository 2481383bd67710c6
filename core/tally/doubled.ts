import type { Channel } from '../model/channels.ts';
import { quotedWords, type Remark } from '../model/remark.ts';
import type { Judgement } from '../model/work.ts';
import { normaliseText } from '../text/normalise.ts';

/** In which channel a doubled remark counts: where it has a place in the work, before where it has none. */
const RANK: Readonly<Record<Channel, number>> = {
  passage: 0,
  region: 1,
  recording: 2,
  question: 3,
  post: 4,
  overlap: 5,
  criterion: 6,
  overall: 7,
};

/** Fewer words than these come up by chance in two channels. */
const LEAST_WORDS = 4;

function wordsOf(text: string): string {
  return normaliseText(text)
    .toLowerCase()
    .replace(/[.!\s]+$/, '');
}

const keysByRemark = new WeakMap<Remark, readonly string[]>();

/** What has to agree for two remarks to be one; empty for one that can't be a double. Computed once for each. */
function sameKeys(remark: Remark): readonly string[] {
  const known = keysByRemark.get(remark);
  if (known !== undefined) return known;
  const keys = keysOf(remark);
  keysByRemark.set(remark, keys);
  return keys;
}

function keysOf(remark: Remark): string[] {
  const text = wordsOf(remark.text);
  const who = `${remark.author.name}\n${text}`;
  const keys: string[] = [];
  if (text.split(' ').length >= LEAST_WORDS) keys.push(who);
  const quote = quotedWords(remark);
  const change = remark.change === null ? '' : `${remark.change.before}>${remark.change.after}`;
  // The same mark in two copies of a paper, words or none.
  if (quote !== null) keys.push(`${who}\n${change}\n${wordsOf(quote)}`);
  return keys;
}

/** Within one source a marker may well say the same twice, of two places. */
function fromTwoSources(x: Remark, y: Remark): boolean {
  return x.channel !== y.channel || (x.fileHash !== y.fileHash && x.attemptId === y.attemptId);
}

/** Some programs write a mark twice at just the same place. */
function atOnePlace(x: Remark, y: Remark): boolean {
  const [place] = x.targets;
  const onPaper = place.kind === 'point' || (place.kind === 'words' && place.quads.length > 0);
  return onPaper && x.fileHash === y.fileHash && JSON.stringify(x.targets) === JSON.stringify(y.targets);
}

const mayBeOne = (x: Remark, y: Remark) => fromTwoSources(x, y) || atOnePlace(x, y);

/**
 * The same words twice by one author through two channels or two files, or at one place, are one remark: the remarks that
 * double another, by the id of the one that counts. One that the student parted stands by itself.
 */
export function doublesOf(
  remarks: readonly Remark[],
  judgements: ReadonlyMap<string, Judgement>,
): ReadonlyMap<string, readonly Remark[]> {
  const doubles = new Map<string, Remark[]>();
  const first = new Map<string, Remark[]>();
  const ranked = remarks
    .filter((remark) => judgements.get(remark.id)?.apart !== true && !remark.withdrawn)
    .map((remark, index) => ({ remark, index }))
    .sort((x, y) => RANK[x.remark.channel] - RANK[y.remark.channel] || x.index - y.index);
  for (const { remark } of ranked) {
    const keys = sameKeys(remark);
    const main = keys
      .flatMap((key) => first.get(key) ?? [])
      .find(
        (one) =>
          mayBeOne(one, remark) && (doubles.get(one.id) ?? []).every((other) => mayBeOne(other, remark)),
      );
    if (main !== undefined) doubles.set(main.id, [...(doubles.get(main.id) ?? []), remark]);
    else for (const key of keys) addTo(first, key, remark);
  }
  return doubles;
}

function addTo(lists: Map<string, Remark[]>, key: string, remark: Remark): void {
  const list = lists.get(key);
  if (list === undefined) lists.set(key, [remark]);
  else list.push(remark);
}

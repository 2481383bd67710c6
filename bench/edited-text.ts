import type { OutcomeKind } from '#core/anchors/outcome.ts';
import { paperOf, type Paper } from '#core/paper/paper.ts';
import { seeded } from '#core/saying/training/seeded.ts';
import { sentencesOf } from '#core/text/sentences.ts';
import type { Span } from '#core/text/span.ts';

/** What was done to a sentence. */
type Edit = 'kept' | 'added' | 'light' | 'heavy' | 'moved' | 'split' | 'joined' | 'removed';

interface Sentence {
  words: string[];
  /** The number of the old sentence that it is; null for one that came in. */
  readonly of: number | null;
  paragraph: number;
}

/** A passage of the older text, and what truly became of it. */
export interface KnownPassage {
  readonly passage: Span;
  /** All that may truly be said of it. */
  readonly kinds: readonly OutcomeKind[];
  /** Where its sentence stands in the newer text; null where it was taken out. */
  readonly place: Span | null;
  readonly edit: Edit;
}

export interface Edited {
  readonly older: Paper;
  readonly newer: Paper;
  readonly passages: readonly KnownPassage[];
}

const EDITS: readonly Edit[] = ['added', 'light', 'heavy', 'heavy', 'moved', 'split', 'joined', 'removed'];

/**
 * A text and the same with a share of its sentences edited, and passages of it with what became of them.
 * @param text of which the sentences are taken, long enough for old and new ones
 * @param share of the sentences that are edited, 0 to 1
 */
export function editedText(text: string, words: number, share: number, count: number, seed: number): Edited {
  const chance = seeded(seed);
  const all = sentencesOf(text)
    .map((sentence) => sentence.split(/\s+/))
    .filter((one) => one.length >= 8 && one.length <= 45);
  const old: Sentence[] = [];
  let size = 0;
  let next = 0;
  for (let paragraph = 0; size < words; paragraph++)
    for (let left = 2 + chance.below(6); left > 0 && size < words; left--) {
      old.push({ words: all[next], of: old.length, paragraph });
      size += all[next++].length;
    }
  const spare = () => all[next++ % all.length];
  const spareWord = () => {
    const from = spare();
    return from[1 + chance.below(from.length - 2)].replace(/[^\p{L}\p{N}]/gu, '') || 'else';
  };
  const edits: Edit[] = old.map(() =>
    chance.below(1000) < share * 1000 ? EDITS[chance.below(EDITS.length)] : 'kept',
  );
  const touched = new Map<number, Set<number>>();
  const anew: Sentence[] = [];
  const movedOnes: Sentence[] = [];
  for (let s = 0; s < old.length; s++) {
    const one: Sentence = { ...old[s], words: [...old[s].words] };
    const edit = edits[s];
    if (edit === 'removed') continue;
    if (edit === 'moved') {
      movedOnes.push(one);
      continue;
    }
    if (edit === 'light' || edit === 'heavy') {
      const changed = new Set<number>();
      const times = Math.max(1, Math.round(one.words.length * (edit === 'light' ? 0.12 : 0.5)));
      while (changed.size < times) changed.add(chance.below(one.words.length));
      for (const at of changed) one.words[at] = keepingMarks(one.words[at], spareWord());
      touched.set(s, changed);
    }
    if (edit === 'split') {
      const at = Math.floor(one.words.length / 2);
      one.words[at - 1] = `${one.words[at - 1].replace(/[^\p{L}\p{N}]+$/u, '')}.`;
      one.words[at] = one.words[at].charAt(0).toUpperCase() + one.words[at].slice(1);
    }
    const before = anew.at(-1);
    const canJoin = before !== undefined && before.paragraph === one.paragraph && before.of === s - 1;
    if (edit === 'joined' && canJoin && edits[s - 1] === 'kept') {
      const last = before.words[before.words.length - 1];
      before.words[before.words.length - 1] = `${last.replace(/[^\p{L}\p{N}]+$/u, '')},`;
      one.words[0] = `and ${one.words[0].toLowerCase()}`;
    } else if (edit === 'joined') edits[s] = 'kept';
    anew.push(one);
    if (edit === 'added') anew.push({ words: spare(), of: null, paragraph: one.paragraph });
  }
  for (const one of movedOnes) {
    const at = chance.below(anew.length);
    anew.splice(at, 0, { ...one, paragraph: anew[at].paragraph });
  }
  const older = paperOfSentences(old);
  const newer = paperOfSentences(anew);
  const placeOf = new Map<number, number>();
  anew.forEach((one, index) => {
    if (one.of !== null) placeOf.set(one.of, index);
  });
  const neighbours = (s: number) => {
    const at = placeOf.get(s);
    return at === undefined ? [] : [anew.at(at - 1), anew.at(at + 1)].filter((one) => one !== undefined);
  };
  const passages = Array.from({ length: count }, (): KnownPassage => {
    const s = chance.below(old.length);
    const length = Math.min(old[s].words.length, 3 + chance.below(14));
    const first = chance.below(old[s].words.length - length + 1);
    const from = older.wordAt(s, first);
    const to = older.wordAt(s, first + length - 1);
    const at = placeOf.get(s);
    const inPassage = [...(touched.get(s) ?? [])].some((word) => word >= first && word < first + length);
    const isJoined = edits[s] === 'joined' || (edits[s + 1] === 'joined' && edits[s] === 'kept');
    const isBeside = neighbours(s).some((one) => one.of === null);
    // What came in where a neighbour went may be what that became.
    const isInPlace = [s - 1, s + 1].some(
      (other) => edits.at(other) === 'removed' || edits.at(other) === 'moved' || edits.at(other) === 'added',
    );
    return {
      passage: { from: from.from, to: to.to },
      edit: isJoined ? 'joined' : edits[s],
      kinds: kindsOf(isJoined ? 'joined' : edits[s], inPassage, isBeside, isInPlace),
      place: at === undefined ? null : newer.sentence(at),
    };
  });
  return { older: older.paper, newer: newer.paper, passages };
}

function kindsOf(edit: Edit, inPassage: boolean, isBeside: boolean, isInPlace: boolean): OutcomeKind[] {
  const stands: OutcomeKind[] = [
    ...(isBeside ? (['added to'] as const) : []),
    ...(isBeside && !isInPlace ? [] : (['untouched'] as const)),
  ];
  switch (edit) {
    case 'kept':
    case 'added':
      return stands;
    // Words changed within its sentence may be some that came in.
    case 'light':
    case 'heavy':
      return inPassage ? ['reworded'] : ['untouched', 'added to'];
    case 'moved':
      return ['moved'];
    case 'split':
      return ['split'];
    case 'joined':
      return ['joined'];
    case 'removed':
      return isInPlace ? ['gone', 'reworded', 'unsure'] : ['gone'];
  }
}

function keepingMarks(word: string, anew: string): string {
  const [, before, , after] = /^([^\p{L}\p{N}]*)(.*?)([^\p{L}\p{N}]*)$/u.exec(word) ?? ['', '', '', ''];
  const cased = /^\p{Lu}/u.test(word.slice(before.length))
    ? anew.charAt(0).toUpperCase() + anew.slice(1)
    : anew;
  return `${before}${cased}${after}`;
}

function paperOfSentences(sentences: readonly Sentence[]) {
  const lines: string[] = [];
  const places: Span[] = [];
  let at = 0;
  sentences.forEach((one, index) => {
    const isNewLine = index === 0 || sentences[index - 1].paragraph !== one.paragraph;
    const text = one.words.join(' ');
    if (index > 0) at += 1;
    if (isNewLine) lines.push(text);
    else lines[lines.length - 1] += ` ${text}`;
    places.push({ from: at, to: at + text.length });
    at += text.length;
  });
  const paper = paperOf(lines.map((text) => ({ kind: 'paragraph', level: 0, text })));
  return {
    paper,
    sentence: (index: number) => places[index],
    wordAt: (index: number, word: number): Span => {
      const before = sentences[index].words.slice(0, word);
      const from = places[index].from + before.reduce((sum, one) => sum + one.length + 1, 0);
      return { from, to: from + sentences[index].words[word].length };
    },
  };
}

import { countChanges, type Difference } from './difference.ts';

/** A piece of the comparison as it is shown; `text` is that of B for what is kept, and keeps its white space. */
export interface Piece {
  readonly kind: 'kept' | 'added' | 'removed' | 'moved here' | 'moved away';
  readonly text: string;
}

/** A paragraph of the comparison. */
export type Passage = readonly Piece[];

export interface Comparison {
  readonly passages: readonly Passage[];
  readonly counts: {
    readonly kept: number;
    readonly moved: number;
    readonly added: number;
    readonly removed: number;
  };
}

/**
 * Both texts as one: what was kept, added, removed and moved, in the order of the newer text, with every character of
 * both. Punctuation that changed between kept words is shown as a change too.
 */
export function compareForReading(difference: Difference): Comparison {
  const { a, b, stretches, moves } = difference;
  const movedAway = new Uint8Array(a.ids.length);
  const movedHere = new Uint8Array(b.ids.length);
  for (const move of moves)
    for (const [i, j] of move.pairs) {
      movedAway[i] = 1;
      movedHere[j] = 1;
    }
  const pieces: Piece[] = [];
  const put = (kind: Piece['kind'], text: string): void => {
    if (text === '') return;
    const last = pieces.at(-1);
    if (last?.kind === kind) pieces[pieces.length - 1] = { kind, text: last.text + text };
    else pieces.push({ kind, text });
  };
  const between = (textA: string, textB: string): void => {
    if (textA === textB) put('kept', textB);
    else {
      put('removed', textA);
      put('added', textB);
    }
  };
  // Each word goes with the characters before it; what follows the last word is compared at the end.
  const leadA = (i: number) => a.text.slice(i === 0 ? 0 : a.to[i - 1], a.from[i]);
  const leadB = (j: number) => b.text.slice(j === 0 ? 0 : b.to[j - 1], b.from[j]);
  const wordA = (i: number) => a.text.slice(a.from[i], a.to[i]);
  const wordB = (j: number) => b.text.slice(b.from[j], b.to[j]);
  for (const s of stretches) {
    if (s.kind === 'same')
      for (let i = s.fromA, j = s.fromB; i < s.toA; i++, j++) {
        between(leadA(i), leadB(j));
        between(wordA(i), wordB(j));
      }
    else {
      // What parts a change from the words before it belongs to neither side where both have the same.
      const shared = s.fromA < s.toA && s.fromB < s.toB && leadA(s.fromA) === leadB(s.fromB);
      if (shared) put('kept', leadB(s.fromB));
      for (let i = s.fromA; i < s.toA; i++)
        put(
          movedAway[i] === 1 ? 'moved away' : 'removed',
          (shared && i === s.fromA ? '' : leadA(i)) + wordA(i),
        );
      for (let j = s.fromB; j < s.toB; j++)
        put(
          movedHere[j] === 1 ? 'moved here' : 'added',
          (shared && j === s.fromB ? '' : leadB(j)) + wordB(j),
        );
    }
  }
  between(a.text.slice(a.to.at(-1) ?? 0), b.text.slice(b.to.at(-1) ?? 0));
  return { passages: intoPassages(pieces), counts: countChanges(difference) };
}

function intoPassages(pieces: readonly Piece[]): Passage[] {
  const passages: Piece[][] = [[]];
  for (const { kind, text } of pieces) {
    const lines = text.split('\n');
    lines.forEach((line, index) => {
      if (index > 0) passages.push([]);
      if (line !== '') passages[passages.length - 1].push({ kind, text: line });
    });
  }
  return passages.filter((passage) => passage.length > 0);
}

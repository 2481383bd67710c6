import { commonEnd, commonStart } from '../text/common.ts';
import { countChanges, type Difference } from './difference.ts';

/** A piece of the comparison as it is shown; `text` is that of B for what is kept, and keeps its white space. */
export interface Piece {
  readonly kind: 'kept' | 'added' | 'removed' | 'moved here' | 'moved away';
  readonly text: string;
}

/** A paragraph of the comparison. */
type Passage = readonly Piece[];

/** Two texts as one to be read. Counts are words; kept + moved + removed are those of the older text. */
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
 * both but white space of the older one that became other white space. Punctuation that changed between kept words is
 * shown as a change too.
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
    const first = commonStart(textA, textB);
    const last = Math.min(commonEnd(textA, textB), Math.min(textA.length, textB.length) - first);
    put('kept', textB.slice(0, first));
    const [ownA, ownB] = [textA.slice(first, textA.length - last), textB.slice(first, textB.length - last)];
    // Where a line ends is seen by the lines; a space that became one, or was one, is no change of its own.
    if (ownA.trim() !== '') put('removed', ownA.trim());
    put(ownB.trim() === '' ? 'kept' : 'added', ownB);
    put('kept', textB.slice(textB.length - last));
  };
  // Each word goes with the characters before it; what follows the last word is compared at the end.
  const leadA = (i: number) => a.text.slice(i === 0 ? 0 : a.to[i - 1], a.from[i]);
  const leadB = (j: number) => b.text.slice(j === 0 ? 0 : b.to[j - 1], b.from[j]);
  const wordA = (i: number) => a.text.slice(a.from[i], a.to[i]);
  const wordB = (j: number) => b.text.slice(b.from[j], b.to[j]);
  const outOf = (i: number): Piece['kind'] => (movedAway[i] === 1 ? 'moved away' : 'removed');
  const inTo = (j: number): Piece['kind'] => (movedHere[j] === 1 ? 'moved here' : 'added');
  // Whether what stands before the next words was put already.
  let leadIsPut = false;
  for (const s of stretches) {
    if (s.kind === 'same') {
      for (let i = s.fromA, j = s.fromB; i < s.toA; i++, j++) {
        if (!leadIsPut) between(leadA(i), leadB(j));
        leadIsPut = false;
        // The same word with another capital or hyphen is another word to whoever reads it, not a letter of one.
        const [was, is] = [wordA(i), wordB(j)];
        if (was === is) put('kept', is);
        else {
          put('removed', was);
          put('added', is);
        }
      }
      continue;
    }
    const [isIn, isOut] = [s.fromB < s.toB, s.fromA < s.toA];
    const goesOn = s.toA < a.ids.length && s.toB < b.ids.length;
    const first = goesOn && isOut ? leadA(s.fromA) : goesOn && isIn ? leadB(s.fromB) : '';
    const after = goesOn && isOut ? leadA(s.toA) : goesOn && isIn ? leadB(s.toB) : '';
    const across = goesOn && isOut ? leadB(s.toB) : goesOn ? leadA(s.toA) : '';
    // What parts a change from the words before it is compared by itself: a sentence that was rewritten at the beginning
    // of a line stays at the beginning of it. Where words only came in or went, what stood before them stays, and what
    // comes after them came or went with them.
    const stays = goesOn && isIn !== isOut && first === across && (first !== after || first.includes('\n'));
    const leadFirst = stays || (isIn && isOut);
    if (stays) put('kept', across);
    else if (leadFirst) between(leadA(s.fromA), leadB(s.fromB));
    for (let i = s.fromA; i < s.toA; i++)
      put(outOf(i), (leadFirst && i === s.fromA ? '' : leadA(i)) + wordA(i));
    if (stays && isOut) put(outOf(s.toA - 1), after);
    for (let j = s.fromB; j < s.toB; j++)
      put(inTo(j), (leadFirst && j === s.fromB ? '' : leadB(j)) + wordB(j));
    if (stays && isIn) put(inTo(s.toB - 1), after);
    leadIsPut = stays;
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

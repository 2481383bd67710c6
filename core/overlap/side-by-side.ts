import { matchWords } from '../difference/match.ts';
import { newVocabulary, wordsOf, type Words } from '../text/words.ts';

/** A stretch of one side of a match: the same on the other side, or not. */
export interface SidePiece {
  readonly text: string;
  readonly same: boolean;
}

/** Both sides of a match. */
export interface Sides {
  readonly draft: readonly SidePiece[];
  readonly source: readonly SidePiece[];
}

/** Both texts of a match, each in stretches that the other has too and stretches that it hasn't. */
export function sidesOf(draft: string, source: string): Sides {
  const vocabulary = newVocabulary();
  const [mine, theirs] = [wordsOf(draft, vocabulary), wordsOf(source, vocabulary)];
  const toSource = matchWords(mine.ids, theirs.ids);
  const isTaken = new Uint8Array(theirs.ids.length);
  for (const word of toSource) if (word >= 0) isTaken[word] = 1;
  return {
    draft: pieces(mine, (word) => toSource[word] >= 0),
    source: pieces(theirs, (word) => isTaken[word] === 1),
  };
}

/** All of a text; what stands between two words goes with the one before. */
function pieces({ text, from }: Words, isSame: (word: number) => boolean): SidePiece[] {
  const found: { text: string; same: boolean }[] = [];
  from.forEach((start, word) => {
    const at = word === 0 ? 0 : start;
    const piece = text.slice(at, word + 1 < from.length ? from[word + 1] : text.length);
    const last = found.at(-1);
    if (last?.same === isSame(word)) last.text += piece;
    else found.push({ text: piece, same: isSame(word) });
  });
  return found;
}

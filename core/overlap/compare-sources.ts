import type { Paper } from '../paper/paper.ts';
import type { Span } from '../text/span.ts';
import type { Words } from '../text/words.ts';
import { adviceFor, surroundingsOf, type Advised } from './advice.ts';
import { identityOf, type WordMatch } from './find-matches.ts';
import type { SourceWork } from './source-work.ts';
import { wordsLeftOut } from './shares.ts';

/** A match with its places in both texts (UTF-16 units) and what it calls for. */
export interface Match extends WordMatch, Advised {
  readonly place: Span;
  readonly sourcePlace: Span;
  /** Words of the draft in it. */
  readonly words: number;
  readonly identity: number;
}

/** All that a draft has in common with sources, before anything is left out of the count. */
export interface Overlap {
  readonly words: number;
  readonly mask: Uint8Array;
  readonly matches: readonly Match[];
}

/** A span of words as one of text. */
function spanOfWords({ from, to }: Words, first: number, end: number): Span {
  return { from: from[first], to: to[end - 1] };
}

/**
 * Tells what each match of a draft calls for, and where it is.
 * @param words of the draft, as hashes, and of each source
 */
export function overlapOf(
  paper: Paper,
  words: Words,
  found: readonly WordMatch[],
  sources: readonly SourceWork[],
  wordsOfSource: (source: number) => Words,
): Overlap {
  const around = surroundingsOf(paper, words, sources);
  return {
    words: words.ids.length,
    mask: wordsLeftOut(words, [...around.quoted, ...around.setOff], around.references),
    matches: found.map((match) => {
      const place = spanOfWords(words, match.draftFrom, match.draftTo);
      return {
        ...match,
        place,
        sourcePlace: spanOfWords(wordsOfSource(match.source), match.sourceFrom, match.sourceTo),
        words: match.draftTo - match.draftFrom,
        identity: identityOf(match),
        ...adviceFor(place, sources[match.source], sharedBy(match, found), around),
      };
    }),
  };
}

/** How many sources have the words of a match, or nearly all of them. */
function sharedBy(match: WordMatch, found: readonly WordMatch[]): number {
  const most = Math.ceil((match.draftTo - match.draftFrom) * 0.8);
  const sources = new Set(
    found
      .filter(
        (one) => Math.min(one.draftTo, match.draftTo) - Math.max(one.draftFrom, match.draftFrom) >= most,
      )
      .map(({ source }) => source),
  );
  return sources.size;
}

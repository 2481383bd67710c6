import { compareForReading } from '../difference/display.ts';
import { differenceOf } from '../difference/difference.ts';
import { newVocabulary, wordsOf } from '../text/words.ts';

/** What a level asks that the one below it doesn't. */

/** A stretch of a level's description; `more`: the level below doesn't have it. */
export interface AskPiece {
  readonly text: string;
  readonly more: boolean;
}

/** A level's description with what it has beyond the one below marked word by word (difference of the two, core/difference). */
export function asksBeyond(below: string, level: string): AskPiece[] {
  const vocabulary = newVocabulary();
  const difference = differenceOf(wordsOf(below, vocabulary), wordsOf(level, vocabulary));
  const pieces: AskPiece[] = [];
  const { passages } = compareForReading(difference);
  passages.forEach((passage, i) => {
    if (i > 0) put(pieces, '\n', false);
    for (const { kind, text } of passage)
      if (kind === 'added') put(pieces, text, true);
      else if (kind === 'kept' || kind === 'moved here') put(pieces, text, false);
  });
  return pieces;
}

function put(pieces: AskPiece[], text: string, more: boolean): void {
  const last = pieces.at(-1);
  if (last?.more === more) pieces[pieces.length - 1] = { text: last.text + text, more };
  else pieces.push({ text, more });
}

/** Where a description falls into things that can be done one by one: at its stops, semicolons, lines. */
const PARTS = /[^.;\n!?]+(?:[.;!?](?!\s|$)[^.;\n!?]*)*/gu;

/** A single word that differs says nothing to do by itself unless it is all that differs. */
const WORDS = /[\p{L}\p{N}]+/gu;

/**
 * What is to be done to reach a level, beyond the one below it: its clauses that have words the other hasn't. All of the
 * level's clauses where it differs in nothing.
 */
export function asksAsList(below: string, level: string): string[] {
  const pieces = asksBeyond(below, level);
  const clauses: { text: string; more: number }[] = [];
  let at = 0;
  const spans = pieces.map((piece) => {
    const from = at;
    at += piece.text.length;
    return { from, to: at, more: piece.more };
  });
  const text = pieces.map((piece) => piece.text).join('');
  for (const match of text.matchAll(PARTS)) {
    const clause = match[0].trim();
    if (clause === '') continue;
    const from = match.index;
    const to = from + match[0].length;
    const more = spans
      .filter((span) => span.more && span.from < to && span.to > from)
      .reduce((sum, span) => {
        const part = text.slice(Math.max(from, span.from), Math.min(to, span.to));
        return sum + (part.match(WORDS)?.length ?? 0);
      }, 0);
    clauses.push({ text: clause, more });
  }
  const asked = clauses.filter(({ more }) => more > 0);
  return (asked.length > 0 ? asked : clauses).map((clause) => clause.text);
}

import type { Change } from '../model/remark.ts';
import type { Stance } from '../model/work.ts';

/** A proposed change of so few words is a matter of form. */
const SMALL_CHANGE_WORDS = 3;

function stanceOfChange({ before, after }: Change): Stance {
  const words = (text: string) => text.split(/\s+/).filter(Boolean).length;
  return Math.max(words(before), words(after)) <= SMALL_CHANGE_WORDS ? 'polish' : 'fix';
}

/**
 * What a mark without words says by its kind: a proposed change by how much it changes, struck words are to go; of any other
 * it has to be asked what it means. A recording says what nobody wrote down.
 */
export function stanceOfMark(kind: string, change: Change | null): Stance {
  if (change !== null) return stanceOfChange(change);
  if (kind === 'recording') return 'note';
  return kind === 'strikeout' || kind === 'deletion' ? 'fix' : 'question';
}

import type { MarkSign } from '#core/model/work.ts';
import * as words from '../../words/en.ts';

/** What marks of a hand are told apart by, in words. */
export function signTold({ kind, name }: MarkSign): string {
  return words.marks.signs[kind](kind === 'mark' ? words.slip.markOf(name) : name);
}

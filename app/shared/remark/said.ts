import type { Remark } from '#core/model/remark.ts';
import * as words from '../../words/en.ts';

/** What a remark says in words: its own, else what it changes, else that it came without any. */
export function saidBy({ text, change, kind }: Remark): string {
  if (text !== '') return text;
  if (change !== null)
    return words.said.change[change.kind](change.kind === 'insertion' ? change.after : change.before);
  return kind === 'recording' ? words.said.noTranscript : words.said.noWords;
}

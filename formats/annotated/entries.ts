import type { RichBlock, Run } from '#core/paper/draft.ts';
import { entryKey } from './entry-key.ts';

/** A remark in full, as it is read in a list. */
export interface EntryToWrite {
  readonly id: string;
  readonly number: number;
  /** It stands in another list too, which its mark leads to: what this one is called. */
  readonly again?: string;
  /** Where it stands and whose it is: "page 3 · Dr Aune Keld". */
  readonly head: string;
  /** The words it is about; null where it hangs on none. */
  readonly about: string | null;
  readonly text: string;
  /** Answers to it, each with its author. */
  readonly replies: readonly string[];
  /** Names with values. */
  readonly facts: readonly (readonly [string, string])[];
}

const run = (text: string, looks: Partial<Run> = {}): Run => ({ text, bold: false, italic: false, ...looks });
const paragraph = (...runs: readonly Run[]): RichBlock => ({ kind: 'paragraph', level: 0, runs });
const quote = (...runs: readonly Run[]): RichBlock => ({ kind: 'quote', level: 0, runs });

/** Entries of a list of remarks, each number with the name by which it leads to its mark. */
export function entryBlocks(entries: readonly EntryToWrite[]): RichBlock[] {
  return entries.flatMap(({ id, again, number, head, about, text, replies, facts }) => [
    paragraph(
      run(` ${number} `, { bold: true, keys: [entryKey(id, again)] }),
      run(`  ${head}`, { bold: true }),
    ),
    ...(about === null ? [] : [quote(run(about, { italic: true }))]),
    ...(text === '' ? [] : [paragraph(run(text))]),
    ...replies.map((reply) => quote(run(reply))),
    ...facts.map(([name, value]) => paragraph(run(`${name}: `, { bold: true }), run(value))),
  ]);
}

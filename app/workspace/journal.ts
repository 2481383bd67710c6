import * as v from 'valibot';
import { databaseName, journalSettledUpTo, settleJournalUpTo, useWorkspace } from './workspace.ts';

/**
 * The last words typed in a field before its page goes away. The browser's database may come too late then; this is
 * written at once, to localStorage, and taken up when the field is opened again.
 *
 * localStorage reaches the disk seconds late, a cleared entry too: after a crash an entry that was long taken up can be
 * there again, older than what was saved since. So entries are numbered, rising, and the database keeps for each field
 * up to which number they are in what was saved. An entry at or below that number is never taken up.
 */
const Entry = v.object({ number: v.number(), text: v.string() });

function keyOf(field: string): string | null {
  const { identity } = useWorkspace.getState();
  return identity === null ? null : `juncture/journal/${databaseName(identity)}/${field}`;
}

function entryOf(field: string): v.InferOutput<typeof Entry> | null {
  const key = keyOf(field);
  const stored = key === null ? null : localStorage.getItem(key);
  if (stored === null) return null;
  const parsed = v.safeParse(v.pipe(v.string(), v.parseJson(), Entry), stored);
  return parsed.success ? parsed.output : null;
}

/** Keeps what was typed last in a field, before anything else can happen to the page. */
export function journalise(field: string, text: string): void {
  const key = keyOf(field);
  if (key === null) return;
  const number = Math.max(Date.now(), journalSettledUpTo(field) + 1, (entryOf(field)?.number ?? 0) + 1);
  localStorage.setItem(key, JSON.stringify({ number, text }));
}

/** What was typed last in a field, where it did not get into what was saved. */
export function journalled(field: string): string | null {
  const entry = entryOf(field);
  return entry === null || entry.number <= journalSettledUpTo(field) ? null : entry.text;
}

/**
 * To be called when what a field holds is about to be saved, and the function returned once it is saved: from then on
 * the entry there was at the call is never taken up again, whatever becomes of the browser.
 */
export function settling(field: string): () => Promise<void> {
  const entry = entryOf(field);
  return async () => {
    const key = keyOf(field);
    if (entry === null || key === null) return;
    if (entry.number > journalSettledUpTo(field)) await settleJournalUpTo(field, entry.number);
    if (entryOf(field)?.number === entry.number) localStorage.removeItem(key);
  };
}

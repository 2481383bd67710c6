import * as v from 'valibot';

/** What the journal hangs on: the name that its entries stand under, and the database's word of what was saved. */
interface JournalledWorkspace {
  readonly name: string;
  journalSettledUpTo(field: string): number;
  settleJournalUpTo(field: string, number: number): Promise<void>;
}

const Entry = v.object({ number: v.number(), text: v.string() });

/**
 * The last words typed in a field before its page goes away. The browser's database may come too late then; this is
 * written at once, to localStorage, and taken up when the field is opened again.
 *
 * localStorage reaches the disk seconds late, a cleared entry too: after a crash an entry that was long taken up can be
 * there again, older than what was saved since. So entries are numbered, rising, and the database keeps for each field
 * up to which number they are in what was saved. An entry at or below that number is never taken up.
 */
export class Journal {
  constructor(private readonly workspace: JournalledWorkspace) {}

  private keyOf(field: string): string {
    return `juncture/journal/${this.workspace.name}/${field}`;
  }

  private entryOf(field: string): v.InferOutput<typeof Entry> | null {
    const stored = localStorage.getItem(this.keyOf(field));
    if (stored === null) return null;
    const parsed = v.safeParse(v.pipe(v.string(), v.parseJson(), Entry), stored);
    return parsed.success ? parsed.output : null;
  }

  /** Keeps what was typed last in a field, before anything else can happen to the page. */
  write(field: string, text: string): void {
    const settled = this.workspace.journalSettledUpTo(field);
    const number = Math.max(Date.now(), settled + 1, (this.entryOf(field)?.number ?? 0) + 1);
    localStorage.setItem(this.keyOf(field), JSON.stringify({ number, text }));
  }

  /** What was typed last in a field, where it did not get into what was saved. */
  read(field: string): string | null {
    const entry = this.entryOf(field);
    return entry === null || entry.number <= this.workspace.journalSettledUpTo(field) ? null : entry.text;
  }

  /**
   * To be called when what a field holds is about to be saved, and the function returned once it is saved: from then on
   * the entry there was at the call is never taken up again, whatever becomes of the browser.
   */
  settling(field: string): () => Promise<void> {
    const entry = this.entryOf(field);
    return async () => {
      if (entry === null) return;
      if (entry.number > this.workspace.journalSettledUpTo(field))
        await this.workspace.settleJournalUpTo(field, entry.number);
      if (this.entryOf(field)?.number === entry.number) localStorage.removeItem(this.keyOf(field));
    };
  }
}

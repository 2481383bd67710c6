import * as v from 'valibot';
import { sayingKey } from '#core/saying/saying-of.ts';
import type { Stance } from '#core/model/work.ts';
import { SAYS_VERSION, type Said, type Saying } from '#core/saying/saying.ts';
import { texts } from '../../workers/clients.ts';
import { WorkerStopped } from '../../workers/worker-client.ts';
import type { Workspace } from '../workspace.ts';

/** Its name changes with its bytes, so it tells by which model something was worked out. */
const MODEL = new URL('../../../core/saying/saying.model', import.meta.url).href;
/** By what something was worked out; wherever it is served from, a model is the same. */
const BY = `${new URL(MODEL).pathname} ${SAYS_VERSION}`;
/** Under this key what was worked out is kept beside the records; it can be worked out again at any time. */
const KEPT = 'sayings';
/** So many are worked out at a time, so that whatever else the worker is asked comes in between. */
const AT_ONCE = 60;

const Kept = v.object({
  model: v.string(),
  sayings: v.map(
    v.string(),
    v.custom<Saying>(() => true),
  ),
});

/** Works out what the remarks of a workspace say, in a worker, and keeps it. */
export class Sayings {
  private working = false;
  private unkept = false;
  private end: () => void = () => undefined;

  constructor(private readonly workspace: Workspace) {}

  /** Shows what was worked out before, and works out what is missing, now and whenever remarks come. */
  begin(): void {
    const { store, signal } = this.workspace;
    this.workspace.inBackground(async () => {
      const kept = v.safeParse(Kept, await this.workspace.metaValue(KEPT));
      if (kept.success && kept.output.model === BY) this.workspace.showSayings(kept.output.sayings);
      this.end = store.subscribe((now, before) => {
        if (now.records.remarks !== before.records.remarks) this.workOut();
      });
      signal.addEventListener('abort', () => this.end());
      this.workOut();
    });
  }

  /** What some words say by themselves, each a part of a remark; null where the model can't be reached. */
  async saysOf(pieces: readonly string[]): Promise<readonly Stance[] | null> {
    const said = pieces.map((text) => ({ text, kind: 'text', change: null }));
    const found = await texts.ask((worker) => worker.says(MODEL, said), { signal: this.workspace.signal });
    return found?.map(({ stance }) => stance) ?? null;
  }

  private workOut(): void {
    if (this.working) return;
    this.working = true;
    this.workspace.inBackground(async () => {
      try {
        while (await this.workOutSome());
      } catch (error) {
        // What the worker dies over again and again is left: no shares are shown then.
        if (!(error instanceof WorkerStopped)) throw error;
      } finally {
        this.working = false;
      }
      // What comes from now on begins a round of its own.
      await this.keep();
    });
  }

  /** @returns whether there may be more */
  private async workOutSome(): Promise<boolean> {
    const { remarks, sayings } = this.workspace.records;
    const missing = new Map<string, Said>();
    for (const { text, kind, change } of remarks.values()) {
      const key = sayingKey({ text, kind, change });
      if (!sayings.has(key)) missing.set(key, { text, kind, change });
      if (missing.size === AT_ONCE) break;
    }
    if (missing.size === 0) return false;
    const found = await texts.ask((worker) => worker.says(MODEL, [...missing.values()]), {
      signal: this.workspace.signal,
    });
    // Where the model can't be reached it is tried again when remarks come, or the page is opened anew.
    if (found === null) return false;
    this.workspace.showSayings(new Map([...missing.keys()].map((key, i) => [key, found[i]])));
    this.unkept = true;
    return true;
  }

  private async keep(): Promise<void> {
    if (!this.unkept) return;
    this.unkept = false;
    try {
      await this.workspace.keepMeta(KEPT, { model: BY, sayings: this.workspace.records.sayings });
    } catch (error) {
      // On a full disk it isn't kept, and worked out again the next time.
      if (!(error instanceof DOMException && error.name === 'QuotaExceededError')) throw error;
    }
  }
}

/** Something that was typed and is not kept yet. */
export interface Unkept {
  /** It could not be kept, and still waits. */
  failed(): void;
  kept(): void;
}

export type SavingState = 'saved' | 'saving' | 'failed';

/** Tells truly what is being saved: typed and waiting, under way, or not kept. */
export class Saving {
  private pending = 0;
  /** Fields whose last words could not be kept, and whether the last thing that was to be saved wasn't. */
  private notKept = 0;
  private lastFailed = false;
  private waiting: (() => void)[] = [];

  constructor(private readonly show: (state: SavingState) => void) {}

  private tell(): void {
    this.show(this.notKept > 0 || this.lastFailed ? 'failed' : this.pending > 0 ? 'saving' : 'saved');
    if (this.pending > 0) return;
    for (const resolve of this.waiting.splice(0)) resolve();
  }

  /** Says that something is typed and not kept yet, until it is. */
  hold(): Unkept {
    let state: 'held' | 'failed' | 'kept' = 'held';
    this.pending++;
    this.tell();
    const become = (next: 'failed' | 'kept') => {
      if (state === 'kept') return;
      if (state === 'held') this.pending--;
      if (state === 'failed') this.notKept--;
      if (next === 'failed') this.notKept++;
      state = next;
      this.tell();
    };
    return { failed: () => become('failed'), kept: () => become('kept') };
  }

  async during<T>(work: () => Promise<T>): Promise<T> {
    this.pending++;
    this.tell();
    try {
      const result = await work();
      this.lastFailed = false;
      return result;
    } catch (error) {
      this.lastFailed = true;
      throw error;
    } finally {
      this.pending--;
      this.tell();
    }
  }

  /** Resolves once nothing is being saved any more. */
  whenDone(): Promise<void> {
    return this.pending === 0 ? Promise.resolve() : new Promise((resolve) => this.waiting.push(resolve));
  }
}

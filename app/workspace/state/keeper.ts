import type { Journal } from '../storage/journal.ts';
import type { Unkept } from './saving.ts';

/** What a keeper needs of the workspace. */
interface KeepingWorkspace {
  readonly journal: Pick<Journal, 'write' | 'settling'>;
  holdSaving(): Unkept;
}

/** What was typed is kept after so long at the latest: decisions.md, Undo. */
export const KEEP_AFTER_MS = 200;

/**
 * Keeps what is typed somewhere: soon after it was typed, when the place is left, and in the journal where the page may
 * be gone before. Until it is kept, the workspace says that something is being saved; what could not be kept stays in
 * the journal, and waits for the next that is typed.
 */
export class Keeper<Content> {
  /** What was typed since the last saving began. */
  private unkept: { readonly read: () => Content; readonly hold: Unkept } | null = null;
  private last: (() => Content) | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private underWay = 0;
  private stuck: Unkept | null = null;

  private save: (content: Content) => Promise<void> = () => Promise.resolve();
  private onFailed: () => void = () => undefined;

  /**
   * @param field the name under which the last words before a page goes away are found again
   * @param textOf the content as it stands in the journal
   */
  constructor(
    private readonly workspace: KeepingWorkspace,
    private readonly field: string,
    private readonly textOf: (content: Content) => string,
  ) {}

  /** From now on it is kept so; `onFailed` is told when it could not be. */
  keepBy(save: (content: Content) => Promise<void>, onFailed: () => void = () => undefined): void {
    this.save = save;
    this.onFailed = onFailed;
  }

  /** Whether nothing was typed since the saving that is under way began, and no other is. */
  private get isLastSaving(): boolean {
    return this.unkept === null && this.underWay === 1;
  }

  /** Something was typed. `read` gives the whole content as it is when it is saved. */
  changed(read: () => Content): void {
    this.last = read;
    if (this.unkept !== null) {
      this.unkept = { read, hold: this.unkept.hold };
      return;
    }
    this.unkept = { read, hold: this.workspace.holdSaving() };
    // Not put off by further typing: a killed tab loses no more than this.
    this.timer = setTimeout(() => void this.keepNow(), KEEP_AFTER_MS);
  }

  /** Keeps at once what was typed. Never rejects: what could not be kept is in the journal, and the workspace says so. */
  async keepNow(): Promise<void> {
    if (this.unkept === null) return;
    const { read, hold } = this.unkept;
    this.unkept = null;
    clearTimeout(this.timer);
    const content = read();
    const { journal } = this.workspace;
    const settled = journal.settling(this.field);
    this.underWay++;
    try {
      await this.save(content);
      // An entry made meanwhile is of this content, unless more was typed.
      await (this.isLastSaving ? journal.settling(this.field) : settled)();
      hold.kept();
      this.stuck?.kept();
      this.stuck = null;
    } catch {
      journal.write(this.field, this.textOf(content));
      hold.failed();
      this.stuck?.kept();
      this.stuck = hold;
      this.onFailed();
    } finally {
      this.underWay--;
    }
  }

  /** The page or the place may be gone in a moment: what is not surely kept goes into the journal. */
  leave(): void {
    // What is under way may not arrive any more.
    const unsure = this.unkept !== null || this.underWay > 0;
    if (unsure && this.last !== null) this.workspace.journal.write(this.field, this.textOf(this.last()));
    void this.keepNow();
  }
}

import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Instant } from '#core/model/ids.ts';
import type { UnreadFact } from '#formats/desk/wire.ts';
import {
  loadRecords,
  loadSettled,
  openWorkspaceDatabase,
  SETTLED,
  type Change,
  type GoneRow,
  type StoredRow,
  type WorkspaceDatabase,
} from './storage/database.ts';
import type { DeskCaller } from './desk/desk-client.ts';
import { Deliveries } from './desk/deliveries.ts';
import type { DeskLink } from './desk/desk-link.ts';
import { Downloads } from './desk/downloads.ts';
import { databaseName, deskStudent, type Identity } from './identity.ts';
import { Journal } from './storage/journal.ts';
import { KeptViews, nextMoment } from './state/kept-views.ts';
import { emptyRecords, type ReadPaper, type RecordMaps } from './storage/records.ts';
import { TakingIn } from './taking-in/taking-in.ts';
import { Bodies } from './state/bodies.ts';
import { sweepBodies, unpackText, type Body } from './storage/bodies.ts';
import { DeskClock } from './state/clock.ts';
import { Sayings } from './state/sayings.ts';
import type { Saying } from '#core/saying/saying.ts';
import { Saving, type SavingState, type Unkept } from './state/saving.ts';
import { moveInHistory, nextInHistory, transact, withChanges, type Writing } from './storage/transact.ts';
import { Visits } from './state/visits.ts';

type Connection = 'asking' | 'reached' | 'not reached' | 'not understood' | 'signed out' | 'none';

/** What is shown of an open workspace. */
export interface WorkspaceState {
  readonly records: RecordMaps;
  /** The time that is shown, ms since 1970: it goes on when records change and when a moment comes that changes them. */
  readonly atMs: number;
  readonly connection: Connection;
  readonly lastReachedAt: number | null;
  /** What the desk sent and could not be read here. */
  readonly unreadFacts: readonly UnreadFact[];
  readonly saving: SavingState;
  /** A newer Juncture in another tab has brought the storage up to date. */
  readonly outdated: boolean;
}

/** Thrown at whoever goes on working for a workspace that was left. */
class WorkspaceClosed extends Error {}

/** What became of taking something back, or of doing it again. */
export type Undone =
  | {
      readonly kind: 'done';
      readonly label: string;
      /** What it was about, where it was one remark. */
      readonly remarkId: string | null;
    }
  | { readonly kind: 'nothing' | 'changed since' };

/** Timers of browsers can't wait longer, and what is told in days goes on too. */
const LONGEST_WAIT_MS = 3_600_000;

/**
 * An open workspace: its database, its channel to other tabs, its clock, and whatever is under way for it. Commands and
 * downloads are given it; what they write goes here and nowhere else, and when it is closed they end.
 */
export class Workspace {
  readonly name: string;
  readonly store: StoreApi<WorkspaceState>;
  readonly journal: Journal;
  readonly views = new KeptViews();
  readonly visits: Visits;
  readonly downloads: Downloads;
  readonly deliveries: Deliveries;
  readonly takingIn: TakingIn;
  readonly bodies: Bodies;
  readonly sayings: Sayings;
  /** Its connection to the course desk; null while there is none. */
  desk: DeskLink | null = null;
  private readonly saving: Saving;
  private readonly channel: BroadcastChannel;
  private readonly over = new AbortController();
  private alarm: ReturnType<typeof setTimeout> | undefined;
  private settled: ReadonlyMap<string, number> = new Map();

  constructor(
    readonly identity: Identity,
    private readonly openDatabase: WorkspaceDatabase,
    readonly clock: DeskClock,
  ) {
    this.name = databaseName(identity);
    this.store = createStore<WorkspaceState>(() => ({
      records: emptyRecords(),
      atMs: clock.nowMs(),
      connection: identity.kind === 'student' ? 'asking' : 'none',
      lastReachedAt: null,
      unreadFacts: [],
      saving: 'saved',
      outdated: false,
    }));
    this.saving = new Saving((saving) => this.store.setState({ saving }));
    this.journal = new Journal(this);
    this.visits = new Visits(this);
    this.downloads = new Downloads(this);
    this.deliveries = new Deliveries(this);
    this.takingIn = new TakingIn(this);
    this.sayings = new Sayings(this);
    this.bodies = new Bodies((hash) => this.database.get('bodies', hash));
    this.channel = new BroadcastChannel(this.name);
    this.channel.onmessage = ({ data }: MessageEvent<Change[] | 'replaced'>) => {
      if (data === 'replaced') this.inBackground(() => this.reload());
      else this.showRecords(withChanges(this.records, data));
    };
  }

  /** Aborts when the workspace is left. */
  get signal(): AbortSignal {
    return this.over.signal;
  }

  /** As whom, and for how long, it asks the course desk. */
  get caller(): DeskCaller {
    const { identity, signal } = this;
    return { of: identity.kind === 'student' ? deskStudent(identity) : '', signal };
  }

  /** Whether nothing that is done in it is kept. */
  get isShown(): boolean {
    return this.identity.kind === 'shown';
  }

  get records(): RecordMaps {
    return this.store.getState().records;
  }

  /** The time, as the desk's clock has it. */
  nowMs(): number {
    return this.clock.nowMs();
  }
  now(): Instant {
    return this.clock.now();
  }

  /** @throws WorkspaceClosed once it was left */
  private get database(): WorkspaceDatabase {
    if (this.signal.aborted) throw new WorkspaceClosed(`${this.name} was left`);
    return this.openDatabase;
  }

  /** Leaves it: what is under way for it ends, and nothing is written to it any more. */
  close(): void {
    this.over.abort();
    this.takingIn.close();
    clearTimeout(this.alarm);
    this.channel.close();
    this.openDatabase.close();
  }

  /** Begins work that nobody waits for. It ends without a word when the workspace is left; what else fails is thrown on. */
  inBackground(work: () => Promise<unknown>): void {
    work().catch((error: unknown) => {
      if (!this.signal.aborted) throw error;
    });
  }

  async reload(): Promise<void> {
    const loaded = (await loadRecords(this.database)) as unknown as RecordMaps;
    const records = { ...loaded, sayings: this.records.sayings };
    this.settled = await loadSettled(this.database);
    this.showRecords(records);
  }

  private showRecords(records: RecordMaps): void {
    if (this.signal.aborted) return;
    const { atMs } = this.store.getState();
    // The time that is shown stands still until it changes something, so that not all is drawn anew with each change.
    const now = this.nowMs();
    this.store.setState({ records, atMs: nextMoment(records, atMs) <= now ? now : atMs });
    this.setAlarm();
  }

  /** Adds what remarks were found to say; nothing of it is a record. */
  showSayings(found: ReadonlyMap<string, Saying>): void {
    const { records } = this;
    if (found.size > 0) this.showRecords({ ...records, sayings: new Map([...records.sayings, ...found]) });
  }

  /** The page goes on by itself when a time comes that something opens, is due or closes at. */
  private setAlarm(): void {
    clearTimeout(this.alarm);
    const wait = nextMoment(this.records, this.nowMs()) - this.nowMs();
    this.alarm = setTimeout(
      () => {
        this.store.setState({ atMs: this.nowMs() });
        this.setAlarm();
      },
      Math.max(0, Math.min(wait, LONGEST_WAIT_MS)),
    );
  }

  /** Takes over the desk's time; what is shown goes by it at once. */
  setClockByDesk(deskNow: Instant): void {
    this.clock.setByDesk(deskNow);
    this.store.setState({ atMs: this.nowMs() });
    this.setAlarm();
  }

  /** Says that something is typed and not kept yet, until it is. */
  holdSaving(): Unkept {
    return this.saving.hold();
  }

  /** Resolves once nothing is being saved any more. */
  whenSaved(): Promise<void> {
    return this.saving.whenDone();
  }

  /** Up to which number the entries of a field's journal are in what was saved (journal.ts). */
  journalSettledUpTo(field: string): number {
    return this.settled.get(SETTLED + field) ?? 0;
  }

  async settleJournalUpTo(field: string, number: number): Promise<void> {
    await this.saving.during(async () => {
      const transaction = this.database.transaction('meta', 'readwrite', { durability: 'strict' });
      await transaction.store.put(number, SETTLED + field);
      await transaction.done;
    });
    this.settled = new Map(this.settled).set(SETTLED + field, number);
  }

  private show(changes: Change[]): void {
    if (changes.length === 0 || this.signal.aborted) return;
    this.showRecords(withChanges(this.records, changes));
    this.channel.postMessage(changes);
  }

  /** Carries out a command that the student can take back. It shows only once it is saved. */
  async run(
    scope: string | readonly string[],
    label: string,
    work: (writing: Writing) => Promise<void>,
    typing?: string,
  ): Promise<void> {
    if (this.isShown) return;
    const scopes = typeof scope === 'string' ? [scope] : scope;
    const undo = { scopes, label, ...(typing !== undefined && { typing }) };
    this.show(await this.saving.during(() => transact(this.database, undo, work, this.now())));
  }

  /** Saves what can't be taken back: facts, time spent reading, typing. */
  async save(work: (writing: Writing) => Promise<void>): Promise<void> {
    if (this.isShown) return;
    this.show(await this.saving.during(() => transact(this.database, null, work, this.now())));
  }

  /** Takes back the last command of an assignment, or of another scope. */
  undoLast(scope: string): Promise<Undone> {
    return this.move(scope, 'undo');
  }

  /** Does again what was taken back last. */
  redoNext(scope: string): Promise<Undone> {
    return this.move(scope, 'redo');
  }

  private async move(scope: string, which: 'undo' | 'redo'): Promise<Undone> {
    const entry = await nextInHistory(this.database, scope, which);
    if (entry === null) return { kind: 'nothing' };
    const changes = await this.saving.during(() => moveInHistory(this.database, entry, which, this.now()));
    if (changes === null) return { kind: 'changed since' };
    this.show(changes);
    const about = new Set(
      changes.flatMap(({ store, key }) => (store === 'judgements' || store === 'readings' ? [key] : [])),
    );
    const [only] = about;
    return { kind: 'done', label: entry.label, remarkId: about.size === 1 ? only : null };
  }

  /** Every record as it is stored, and what was taken out. */
  async storedRows(): Promise<{ rows: StoredRow[]; gone: GoneRow[] }> {
    const transaction = this.database.transaction(['records', 'gone']);
    const [rows, gone] = await Promise.all([
      transaction.objectStore('records').getAll(),
      transaction.objectStore('gone').getAll(),
    ]);
    return { rows, gone };
  }

  async fileBytes(hash: string): Promise<Uint8Array<ArrayBuffer> | null> {
    return (await this.database.get('bytes', hash)) ?? null;
  }

  /** The document of a draft or version as JSON; null where there is none of that hash. */
  async bodyText(hash: string): Promise<string | null> {
    const bytes = await this.database.get('bodies', hash);
    return bytes === undefined ? null : unpackText(bytes);
  }

  /** The beginning of a file whose download broke off; empty where there is none. */
  async partialBytes(hash: string): Promise<Uint8Array<ArrayBuffer>> {
    return (await this.database.get('bytes', partialKey(hash))) ?? new Uint8Array();
  }

  async keepPartialBytes(hash: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
    if (bytes.length === 0) await this.database.delete('bytes', partialKey(hash));
    else await this.database.put('bytes', bytes, partialKey(hash));
  }

  async readPaper(hash: string): Promise<ReadPaper | null> {
    return (await this.database.get('papers', hash)) ?? null;
  }

  /** Keeps something that is derived, and may be lost. */
  async keepMeta(key: string, value: unknown): Promise<void> {
    await this.database.put('meta', value, key);
  }

  async metaValue(key: string): Promise<unknown> {
    return this.database.get('meta', key);
  }

  /** Replaces everything in the workspace, in one transaction: all of it or nothing. */
  async replaceAll(
    kept: {
      readonly rows: readonly StoredRow[];
      readonly gone: readonly GoneRow[];
      readonly files: ReadonlyMap<string, Uint8Array<ArrayBuffer>>;
      readonly bodies: readonly Body[];
    },
    meta: Readonly<Record<string, unknown>>,
  ): Promise<void> {
    await this.saving.during(async () => {
      const stores = ['records', 'gone', 'bodies', 'bytes', 'papers', 'history', 'meta'] as const;
      const transaction = this.database.transaction(stores, 'readwrite', { durability: 'strict' });
      await Promise.all(stores.map((name) => transaction.objectStore(name).clear()));
      for (const row of kept.rows) void transaction.objectStore('records').put(row);
      for (const row of kept.gone) void transaction.objectStore('gone').put(row);
      for (const { hash, bytes } of kept.bodies) void transaction.objectStore('bodies').put(bytes, hash);
      for (const [hash, content] of kept.files) void transaction.objectStore('bytes').put(content, hash);
      for (const [key, number] of this.settled) void transaction.objectStore('meta').put(number, key);
      for (const [key, value] of Object.entries(meta)) void transaction.objectStore('meta').put(value, key);
      await transaction.done;
    });
    await this.reload();
    this.channel.postMessage('replaced');
  }
}

function partialKey(hash: string): string {
  return `partial/${hash}`;
}

const OPENING_TRIES = 8;
const TRY_AGAIN_MS = 500;

/** After a crash the browser may still be putting its storage in order: opening is tried again for a while. */
async function openWithPatience(name: string, onOutdated: () => void): Promise<WorkspaceDatabase> {
  for (let tries = 1; ; tries++) {
    try {
      return await openWorkspaceDatabase(name, onOutdated);
    } catch (error) {
      if (tries === OPENING_TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, TRY_AGAIN_MS));
    }
  }
}

/** Opens a workspace with what is in it. Changes made in other tabs are taken over as they come. */
export async function openWorkspace(identity: Identity, clock = new DeskClock()): Promise<Workspace> {
  const database = await openWithPatience(databaseName(identity), () => {
    workspace.store.setState({ outdated: true });
  });
  const workspace = new Workspace(identity, database, clock);
  await workspace.reload();
  workspace.inBackground(() => sweepBodies(database));
  return workspace;
}

import { create } from 'zustand';
import { instantOf, type Instant } from '#core/model/ids.ts';
import type { UnreadFact } from '#formats/desk/wire.ts';
import {
  loadRecords,
  loadSettled,
  openWorkspaceDatabase,
  SETTLED,
  type Change,
  type WorkspaceDatabase,
} from './database.ts';
import { emptyRecords, type ReadPaper, type RecordMaps } from './records.ts';
import { lastUndoable, transact, undoEntry, withChanges, type Writing } from './transact.ts';

/** Whose workspace is open. */
export type Identity =
  | {
      readonly kind: 'student';
      readonly deskId: string;
      readonly studentId: string;
      readonly studentName: string;
    }
  | { readonly kind: 'files alone' };

type Connection = 'asking' | 'reached' | 'not reached' | 'not understood' | 'signed out' | 'none';

interface WorkspaceState {
  readonly identity: Identity | null;
  readonly records: RecordMaps;
  readonly connection: Connection;
  readonly lastReachedAt: number | null;
  /** What the desk sent and could not be read here. */
  readonly unreadFacts: readonly UnreadFact[];
  readonly saving: 'saved' | 'saving' | 'failed';
  readonly outdated: boolean;
}

export const useWorkspace = create<WorkspaceState>(() => ({
  identity: null,
  records: emptyRecords(),
  connection: 'asking',
  lastReachedAt: null,
  unreadFacts: [],
  saving: 'saved',
  outdated: false,
}));

let database: WorkspaceDatabase | null = null;
let channel: BroadcastChannel | null = null;
const CLOCK = 'juncture/clock';
let clockOffsetMs = typeof localStorage === 'undefined' ? 0 : Number(localStorage.getItem(CLOCK) ?? 0);
let pending = 0;
/** Fields whose last words could not be kept, and whether the last thing that was to be saved wasn't. */
let notKept = 0;
let lastFailed = false;
/** For fields that had a journal entry: up to which number entries are in what is saved (see journal.ts). */
let settled: ReadonlyMap<string, number> = new Map();

/** The time, as the desk's clock has it. */
export function nowMs(): number {
  return Date.now() + clockOffsetMs;
}
export function now(): Instant {
  return instantOf(nowMs());
}
export function setClockByDesk(deskNow: Instant): void {
  const offset = Date.parse(deskNow) - Date.now();
  // The way to the desk takes time of its own; less than this is no difference of clocks.
  clockOffsetMs = Math.abs(offset) > 2500 ? offset : 0;
  localStorage.setItem(CLOCK, String(clockOffsetMs));
}

function openDatabase(): WorkspaceDatabase {
  if (database === null) throw new Error('no workspace is open');
  return database;
}

export function databaseName(identity: Identity): string {
  return identity.kind === 'files alone'
    ? 'juncture/files'
    : `juncture/${identity.deskId}/${identity.studentId}`;
}

const OPENING_TRIES = 8;
const TRY_AGAIN_MS = 500;

/** After a crash the browser may still be putting its storage in order: opening is tried again for a while. */
async function openWithPatience(name: string): Promise<WorkspaceDatabase> {
  for (let tries = 1; ; tries++) {
    try {
      return await openWorkspaceDatabase(name, () => useWorkspace.setState({ outdated: true }));
    } catch (error) {
      if (tries === OPENING_TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, TRY_AGAIN_MS));
    }
  }
}

/** Opens a workspace and shows what is in it. Changes made in other tabs are taken over as they come. */
export async function openWorkspace(identity: Identity): Promise<void> {
  closeWorkspace();
  const name = databaseName(identity);
  database = await openWithPatience(name);
  channel = new BroadcastChannel(name);
  channel.onmessage = ({ data }: MessageEvent<Change[] | 'replaced'>) => {
    if (data === 'replaced') void reloadRecords();
    else useWorkspace.setState((state) => ({ records: withChanges(state.records, data) }));
  };
  await reloadRecords();
  useWorkspace.setState({ identity });
}

export function closeWorkspace(): void {
  channel?.close();
  database?.close();
  channel = null;
  database = null;
  useWorkspace.setState({ identity: null, records: emptyRecords() });
}

async function reloadRecords(): Promise<void> {
  const loaded = (await loadRecords(openDatabase())) as unknown as RecordMaps;
  settled = await loadSettled(openDatabase());
  useWorkspace.setState({ records: loaded });
}

function showSaving(): void {
  const saving = notKept > 0 || lastFailed ? 'failed' : pending > 0 ? 'saving' : 'saved';
  useWorkspace.setState({ saving });
}

/** Something that was typed and is not kept yet. */
export interface Unkept {
  /** It could not be kept, and still waits. */
  failed(): void;
  kept(): void;
}

/** Says that something is typed and not kept yet, until it is. */
export function holdSaving(): Unkept {
  let state: 'held' | 'failed' | 'kept' = 'held';
  pending++;
  showSaving();
  const become = (next: 'failed' | 'kept') => {
    if (state === 'kept') return;
    if (state === 'held') pending--;
    if (state === 'failed') notKept--;
    if (next === 'failed') notKept++;
    state = next;
    showSaving();
  };
  return { failed: () => become('failed'), kept: () => become('kept') };
}

async function whileSaving<T>(work: () => Promise<T>): Promise<T> {
  pending++;
  showSaving();
  try {
    const result = await work();
    lastFailed = false;
    return result;
  } catch (error) {
    lastFailed = true;
    throw error;
  } finally {
    pending--;
    showSaving();
  }
}

/** Resolves once nothing is being saved any more. */
export function whenSaved(): Promise<void> {
  return new Promise((resolve) => {
    if (pending === 0) {
      resolve();
      return;
    }
    const stop = useWorkspace.subscribe(() => {
      if (pending > 0) return;
      stop();
      resolve();
    });
  });
}

export function journalSettledUpTo(field: string): number {
  return settled.get(SETTLED + field) ?? 0;
}

export async function settleJournalUpTo(field: string, number: number): Promise<void> {
  await whileSaving(async () => {
    const transaction = openDatabase().transaction('meta', 'readwrite', { durability: 'strict' });
    await transaction.store.put(number, SETTLED + field);
    await transaction.done;
  });
  settled = new Map(settled).set(SETTLED + field, number);
}

function show(changes: Change[]): void {
  if (changes.length === 0) return;
  useWorkspace.setState((state) => ({ records: withChanges(state.records, changes) }));
  channel?.postMessage(changes);
}

/** Carries out a command that the student can take back. It shows only once it is saved. */
export async function runCommand(
  assignmentId: string,
  label: string,
  work: (writing: Writing) => Promise<void>,
  typing?: string,
): Promise<void> {
  const undo = { assignmentId, label, ...(typing !== undefined && { typing }) };
  show(await whileSaving(() => transact(openDatabase(), undo, work)));
}

/** Saves what can't be taken back: facts, time spent reading, typing. */
export async function save(work: (writing: Writing) => Promise<void>): Promise<void> {
  show(await whileSaving(() => transact(openDatabase(), null, work)));
}

export type Undone =
  { readonly kind: 'undone'; readonly label: string } | { readonly kind: 'nothing' | 'changed since' };

/** Takes back the last command on an assignment. */
export async function undoLast(assignmentId: string): Promise<Undone> {
  const entry = await lastUndoable(openDatabase(), assignmentId);
  if (entry === null) return { kind: 'nothing' };
  const changes = await whileSaving(() => undoEntry(openDatabase(), entry));
  if (changes === null) return { kind: 'changed since' };
  show(changes);
  return { kind: 'undone', label: entry.label };
}

export async function fileBytes(hash: string): Promise<Uint8Array<ArrayBuffer> | null> {
  return (await openDatabase().get('bytes', hash)) ?? null;
}

/** The beginning of a file whose download broke off; empty where there is none. */
export async function partialBytes(hash: string): Promise<Uint8Array<ArrayBuffer>> {
  return (await openDatabase().get('bytes', partialKey(hash))) ?? new Uint8Array();
}

export async function keepPartialBytes(hash: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
  if (bytes.length === 0) await openDatabase().delete('bytes', partialKey(hash));
  else await openDatabase().put('bytes', bytes, partialKey(hash));
}

function partialKey(hash: string): string {
  return `partial/${hash}`;
}

export async function readPaper(hash: string): Promise<ReadPaper | null> {
  return (await openDatabase().get('papers', hash)) ?? null;
}

export async function metaValue(key: string): Promise<unknown> {
  return openDatabase().get('meta', key);
}

/** Replaces everything in the workspace, in one transaction: all of it or nothing. */
export async function replaceAll(
  rows: readonly { readonly store: keyof RecordMaps; readonly key: string; readonly record: unknown }[],
  bytes: ReadonlyMap<string, Uint8Array<ArrayBuffer>>,
  meta: Readonly<Record<string, unknown>>,
): Promise<void> {
  await whileSaving(async () => {
    const transaction = openDatabase().transaction(
      ['records', 'bytes', 'papers', 'history', 'meta'],
      'readwrite',
      {
        durability: 'strict',
      },
    );
    await Promise.all(
      (['records', 'bytes', 'papers', 'history', 'meta'] as const).map((name) =>
        transaction.objectStore(name).clear(),
      ),
    );
    for (const row of rows) void transaction.objectStore('records').put({ ...row });
    for (const [hash, content] of bytes) void transaction.objectStore('bytes').put(content, hash);
    for (const [key, number] of settled) void transaction.objectStore('meta').put(number, key);
    for (const [key, value] of Object.entries(meta)) void transaction.objectStore('meta').put(value, key);
    await transaction.done;
  });
  await reloadRecords();
  channel?.postMessage('replaced');
}

import {
  recordStores,
  type ReadPaper,
  type RecordByStore,
  type RecordMaps,
  type StoreName,
} from './records.ts';
import type { IDBPObjectStore, StoreNames } from 'idb';
import * as v from 'valibot';
import type { Body } from './bodies.ts';
import { Reading } from '#core/model/work.ts';
import type { Change, HistoryEntry, Undoable, WorkspaceDatabase, WorkspaceSchema } from './database.ts';

/** What a command may do while its transaction is open. */
export interface Writing {
  get<Store extends StoreName>(store: Store, key: string): Promise<RecordByStore[Store] | null>;
  all<Store extends StoreName>(store: Store): Promise<RecordByStore[Store][]>;
  /** @param at when it was changed; not said: now */
  put<Store extends StoreName>(store: Store, record: RecordByStore[Store], at?: string): Promise<void>;
  remove(store: StoreName, key: string, at?: string): Promise<void>;
  /** The document of a draft or version, under its hash. */
  putBody(body: Body): void;
  removeBody(hash: string): void;
  putBytes(hash: string, bytes: Uint8Array<ArrayBuffer>): void;
  putPaper(paper: ReadPaper): void;
  /** What is derived from a file is derived again when it is wanted. */
  removePaper(hash: string): void;
  removeBytes(hash: string): void;
  setMeta(key: string, value: unknown): void;
}

/** So much of a scope can be taken back (decisions.md, Undo). */
const HISTORY_KEPT = 300;

/** Changes followed by later ones of the same spell of typing, as one change. */
function joined(earlier: readonly Change[], later: readonly Change[]): Change[] {
  const byRecord = new Map(earlier.map((change) => [`${change.store}/${change.key}`, change]));
  for (const change of later) {
    const id = `${change.store}/${change.key}`;
    byRecord.set(id, { ...change, before: (byRecord.get(id) ?? change).before });
  }
  return [...byRecord.values()];
}

/**
 * Carries out a command: everything it writes is saved together or not at all. With a label it can be undone, and its
 * inverse is stored in the same transaction.
 * @param now when it is, noted with each record
 */
export async function transact(
  database: WorkspaceDatabase,
  undo: Undoable | null,
  work: (writing: Writing) => Promise<void>,
  now?: string,
): Promise<Change[]> {
  const transaction = database.transaction(
    ['records', 'gone', 'bodies', 'bytes', 'papers', 'history', 'meta'],
    'readwrite',
    { durability: 'strict' },
  );
  const records = transaction.objectStore('records');
  const changes = new Map<string, Change>();
  /** Records as they were before, so that none is asked for twice. */
  const stored = new Map<string, Promise<unknown>>();
  const storedRecord = (store: StoreName, key: string) => {
    const id = `${store}/${key}`;
    const record = stored.get(id) ?? records.get([store, key]).then((row) => row?.record ?? null);
    stored.set(id, record);
    return record;
  };
  const gone = transaction.objectStore('gone');
  const write = async (store: StoreName, key: string, after: unknown, at = now) => {
    const before = await storedRecord(store, key);
    changes.set(`${store}/${key}`, { store, key, before, after });
    await putRow({ records, gone }, store, key, after, at);
  };
  const writing: Writing = {
    async get(store, key) {
      const written = changes.get(`${store}/${key}`);
      const record = written === undefined ? await storedRecord(store, key) : written.after;
      return record as RecordByStore[typeof store] | null;
    },
    async all(store) {
      const found = await records.getAll(IDBKeyRange.bound([store], [store, []]));
      return found.map((row) => row.record as RecordByStore[typeof store]);
    },
    put: (store, record, at) => write(store, recordStores[store].keyOf(record), record, at),
    remove: (store, key, at) => write(store, key, null, at),
    putBody: ({ hash, bytes }) => toldByAll(transaction.objectStore('bodies').put(bytes, hash)),
    removeBody: (hash) => toldByAll(transaction.objectStore('bodies').delete(hash)),
    putBytes: (hash, bytes) => toldByAll(transaction.objectStore('bytes').put(bytes, hash)),
    putPaper: (paper) => toldByAll(transaction.objectStore('papers').put(paper)),
    removePaper: (hash) => toldByAll(transaction.objectStore('papers').delete(hash)),
    removeBytes: (hash) => toldByAll(transaction.objectStore('bytes').delete(hash)),
    setMeta: (key, value) => toldByAll(transaction.objectStore('meta').put(value, key)),
  };
  try {
    await work(writing);
    const list = [...changes.values()];
    if (undo !== null && list.length > 0)
      await writeHistory(transaction.objectStore('history'), withScopesOf(undo, list), list);
    await transaction.done;
    return list;
  } catch (error) {
    transaction.done.catch(() => undefined);
    try {
      transaction.abort();
    } catch {
      // It had ended already: the browser aborted it, for instance since the disk is full.
    }
    throw error;
  }
}

/** Writes a record, or takes it out and notes that. */
async function putRow(
  { records, gone }: { records: Table<'records'>; gone: Table<'gone'> },
  store: StoreName,
  key: string,
  record: unknown,
  at: string | undefined,
): Promise<void> {
  if (record === null) {
    await records.delete([store, key]);
    if (at !== undefined) await gone.put({ store, key, at });
    return;
  }
  await records.put({ store, key, record, ...(at !== undefined && { at }) });
  await gone.delete([store, key]);
}

type Table<Name extends StoreNames<WorkspaceSchema>> = IDBPObjectStore<
  WorkspaceSchema,
  ArrayLike<StoreNames<WorkspaceSchema>>,
  Name,
  'readwrite'
>;

/** A request that nobody waits for: if it fails, the whole transaction does and tells. */
function toldByAll(request: Promise<unknown>): void {
  request.catch(() => undefined);
}

type History = Table<'history'>;

const Scoped = v.object({ assignmentId: v.nullable(v.string()) });

/** A command belongs to every assignment that one of its records belongs to, before or after it. */
function withScopesOf(undo: Undoable, changes: readonly Change[]): Undoable {
  const touched = changes.flatMap(({ store, key, before, after }) =>
    store === 'assignments'
      ? [key]
      : [before, after].flatMap((record) => {
          const scoped = v.safeParse(Scoped, record);
          return scoped.success && scoped.output.assignmentId !== null ? [scoped.output.assignmentId] : [];
        }),
  );
  return { ...undo, scopes: [...new Set([...undo.scopes, ...touched])] };
}

/** Writes a command down; what was taken back in its scopes before can't be done again any more. */
async function writeHistory(history: History, undo: Undoable, changes: readonly Change[]): Promise<void> {
  const entries = new Map<number, HistoryEntry>();
  for (const scope of undo.scopes)
    for (const entry of await history.index('scopes').getAll(scope)) entries.set(entry.seq ?? 0, entry);
  const known = [...entries.values()].sort((x, y) => (x.seq ?? 0) - (y.seq ?? 0));
  for (const { seq, undone } of known) if (undone && seq !== undefined) await history.delete(seq);
  const done = known.filter(({ undone }) => !undone);
  const last = done.at(-1);
  if (last !== undefined && undo.typing !== undefined && last.typing === undo.typing)
    await history.put({ ...last, changes: joined(last.changes, changes) });
  else await history.add({ ...undo, changes, undone: false });
  const kept = new Map(done.map((entry) => [entry, entry.scopes]));
  for (const scope of undo.scopes) {
    const own = done.filter(({ scopes }) => scopes.includes(scope));
    for (const entry of own.slice(0, Math.max(0, own.length + 1 - HISTORY_KEPT)))
      kept.set(entry, kept.get(entry)?.filter((one) => one !== scope) ?? []);
  }
  // It goes from the scope that is full, and altogether only when no other holds it.
  for (const [entry, scopes] of kept) {
    if (scopes.length === entry.scopes.length || entry.seq === undefined) continue;
    if (scopes.length === 0) await history.delete(entry.seq);
    else await history.put({ ...entry, scopes });
  }
}

/** What would be taken back next in a scope, or done again. */
export async function nextInHistory(
  database: WorkspaceDatabase,
  scope: string,
  which: 'undo' | 'redo',
): Promise<HistoryEntry | null> {
  const entries = (await database.getAllFromIndex('history', 'scopes', scope)).sort(
    (x, y) => (x.seq ?? 0) - (y.seq ?? 0),
  );
  return (
    (which === 'undo' ? entries.findLast(({ undone }) => !undone) : entries.find(({ undone }) => undone)) ??
    null
  );
}

function same(x: unknown, y: unknown): boolean {
  return JSON.stringify(x) === JSON.stringify(y);
}

/** Takes a change back, or does it again; null where a later change touched one of its records. */
export async function moveInHistory(
  database: WorkspaceDatabase,
  entry: HistoryEntry,
  which: 'undo' | 'redo',
  at?: string,
): Promise<Change[] | null> {
  const undone = which === 'undo';
  // Done again, what was before it is after it.
  const changes = entry.changes.map(({ before, after, ...change }) =>
    undone ? { ...change, before: after, after: before } : { ...change, before, after },
  );
  const transaction = database.transaction(['records', 'gone', 'history'], 'readwrite', {
    durability: 'strict',
  });
  const records = transaction.objectStore('records');
  const gone = transaction.objectStore('gone');
  const moved: Change[] = [];
  for (const { store, key, before, after } of changes) {
    const now = (await records.get([store, key]))?.record ?? null;
    if (store === 'readings')
      moved.push({ store, key, before: now, after: readingMoved(now, before, after) });
    else if (same(now, before)) moved.push({ store, key, before, after });
    else {
      await transaction.done;
      return null;
    }
  }
  for (const { store, key, after } of moved) await putRow({ records, gone }, store, key, after, at);
  await transaction.objectStore('history').put({ ...entry, undone });
  await transaction.done;
  return moved;
}

/**
 * A reading as it is after a command about it was moved. Time spent reading goes on whatever is taken back or done again: it
 * stands in the way of neither, and stays.
 * @param before how the command left it; what was said anew since, and is read as that, stays as it is
 */
function readingMoved(now: unknown, before: unknown, after: unknown): unknown {
  if (same(now, before)) return after;
  const [is, was, wanted] = [now, before, after].map((record) => {
    const parsed = v.safeParse(Reading, record);
    return parsed.success ? parsed.output : null;
  });
  if (is === null) return after;
  const of = (was ?? wanted)?.of;
  if (of !== undefined && is.of !== of) return now;
  if (wanted === null) return { ...is, read: false };
  return { ...wanted, seenMs: Math.max(is.seenMs, wanted.seenMs) };
}

/** The records with changes made; stores that nothing changed in keep their identity. */
export function withChanges(records: RecordMaps, changes: readonly Change[]): RecordMaps {
  const next: Record<string, Map<string, unknown>> = {};
  for (const { store, key, after } of changes) {
    next[store] ??= new Map<string, unknown>(records[store]);
    if (after === null) next[store].delete(key);
    else next[store].set(key, after);
  }
  return { ...records, ...(next as unknown as Partial<RecordMaps>) };
}

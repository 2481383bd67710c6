import {
  recordStores,
  type ReadPaper,
  type RecordByStore,
  type RecordMaps,
  type StoreName,
} from './records.ts';
import type { Change, HistoryEntry, Undoable, WorkspaceDatabase } from './database.ts';

/** What a command may do while its transaction is open. */
export interface Writing {
  get<Store extends StoreName>(store: Store, key: string): Promise<RecordByStore[Store] | null>;
  all<Store extends StoreName>(store: Store): Promise<RecordByStore[Store][]>;
  put<Store extends StoreName>(store: Store, record: RecordByStore[Store]): Promise<void>;
  remove(store: StoreName, key: string): Promise<void>;
  putBytes(hash: string, bytes: Uint8Array<ArrayBuffer>): void;
  putPaper(paper: ReadPaper): void;
  /** What is derived from a file is derived again when it is wanted. */
  removePaper(hash: string): void;
  removeBytes(hash: string): void;
  setMeta(key: string, value: unknown): void;
}

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
 */
export async function transact(
  database: WorkspaceDatabase,
  undo: Undoable | null,
  work: (writing: Writing) => Promise<void>,
): Promise<Change[]> {
  const transaction = database.transaction(['records', 'bytes', 'papers', 'history', 'meta'], 'readwrite', {
    durability: 'strict',
  });
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
  const write = async (store: StoreName, key: string, after: unknown) => {
    const before = await storedRecord(store, key);
    changes.set(`${store}/${key}`, { store, key, before, after });
    if (after === null) await records.delete([store, key]);
    else await records.put({ store, key, record: after });
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
    put: (store, record) => write(store, recordStores[store].keyOf(record), record),
    remove: (store, key) => write(store, key, null),
    putBytes: (hash, bytes) => void transaction.objectStore('bytes').put(bytes, hash),
    putPaper: (paper) => void transaction.objectStore('papers').put(paper),
    removePaper: (hash) => void transaction.objectStore('papers').delete(hash),
    removeBytes: (hash) => void transaction.objectStore('bytes').delete(hash),
    setMeta: (key, value) => void transaction.objectStore('meta').put(value, key),
  };
  try {
    await work(writing);
    const list = [...changes.values()];
    if (undo !== null && list.length > 0) {
      const history = transaction.objectStore('history');
      const last =
        undo.typing === undefined
          ? null
          : await history.index('assignmentId').openCursor(IDBKeyRange.only(undo.assignmentId), 'prev');
      if (last !== null && last.value.typing === undo.typing)
        await last.update({ ...last.value, changes: joined(last.value.changes, list) });
      else {
        const seq = await history.add({ ...undo, changes: list });
        await history.delete(IDBKeyRange.upperBound(seq - HISTORY_KEPT));
      }
    }
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

/** The last change of an assignment that can be taken back. */
export async function lastUndoable(
  database: WorkspaceDatabase,
  assignmentId: string,
): Promise<HistoryEntry | null> {
  const cursor = await database
    .transaction('history')
    .store.index('assignmentId')
    .openCursor(IDBKeyRange.only(assignmentId), 'prev');
  return cursor?.value ?? null;
}

function same(x: unknown, y: unknown): boolean {
  return JSON.stringify(x) === JSON.stringify(y);
}

/** Takes a change back; null where a later change touched one of its records. */
export async function undoEntry(database: WorkspaceDatabase, entry: HistoryEntry): Promise<Change[] | null> {
  const { seq } = entry;
  if (seq === undefined) return null;
  const transaction = database.transaction(['records', 'history'], 'readwrite', { durability: 'strict' });
  const records = transaction.objectStore('records');
  for (const { store, key, after } of entry.changes) {
    const now = (await records.get([store, key]))?.record ?? null;
    if (same(now, after)) continue;
    await transaction.done;
    return null;
  }
  for (const { store, key, before } of entry.changes) {
    if (before === null) await records.delete([store, key]);
    else await records.put({ store, key, record: before });
  }
  await transaction.objectStore('history').delete(seq);
  await transaction.done;
  return entry.changes.map((change) => ({ ...change, before: change.after, after: change.before }));
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

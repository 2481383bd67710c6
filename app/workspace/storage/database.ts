import { openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction, type StoreNames } from 'idb';
import * as v from 'valibot';
import { abort } from './abort.ts';
import { storeNames, type ReadPaper, type StoreName } from './records.ts';

export const DATABASE_VERSION = 14;

/** A change of one record. null: not there. */
export interface Change {
  readonly store: StoreName;
  readonly key: string;
  readonly before: unknown;
  readonly after: unknown;
}

/** Under which name, and from where, a command can be taken back. */
export interface Undoable {
  /** The assignments and other places that it touches (decisions.md, Undo). */
  readonly scopes: readonly string[];
  readonly label: string;
  /** Names the spell of typing that the change belongs to; all changes of one are taken back together. */
  readonly typing?: string;
}

/** A command as it was carried out, with what is needed to take it back. */
export interface HistoryEntry extends Undoable {
  readonly seq?: number;
  readonly changes: readonly Change[];
  /** It was taken back, and can be done again until something else is done in one of its scopes. */
  readonly undone: boolean;
}

/** A record as it is stored. */
export interface StoredRow {
  readonly store: StoreName;
  readonly key: string;
  readonly record: unknown;
  /** When it was last changed, ISO 8601; not there where it was changed by a Juncture that didn't note it. */
  readonly at?: string;
}

/** A record that was there and was taken out. */
export interface GoneRow {
  readonly store: StoreName;
  readonly key: string;
  readonly at: string;
}

export interface WorkspaceSchema extends DBSchema {
  records: { key: [StoreName, string]; value: StoredRow };
  /** What was taken out, so that another device's copy of it doesn't bring it back. */
  gone: { key: [StoreName, string]; value: GoneRow };
  /** Documents of drafts and versions (bodies.ts). */
  bodies: { key: string; value: Uint8Array<ArrayBuffer> };
  bytes: { key: string; value: Uint8Array<ArrayBuffer> };
  papers: { key: string; value: ReadPaper };
  history: { key: number; value: HistoryEntry; indexes: { scopes: string } };
  meta: { key: string; value: unknown };
}

export type WorkspaceDatabase = IDBPDatabase<WorkspaceSchema>;

export type Upgrading = IDBPTransaction<
  WorkspaceSchema,
  ArrayLike<StoreNames<WorkspaceSchema>>,
  'versionchange'
>;

/** Makes the storage from nothing. */
function makeStores(database: WorkspaceDatabase): void {
  database.createObjectStore('records', { keyPath: ['store', 'key'] });
  database.createObjectStore('gone', { keyPath: ['store', 'key'] });
  database.createObjectStore('bodies');
  database.createObjectStore('bytes');
  database.createObjectStore('papers', { keyPath: 'hash' });
  const history = database.createObjectStore('history', { keyPath: 'seq', autoIncrement: true });
  history.createIndex('scopes', 'scopes', { multiEntry: true });
  database.createObjectStore('meta');
}

/** The version in which a database is stored; null where there is none. */
async function storedVersion(name: string): Promise<number | null> {
  return (await indexedDB.databases()).find((one) => one.name === name)?.version ?? null;
}

/**
 * Opens the workspace's database, made or brought up to date as needed.
 * @throws AbortError where it was changed meanwhile: what it is brought up to date by was prepared for what it was
 */
export async function openWorkspaceDatabase(
  name: string,
  onOutdated: () => void,
): Promise<WorkspaceDatabase> {
  const version = await storedVersion(name);
  const isOld = version !== null && version < DATABASE_VERSION;
  // What brings older storage up to date is needed once in a long while.
  const bringUp = isOld ? await (await import('./bring-up.ts')).prepared(name, version) : null;
  return openDB<WorkspaceSchema>(name, DATABASE_VERSION, {
    upgrade(database, from, _to, transaction) {
      if (from === 0) makeStores(database);
      else if (bringUp === null || from !== version) abort(transaction);
      // Opening waits for the transaction; what fails half-way leaves the storage as it was.
      else bringUp(database, transaction).catch(() => abort(transaction));
    },
    blocking(_current, _blocked, event) {
      // A newer Juncture in another tab wants to bring the storage up to date.
      (event.target as IDBDatabase).close();
      onOutdated();
    },
  });
}

/** All records, by store. */
export async function loadRecords(database: WorkspaceDatabase) {
  const loaded = Object.fromEntries(storeNames.map((store) => [store, new Map<string, unknown>()]));
  for (const { store, key, record } of await database.getAll('records')) loaded[store].set(key, record);
  return loaded;
}

/** What the keys in `meta` begin with that tell what of the journal is in what was saved. */
export const SETTLED = 'journal/';

export async function loadSettled(database: WorkspaceDatabase): Promise<Map<string, number>> {
  const range = IDBKeyRange.bound(SETTLED, `${SETTLED}\uffff`);
  const transaction = database.transaction('meta');
  const [keys, values] = await Promise.all([
    transaction.store.getAllKeys(range),
    transaction.store.getAll(range),
  ]);
  return new Map(keys.map((key, i) => [key, v.parse(v.number(), values[i])]));
}

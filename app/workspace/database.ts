import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import * as v from 'valibot';
import { storeNames, type ReadPaper, type StoreName } from './records.ts';

export const DATABASE_VERSION = 1;

/** A change of one record. null: not there. */
export interface Change {
  readonly store: StoreName;
  readonly key: string;
  readonly before: unknown;
  readonly after: unknown;
}

/** Under which name a command can be taken back. */
export interface Undoable {
  readonly assignmentId: string;
  readonly label: string;
  /** Names the spell of typing that the change belongs to; all changes of one are taken back together. */
  readonly typing?: string;
}

/** A command as it was carried out, with what is needed to take it back. */
export interface HistoryEntry extends Undoable {
  readonly seq?: number;
  readonly changes: readonly Change[];
}

interface WorkspaceSchema extends DBSchema {
  records: { key: [StoreName, string]; value: { store: StoreName; key: string; record: unknown } };
  bytes: { key: string; value: Uint8Array<ArrayBuffer> };
  papers: { key: string; value: ReadPaper };
  history: { key: number; value: HistoryEntry; indexes: { assignmentId: string } };
  meta: { key: string; value: unknown };
}

export type WorkspaceDatabase = IDBPDatabase<WorkspaceSchema>;

/** Brings the storage from the version before to the next; the first makes it from nothing. */
const upgrades: readonly ((database: WorkspaceDatabase) => void)[] = [
  (database) => {
    database.createObjectStore('records', { keyPath: ['store', 'key'] });
    database.createObjectStore('bytes');
    database.createObjectStore('papers', { keyPath: 'hash' });
    const history = database.createObjectStore('history', { keyPath: 'seq', autoIncrement: true });
    history.createIndex('assignmentId', 'assignmentId');
    database.createObjectStore('meta');
  },
];

/** Opens the workspace's database, made or brought up to date as needed. */
export function openWorkspaceDatabase(name: string, onOutdated: () => void): Promise<WorkspaceDatabase> {
  return openDB<WorkspaceSchema>(name, DATABASE_VERSION, {
    upgrade(database, from) {
      for (const upgrade of upgrades.slice(from)) upgrade(database);
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

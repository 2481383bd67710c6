import { openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction, type StoreNames } from 'idb';
import * as v from 'valibot';
import {
  packedIn,
  upgradeFrom1,
  upgradeFrom2,
  upgradeFrom6,
  upgradeFrom7,
  upgradeTo6,
  type MovedBodies,
  type RecordUpgrade,
} from './upgrades.ts';
import { storeNames, type ReadPaper, type StoreName } from './records.ts';

export const DATABASE_VERSION = 8;

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

export interface WorkspaceSchema extends DBSchema {
  records: { key: [StoreName, string]; value: { store: StoreName; key: string; record: unknown } };
  /** Documents of drafts and versions (bodies.ts). */
  bodies: { key: string; value: Uint8Array<ArrayBuffer> };
  bytes: { key: string; value: Uint8Array<ArrayBuffer> };
  papers: { key: string; value: ReadPaper };
  history: { key: number; value: HistoryEntry; indexes: { scopes: string } };
  meta: { key: string; value: unknown };
}

export type WorkspaceDatabase = IDBPDatabase<WorkspaceSchema>;

type Upgrading = IDBPTransaction<WorkspaceSchema, ArrayLike<StoreNames<WorkspaceSchema>>, 'versionchange'>;

/** Brings the storage from the version before to the next; the first makes it from nothing. */
const upgrades: readonly ((
  database: WorkspaceDatabase,
  transaction: Upgrading,
  moved: MovedBodies,
) => Promise<void>)[] = [
  (database) => {
    database.createObjectStore('records', { keyPath: ['store', 'key'] });
    database.createObjectStore('bytes');
    database.createObjectStore('papers', { keyPath: 'hash' });
    const history = database.createObjectStore('history', { keyPath: 'seq', autoIncrement: true });
    (history as unknown as { createIndex(name: string, path: string): void }).createIndex(
      'assignmentId',
      'assignmentId',
    );
    database.createObjectStore('meta');
    return Promise.resolve();
  },
  // From version 1: remarks may have several places, answers and proposed changes; files say what they are.
  async (_database, transaction) => upgradeAll(transaction, upgradeFrom1(await rowsIn(transaction))),
  // From version 2: terms, categories, late rules, withdrawn attempts, what a remark said before, announced by file.
  (_database, transaction) => upgradeAll(transaction, upgradeFrom2),
  // From version 3: rules of a course, scales, group marks, own rubrics, links to criteria, aims and "if" scores.
  (_database, transaction) => upgradeAll(transaction, upgradeTo6),
  // From version 4: replies to remarks.
  (_database, transaction) => upgradeAll(transaction, upgradeTo6),
  // From version 5: where in the paper's text a remark hangs.
  (_database, transaction) => upgradeAll(transaction, upgradeTo6),
  // From version 6: what was done can be taken back from every place that it touched, and done again.
  async (_database, transaction) => {
    await upgradeAll(transaction, upgradeFrom6);
    const history = transaction.objectStore('history');
    const entries = await history.getAll();
    history.createIndex('scopes', 'scopes', { multiEntry: true });
    for (const entry of entries) await history.put(entryFrom6(entry));
    // The index of before is no part of today's schema.
    (history as unknown as { deleteIndex(name: string): void }).deleteIndex('assignmentId');
  },
  // From version 7: documents of drafts stand beside the records.
  async (database, transaction, moved) => {
    const bodies = database.createObjectStore('bodies');
    await upgradeAll(transaction, upgradeFrom7(moved));
    for (const { hash, bytes } of moved.values()) await bodies.put(bytes, hash);
  },
];

function rowsIn(transaction: Upgrading) {
  return transaction.objectStore('records').getAll();
}

const EntryOf6 = v.looseObject({ assignmentId: v.string() });

function entryFrom6(entry: HistoryEntry): HistoryEntry {
  const { assignmentId } = v.parse(EntryOf6, entry);
  return { ...entry, scopes: [assignmentId], undone: false };
}

/** Brings every record up to date, in what can be undone too. */
async function upgradeAll(transaction: Upgrading, upgrade: RecordUpgrade): Promise<void> {
  const records = transaction.objectStore('records');
  const history = transaction.objectStore('history');
  for (const row of await rowsIn(transaction))
    await records.put({ ...row, record: upgrade(row.store, row.key, row.record) });
  for (const entry of await history.getAll()) await history.put(upgradeEntry(entry, upgrade));
  // Papers are derived from their files and are read again.
  await transaction.objectStore('papers').clear();
}

function upgradeEntry(entry: HistoryEntry, upgrade: RecordUpgrade): HistoryEntry {
  const one = (change: Change, record: unknown) =>
    record === null ? null : upgrade(change.store, change.key, record);
  return {
    ...entry,
    changes: entry.changes.map((change) => ({
      ...change,
      before: one(change, change.before),
      after: one(change, change.after),
    })),
  };
}

/** Leaves the storage as it was; whoever opens it is told. */
function abort(transaction: Upgrading): void {
  transaction.done.catch(() => undefined);
  transaction.abort();
}

/**
 * The documents that stand in the records of version 7 or before, as they are to be stored: hashing and packing them can't
 * be waited for while the storage is brought up to date. Empty for newer storage, and where there is none.
 */
async function bodiesToMove(name: string): Promise<MovedBodies> {
  const known = (await indexedDB.databases()).find((one) => one.name === name);
  if (known?.version === undefined || known.version > 7) return new Map();
  const database = await openDB<WorkspaceSchema>(name, known.version, {
    // It went meanwhile: it must not come to be with nothing in it.
    upgrade: (_database, _from, _to, transaction) => abort(transaction),
  });
  try {
    const rows = await database.getAll('records');
    const changes = (await database.getAll('history')).flatMap((entry) => entry.changes);
    return await packedIn([
      ...rows,
      ...changes.flatMap(({ store, before, after }) => [
        { store, record: before },
        { store, record: after },
      ]),
    ]);
  } finally {
    database.close();
  }
}

/** Opens the workspace's database, made or brought up to date as needed. */
export async function openWorkspaceDatabase(
  name: string,
  onOutdated: () => void,
): Promise<WorkspaceDatabase> {
  const moved = await bodiesToMove(name);
  return openDB<WorkspaceSchema>(name, DATABASE_VERSION, {
    upgrade(database, from, _to, transaction) {
      const bringUp = async () => {
        for (const upgrade of upgrades.slice(from)) await upgrade(database, transaction, moved);
      };
      // Opening waits for the transaction; what fails half-way leaves the storage as it was.
      bringUp().catch(() => abort(transaction));
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

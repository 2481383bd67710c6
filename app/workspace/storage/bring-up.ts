import { openDB } from 'idb';
import * as v from 'valibot';
import { abort } from './abort.ts';
import type { Change, HistoryEntry, Upgrading, WorkspaceDatabase, WorkspaceSchema } from './database.ts';
import {
  finalsOf8,
  packedIn,
  upgradeFrom1,
  upgradeFrom10,
  upgradeFrom11,
  upgradeFrom2,
  upgradeFrom6,
  upgradeFrom7,
  upgradeFrom8,
  upgradeFrom9,
  upgradeTo6,
  type MovedBodies,
  type RecordUpgrade,
} from './upgrades.ts';

/** Brings the storage from each version to the next, from version 1 on. */
const steps: readonly ((
  database: WorkspaceDatabase,
  transaction: Upgrading,
  moved: MovedBodies,
) => Promise<void>)[] = [
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
  // From version 8: kinds of work, tasks of a draft stage with its final, drafts of files, posts and items.
  async (_database, transaction) => {
    const rows = await rowsIn(transaction);
    await upgradeAll(transaction, upgradeFrom8(rows));
    const finals = finalsOf8(rows);
    const history = transaction.objectStore('history');
    for (const entry of await history.getAll()) {
      const scopes = entry.changes.some(({ store }) => store === 'tasks')
        ? entry.scopes.flatMap((scope) => finals.get(scope) ?? [])
        : [];
      if (scopes.length > 0)
        await history.put({ ...entry, scopes: [...new Set([...entry.scopes, ...scopes])] });
    }
  },
  // From version 9: tasks and questions are about remarks or parts of them.
  (_database, transaction) => upgradeAll(transaction, upgradeFrom9),
  // From version 10: answers that are places in a text, drafts that are files.
  (_database, transaction) => upgradeAll(transaction, upgradeFrom10),
  // From version 11: tasks with what they need, steps, and what is in the plan by hand; answers to questions.
  (_database, transaction) => upgradeAll(transaction, upgradeFrom11),
  // From version 12: when each record was changed, and which are gone, for joining with another device's.
  (database) => {
    database.createObjectStore('gone', { keyPath: ['store', 'key'] });
    return Promise.resolve();
  },
  // From version 13: sources that drafts are compared with, and how an overlap is counted; papers say what is set off.
  (_database, transaction) => transaction.objectStore('papers').clear(),
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

/**
 * The documents that stand in the records of version 7 or before, as they are to be stored: hashing and packing them can't
 * be waited for while the storage is brought up to date.
 */
async function bodiesToMove(name: string, version: number): Promise<MovedBodies> {
  const database = await openDB<WorkspaceSchema>(name, version, {
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

/** All that is needed to bring a database of this version up to date, which then is done in one transaction. */
export async function prepared(
  name: string,
  version: number,
): Promise<(database: WorkspaceDatabase, transaction: Upgrading) => Promise<void>> {
  const moved = await bodiesToMove(name, version);
  return async (database, transaction) => {
    for (const step of steps.slice(version - 1)) await step(database, transaction, moved);
  };
}

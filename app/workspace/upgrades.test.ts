import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import { readFileSync } from 'node:fs';
import { afterEach, describe, expect, it } from 'vitest';
import * as v from 'valibot';
import { isRead } from '#core/tally/tally.ts';
import { recordStores, type StoreName } from './records.ts';
import { upgradeFrom1 } from './upgrades.ts';
import { closeWorkspace, databaseName, openWorkspace, undoLast, useWorkspace } from './workspace.ts';

/** A workspace as version 1 stored it, written by that version: decisions, a note, readings, a question, a dropped paper. */
interface Sample {
  readonly records: { store: StoreName; key: string; record: unknown }[];
  readonly history: Record<string, unknown>[];
}
const sample = JSON.parse(
  readFileSync(new URL('./samples/storage-1.json', import.meta.url), 'utf8'),
) as Sample;
const identity = { kind: 'student', deskId: 'old', studentId: 'one', studentName: 'Ines Tarrow' } as const;
const records = () => useWorkspace.getState().records;

async function storeAsVersion1(): Promise<void> {
  const database = await openDB(databaseName(identity), 1, {
    upgrade(old) {
      old.createObjectStore('records', { keyPath: ['store', 'key'] });
      old.createObjectStore('bytes');
      old.createObjectStore('papers', { keyPath: 'hash' });
      old
        .createObjectStore('history', { keyPath: 'seq', autoIncrement: true })
        .createIndex('assignmentId', 'assignmentId');
      old.createObjectStore('meta');
    },
  });
  for (const row of sample.records) await database.put('records', row);
  for (const entry of sample.history) await database.put('history', entry);
  database.close();
}

afterEach(closeWorkspace);

describe('storage of version 1', () => {
  it('is brought up to date with everything in it, what was read still read, and undo still there', async () => {
    await storeAsVersion1();
    await openWorkspace(identity);
    const count = (store: StoreName) => sample.records.filter((row) => row.store === store).length;
    for (const store of [
      'remarks',
      'readings',
      'judgements',
      'tasks',
      'queries',
      'files',
      'assignments',
    ] as const)
      expect([store, records()[store].size]).toEqual([store, count(store)]);
    const read = [...records().remarks.values()].filter((remark) =>
      isRead(remark, records().readings.get(remark.id)),
    );
    expect(read).toHaveLength(count('readings'));
    expect([...records().files.values()].map(({ role }) => role)).toEqual(['marked', 'marked']);
    expect([...records().judgements.values()].some(({ note }) => note === 'Weigh it.')).toBe(true);
    expect(await undoLast('skarn-moss-report')).toMatchObject({ kind: 'undone' });
  });

  it('fits the forms of today, record by record', () => {
    const upgrade = upgradeFrom1(sample.records);
    for (const { store, key, record } of sample.records)
      expect([store, key, v.is(recordStores[store].schema, upgrade(store, key, record))]).toEqual([
        store,
        key,
        true,
      ]);
  });

  it('leaves alone what it does not know', () => {
    expect(upgradeFrom1([])('remarks', 'x', { odd: true })).toEqual({ odd: true });
  });
});

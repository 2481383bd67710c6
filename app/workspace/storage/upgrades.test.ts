import 'fake-indexeddb/auto';
import { deleteDB, openDB } from 'idb';
import { readFileSync } from 'node:fs';
import { afterEach, describe, expect, it } from 'vitest';
import * as v from 'valibot';
import type { Assignment } from '#core/model/facts.ts';
import { exampleAssignment } from '#core/model/example.ts';
import { paperOfDraft } from '#core/paper/draft.ts';
import { isRead } from '#core/tally/tally.ts';
import { recordStores, type StoreName } from './records.ts';
import { packedIn, upgradeFrom1, upgradeRecordsFrom } from './upgrades.ts';
import { openWorkspace, type Workspace } from '../workspace.ts';
import { databaseName } from '../identity.ts';

let workspace: Workspace;

/** A record as it was before version 10, with a task or question about whole remarks as they are told since then. */
function aboutWhole(record: unknown): object {
  const { remarkIds, remarkId, ...rest } = record as {
    readonly remarkIds?: readonly string[];
    readonly remarkId?: string | null;
  };
  const ref = (id: string) => ({ remarkId: id, partId: null });
  if (remarkIds !== undefined) return { ...rest, about: remarkIds.map(ref) };
  const isQuery = 'putAt' in rest;
  if (isQuery && remarkId !== undefined) return { ...rest, about: remarkId === null ? null : ref(remarkId) };
  return record as object;
}

/** A workspace as version 1 stored it, written by that version: decisions, a note, readings, a question, a dropped paper. */
interface Sample {
  readonly records: { store: StoreName; key: string; record: unknown }[];
  readonly history: Record<string, unknown>[];
  /** Since version 8: the bytes of documents by their hash, in Base64. */
  readonly bodies?: Record<string, string>;
}
const sampleOf = (version: number) =>
  JSON.parse(readFileSync(new URL(`./samples/storage-${version}.json`, import.meta.url), 'utf8')) as Sample;
const sample = sampleOf(1);
const identity = { kind: 'student', deskId: 'old', studentId: 'one', studentName: 'Ines Tarrow' } as const;
const records = () => workspace.records;

async function storeAs(version: number, { records: rows, history, bodies = {} }: Sample): Promise<void> {
  const database = await openDB(databaseName(identity), version, {
    upgrade(old) {
      old.createObjectStore('records', { keyPath: ['store', 'key'] });
      old.createObjectStore('bytes');
      old.createObjectStore('papers', { keyPath: 'hash' });
      const done = old.createObjectStore('history', { keyPath: 'seq', autoIncrement: true });
      if (version < 7) done.createIndex('assignmentId', 'assignmentId');
      else done.createIndex('scopes', 'scopes', { multiEntry: true });
      old.createObjectStore('meta');
      if (version >= 8) old.createObjectStore('bodies');
      if (version >= 13) old.createObjectStore('gone', { keyPath: ['store', 'key'] });
    },
  });
  for (const row of rows) await database.put('records', row);
  for (const entry of history) await database.put('history', entry);
  for (const [hash, base64] of Object.entries(bodies))
    await database.put('bodies', new Uint8Array(Buffer.from(base64, 'base64')), hash);
  database.close();
}

afterEach(async () => {
  workspace.close();
  await deleteDB(databaseName(identity));
});

describe('storage of version 1', () => {
  it('is brought up to date with everything in it, what was read still read, and undo still there', async () => {
    await storeAs(1, sample);
    workspace = await openWorkspace(identity);
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
    expect(await workspace.undoLast('skarn-moss-report')).toMatchObject({ kind: 'done' });
  });

  it('fits the forms of today, record by record', () => {
    const upgrade = upgradeRecordsFrom(1, sample.records);
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

const draftText = async () => {
  const [{ bodyHash }] = records().drafts.values();
  const content = await workspace.bodies.load(bodyHash);
  return content === null ? null : paperOfDraft(content).text;
};

describe('storage of versions 13 and 14', () => {
  it.each([13, 14])('version %i is opened as it is, with when each record was changed', async (version) => {
    const stored = sampleOf(version);
    await storeAs(version, stored);
    workspace = await openWorkspace(identity);
    const { rows } = await workspace.storedRows();
    expect(rows).toHaveLength(stored.records.length);
    expect(records().sources.size).toBe(version - 13);
    for (const row of stored.records) {
      expect([row.store, v.is(recordStores[row.store].schema, row.record)]).toEqual([row.store, true]);
      expect(rows).toContainEqual(row);
    }
  });
});

describe('storage of version 12', () => {
  it('notes from then on when a record was changed, and which are gone', async () => {
    await storeAs(12, sampleOf(12));
    workspace = await openWorkspace(identity);
    const before = await workspace.storedRows();
    expect([before.rows.some(({ at }) => at !== undefined), before.gone]).toEqual([false, []]);
    const [first] = workspace.records.tasks.keys();
    await workspace.run('a', 'task', (writing) => writing.remove('tasks', first));
    expect((await workspace.storedRows()).gone.map(({ store, key }) => [store, key])).toEqual([
      ['tasks', first],
    ]);
    // Taken back, it is there again and not gone.
    expect(await workspace.undoLast('a')).toMatchObject({ kind: 'done' });
    const after = await workspace.storedRows();
    expect(after.gone).toEqual([]);
    expect(after.rows.find(({ key }) => key === first)?.at).toBeDefined();
  });

  it('is opened as it is, with what was planned undone and done again', async () => {
    const twelfth = sampleOf(12);
    await storeAs(12, twelfth);
    workspace = await openWorkspace(identity);
    for (const { store, key, record } of twelfth.records) {
      expect([store, key, v.is(recordStores[store].schema, record)]).toEqual([store, key, true]);
      expect(records()[store].get(key)).toEqual(record);
    }
    const pinned = () => [...records().tasks.values()].filter(({ pin }) => pin === 'in').length;
    const calendars = () => [...records().files.values()].filter(({ role }) => role === 'calendar').length;
    expect([records().tasks.size, records().blocks.size, records().spells.size, calendars()]).toEqual([
      3, 1, 1, 1,
    ]);
    // The block, the calendar, the margin, the hours.
    for (let n = 0; n < 4; n++) expect(await workspace.undoLast('week')).toMatchObject({ kind: 'done' });
    expect([records().blocks.size, records().settings.size, calendars()]).toEqual([0, 0, 0]);
    // Joined, steps, in any case.
    for (let n = 0; n < 3; n++) expect(await workspace.undoLast('a')).toMatchObject({ kind: 'done' });
    expect([records().tasks.size, pinned()]).toEqual([4, 0]);
    for (let n = 0; n < 3; n++) expect(await workspace.redoNext('a')).toMatchObject({ kind: 'done' });
    expect([records().tasks.size, pinned()]).toEqual([3, 1]);
  });
});

describe('storage of version 11', () => {
  it('is brought up to date: tasks with what they need, with answers and files undone and done again', async () => {
    const eleventh = sampleOf(11);
    await storeAs(11, eleventh);
    workspace = await openWorkspace(identity);
    for (const { store, key, record } of eleventh.records) {
      const now = records()[store].get(key);
      expect([store, key, v.is(recordStores[store].schema, now)]).toEqual([store, key, true]);
      expect(now).toEqual(sinceTwelve(store, record));
    }
    const ticked = () => [...records().tasks.values()].filter(({ done }) => done).length;
    const draft = () => [...records().drafts.values()][0];
    expect([ticked(), draft().paperFile]).toEqual([3, '2'.repeat(64)]);
    // The file, the version with a name, the file that answers, the words, the place.
    expect(await workspace.undoLast('a')).toMatchObject({ kind: 'done' });
    expect(await draftText()).toBe('The gauge was read at noon. The keeper did it.');
    for (let n = 0; n < 4; n++) expect(await workspace.undoLast('a')).toMatchObject({ kind: 'done' });
    expect([ticked(), records().answers.size, draft().files]).toEqual([0, 0, []]);
    for (let n = 0; n < 3; n++) expect(await workspace.redoNext('a')).toMatchObject({ kind: 'done' });
    expect([ticked(), records().answers.size]).toEqual([3, 3]);
  });
});

/** A record as it was before version 12, with what tasks and questions have since. */
function sinceTwelve(store: StoreName, record: unknown): unknown {
  if (store === 'queries') return { ...(record as object), answer: '' };
  if (store === 'judgements') return { ...(record as object), elsewhere: [] };
  return store === 'tasks' ? { ...(record as object), needs: [], pin: null, steps: [] } : record;
}

/** A record as it was before version 11, with what answers, drafts and versions have since. */
function sinceEleven(store: StoreName, record: unknown): unknown {
  if (store === 'answers') return { ...(record as object), partId: null, places: [], files: [] };
  if (store === 'drafts') return { ...(record as object), paperFile: null };
  if (store === 'versions') return { ...(record as object), name: '' };
  return sinceTwelve(store, record);
}

describe('storage of version 10', () => {
  it('is brought up to date, with what was done in it undone and done again', async () => {
    const tenth = sampleOf(10);
    await storeAs(10, tenth);
    workspace = await openWorkspace(identity);
    for (const { store, key, record } of tenth.records) {
      const now = records()[store].get(key);
      expect([store, key, v.is(recordStores[store].schema, now)]).toEqual([store, key, true]);
      expect(now).toEqual(sinceEleven(store, record));
    }
    const parts = () =>
      records()
        .judgements.get('r1')
        ?.parts.map(({ decision, carry }) => [decision, carry]);
    expect(parts()).toEqual([
      ['keep', false],
      ['act', false],
      [null, true],
    ]);
    const [task] = records().tasks.values();
    expect(task.about).toEqual([{ remarkId: 'r1', partId: records().judgements.get('r1')?.parts[1].id }]);
    // The question about the machine’s remark, then what was carried, kept and acted on.
    for (let n = 0; n < 4; n++) expect(await workspace.undoLast('a')).toMatchObject({ kind: 'done' });
    expect([records().tasks.size, records().queries.size]).toEqual([0, 0]);
    expect(await workspace.redoNext('a')).toMatchObject({ kind: 'done' });
    expect(records().tasks.size).toBe(1);
    expect(await workspace.undoLast('marks')).toMatchObject({ kind: 'done' });
    expect(records().ownTerms.size).toBe(0);
  });
});

describe('storage of version 9', () => {
  it('is brought up to date: tasks and questions about whole remarks, in what is undone and done again too', async () => {
    const ninth = sampleOf(9);
    await storeAs(9, ninth);
    workspace = await openWorkspace(identity);
    for (const { store, key, record } of ninth.records) {
      const now = records()[store].get(key);
      expect([store, key, v.is(recordStores[store].schema, now)]).toEqual([store, key, true]);
      expect(now).toEqual(sinceEleven(store, aboutWhole(record)));
    }
    const task = () => records().tasks.get('task/pays')?.assignmentId;
    expect([...records().answers.values()].map(({ regions }) => regions.length)).toEqual([1]);
    expect(await workspace.undoLast('core-log')).toMatchObject({ kind: 'done' });
    expect(records().attempts.size).toBe(0);
    expect(task()).toBe('policy-brief');
    expect(await workspace.undoLast('policy-brief')).toMatchObject({ kind: 'done' });
    expect(task()).toBe('policy-brief-draft');
    expect(await workspace.redoNext('seminar-post-2')).toMatchObject({ kind: 'done' });
    const draft = [...records().drafts.values()].find(({ post }) => post !== null);
    expect(draft?.post).toEqual({ answers: null, betters: 'p2-ines' });
    expect(await workspace.bodies.load(draft?.bodyHash ?? null)).not.toBeNull();
  });
});

describe('storage of version 8', () => {
  const eighth = sampleOf(8);

  it('is brought up to date: what was done in it is undone and done again', async () => {
    await storeAs(8, eighth);
    workspace = await openWorkspace(identity);
    for (const { store, key, record } of eighth.records) {
      expect(records()[store].get(key)).toMatchObject(aboutWhole(record));
      expect([store, key, v.is(recordStores[store].schema, records()[store].get(key))]).toEqual([
        store,
        key,
        true,
      ]);
    }
    expect(await draftText()).toBe('The wells were read at noon and at dusk.');
    expect(await workspace.redoNext('dip-well-lab')).toMatchObject({ kind: 'done' });
    expect(await draftText()).toBe('All of it was written anew elsewhere.');
    expect(records().settings.get('singleKeys')).toEqual({ name: 'singleKeys', on: false });
    expect(await workspace.undoLast('settings')).toMatchObject({ kind: 'done' });
    expect(records().settings.size).toBe(0);
  });

  const assignment = (id: string, draftOf: string | null) => ({
    store: 'assignments' as const,
    key: id,
    record: withoutKind({ ...exampleAssignment({ id, draftOf }) }),
  });
  const task = (id: string, assignmentId: string) => ({
    store: 'tasks' as const,
    key: id,
    record: {
      id,
      assignmentId,
      title: 'Weigh it',
      kind: 'sentence',
      minutes: 10,
      remarkIds: [],
      done: false,
      rank: null,
      touched: false,
    },
  });

  it('puts the tasks of a draft stage with its final, where that is there, also in what can be undone', async () => {
    const changed = { store: 'tasks', key: 'one', before: null, after: task('one', 'stage').record };
    await storeAs(8, {
      records: [
        assignment('stage', 'final'),
        assignment('final', null),
        assignment('alone', 'gone'),
        task('one', 'stage'),
        task('two', 'alone'),
      ],
      history: [{ scopes: ['stage'], label: 'act', changes: [changed], undone: false }],
    });
    workspace = await openWorkspace(identity);
    const owners = () => ['one', 'two'].flatMap((id) => records().tasks.get(id)?.assignmentId ?? []);
    expect(owners()).toEqual(['final', 'alone']);
    expect(records().assignments.get('stage')?.kind).toBeNull();
    expect(await workspace.undoLast('final')).toMatchObject({ kind: 'done' });
    expect(owners()).toEqual(['alone']);
    expect(await workspace.redoNext('stage')).toMatchObject({ kind: 'done' });
    expect(owners()).toEqual(['final', 'alone']);
  });

  it('sends on as files what waited to go', () => {
    const file = (hash: string, size: number) => ({
      store: 'files' as const,
      key: hash,
      record: { hash, size },
    });
    const [a, b] = ['a'.repeat(64), 'b'.repeat(64)];
    const submission = {
      id: 'key-number-1',
      assignmentId: 'a',
      versionId: 'v',
      note: 'With thanks',
      paper: { name: 'd.docx', hash: a },
      response: { name: 'r.docx', hash: b },
      at: '2026-11-02T10:00:00.000Z',
      state: { kind: 'waiting to go' },
    };
    const rows = [file(a, 12), { store: 'submissions' as const, key: 's', record: submission }];
    const now = v.parse(
      recordStores.submissions.schema,
      upgradeRecordsFrom(8, rows)('submissions', 's', submission),
    );
    expect(now.files.map(({ role, name, size, hash }) => [role, name, size, hash])).toEqual([
      ['paper', 'd.docx', 12, a],
      ['response', 'r.docx', 0, b],
    ]);
    expect(now).not.toHaveProperty('paper');
  });
});

function withoutKind({ kind, ...assignment }: Assignment): Omit<Assignment, 'kind'> {
  expect(kind).toBeNull();
  return assignment;
}

describe('storage of version 7', () => {
  const seventh = sampleOf(7);

  it('is opened as it was, and what was done in it is undone and done again', async () => {
    await storeAs(7, seventh);
    workspace = await openWorkspace(identity);
    for (const { store, key, record } of seventh.records)
      expect(records()[store].get(key)).toMatchObject(aboutWhole(record));
    const decisions = () => [...records().judgements.values()].map(({ decision }) => decision);
    const before = decisions();
    expect(await workspace.redoNext('dip-well-lab')).toMatchObject({ kind: 'done' });
    expect(decisions()).not.toEqual(before);
    expect(await workspace.undoLast('dip-well-lab')).toMatchObject({ kind: 'done' });
    expect(decisions()).toEqual(before);
    for (let n = 0; n < 3; n++)
      expect(await workspace.undoLast('dip-well-lab')).toMatchObject({ kind: 'done' });
    expect(records().judgements.size).toBe(0);
    expect(await workspace.undoLast('dip-well-lab')).toEqual({ kind: 'nothing' });
  });
});

describe('drafts of version 7', () => {
  const drafts = JSON.parse(
    readFileSync(new URL('./samples/storage-7-draft.json', import.meta.url), 'utf8'),
  ) as Sample;

  it('have their documents beside the records, in what can be undone too', async () => {
    await storeAs(7, drafts);
    workspace = await openWorkspace(identity);
    expect(await draftText()).toBe('All of it was written anew elsewhere.');
    for (const store of ['drafts', 'versions'] as const)
      for (const record of records()[store].values()) {
        expect(v.is(recordStores[store].schema, record)).toBe(true);
        expect(record).not.toHaveProperty('content');
        expect(await workspace.bodies.load(record.bodyHash)).not.toBeNull();
      }
    expect(await workspace.redoNext('dip-well-lab')).toMatchObject({ kind: 'done' });
    expect(await draftText()).toBe('And once more.');
    for (let n = 0; n < 2; n++)
      expect(await workspace.undoLast('dip-well-lab')).toMatchObject({ kind: 'done' });
    expect(await draftText()).toBe('The wells were read at noon and at dusk.\nRain had fallen for two days.');
    // Neither the records nor their history hold any of the words.
    const database = await openDB(databaseName(identity));
    for (const store of ['records', 'history'])
      expect(JSON.stringify(await database.getAll(store))).not.toContain('noon');
    database.close();
  });

  it('stay as they are where one comes while they are brought up to date, and are tried again', async () => {
    await storeAs(7, drafts);
    const moved = await packedIn(drafts.records.slice(0, 1));
    expect(() =>
      upgradeRecordsFrom(7, drafts.records, moved)(
        'drafts',
        'x',
        drafts.records.find(({ store }) => store === 'drafts')?.record,
      ),
    ).toThrow(/document/);
  });
});

describe('storage of version 5', () => {
  const fifth = sampleOf(5);

  it('is brought up to date with no remark hung in a text yet, and everything else as it was', async () => {
    await storeAs(5, fifth);
    workspace = await openWorkspace(identity);
    for (const { store, key, record } of fifth.records)
      expect(records()[store].get(key)).toMatchObject(aboutWhole(record));
    expect([...records().remarks.values()].map(({ textAt }) => textAt)).toEqual([null, null, null, null]);
    expect(await workspace.undoLast('dip-well-lab')).toMatchObject({ kind: 'done' });
    expect(records().judgements.size).toBe(0);
  });
});

describe('storage of version 4', () => {
  const fourth = sampleOf(4);

  it('is brought up to date with no replies yet, and everything else as it was', async () => {
    await storeAs(4, fourth);
    workspace = await openWorkspace(identity);
    for (const { store, key, record } of fourth.records)
      expect(records()[store].get(key)).toMatchObject(aboutWhole(record));
    const [judgement] = records().judgements.values();
    expect(judgement).toMatchObject({ note: 'Measure the second well again.', carry: true, reply: '' });
    expect(await workspace.undoLast('dip-well-lab')).toMatchObject({ kind: 'done' });
    expect([...records().judgements.values()]).toMatchObject([{ note: '', reply: '' }]);
  });
});

describe('storage of version 3', () => {
  const third = sampleOf(3);

  it('is brought up to date with what is new put in as not known, and undo is there', async () => {
    await storeAs(3, third);
    workspace = await openWorkspace(identity);
    for (const { store, key, record } of third.records)
      expect(records()[store].get(key)).toMatchObject(aboutWhole(record));
    expect(records().courses.get('mire-210')).toMatchObject({ policy: null, scales: [], byHand: false });
    expect(records().judgements.size).toBeGreaterThan(0);
    for (const judgement of records().judgements.values()) expect(judgement.link).toBeNull();
    expect([...records().rubrics.values()].every(({ byHandFor }) => byHandFor === null)).toBe(true);
    expect(await workspace.undoLast('dip-well-lab')).toMatchObject({ kind: 'done' });
    expect(records().promises.size).toBe(0);
  });

  it('fits the forms of today, record by record', () => {
    const upgrade = upgradeRecordsFrom(3, third.records);
    for (const { store, key, record } of third.records)
      expect([store, key, v.is(recordStores[store].schema, upgrade(store, key, record))]).toEqual([
        store,
        key,
        true,
      ]);
  });
});

describe('storage of version 2', () => {
  const second = sampleOf(2);

  it('is brought up to date: what was read stays read, decided stays decided, and undo is there', async () => {
    await storeAs(2, second);
    workspace = await openWorkspace(identity);
    const readings = second.records.filter(({ store }) => store === 'readings');
    const read = [...records().remarks.values()].filter((remark) =>
      isRead(remark, records().readings.get(remark.id)),
    );
    expect(read).toHaveLength(readings.length);
    for (const { key, record } of second.records.filter(({ store }) => store === 'judgements'))
      expect(records().judgements.get(key)).toMatchObject(aboutWhole(record));
    const marking = records().markings.get('skarn-moss-report-marking-1');
    expect(marking?.files[0].announced).toEqual({ passage: 30 });
    expect(marking).not.toHaveProperty('announced');
    expect(records().courses.get('mire-210')).toMatchObject({
      scheme: null,
      categories: [],
      termEndsAt: null,
    });
    expect(await workspace.undoLast('dip-well-lab')).toMatchObject({ kind: 'done' });
  });

  it('fits the forms of today, record by record', () => {
    const upgrade = upgradeRecordsFrom(2, second.records);
    for (const { store, key, record } of second.records)
      expect([store, key, v.is(recordStores[store].schema, upgrade(store, key, record))]).toEqual([
        store,
        key,
        true,
      ]);
  });
});

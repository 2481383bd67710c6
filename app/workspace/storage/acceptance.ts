import { deleteDB, openDB } from 'idb';
import { exampleAssignment, exampleJudgement } from '#core/model/example.ts';
import * as v from 'valibot';
import type { FileHash } from '#core/model/ids.ts';
import { Draft, Version } from '#core/model/work.ts';
import { packText, sweepBodies, unpackText } from './bodies.ts';
import { DATABASE_VERSION, loadRecords, openWorkspaceDatabase, type WorkspaceDatabase } from './database.ts';
import seventh from './samples/storage-7-draft.json';
import { moveInHistory, nextInHistory, transact } from './transact.ts';

/**
 * What the storage has to do, whichever it is: the browser's own, which the application has, or the one in memory that the
 * unit tests have. Each check gets a storage of its own, opened anew as often as it asks.
 */

const NAME = 'juncture/acceptance';
type Open = () => Promise<WorkspaceDatabase>;

function same(actual: unknown, expected: unknown): void {
  // In a list, so that undefined has a text too.
  const [is, wanted] = [JSON.stringify([actual]), JSON.stringify([expected])];
  if (is !== wanted) throw new Error(`${is} is not ${wanted}`);
}

const assignment = exampleAssignment();
const exampleDraft = (bodyHash: FileHash) =>
  v.parse(Draft, {
    id: 'draft',
    assignmentId: 'a',
    attemptNumber: 2,
    startedFrom: 'f'.repeat(64),
    bodyHash,
    files: [],
    post: null,
    items: {},
    note: '',
    paperFile: null,
    headVersionId: null,
    savedAt: '2026-11-02T10:00:00.000Z',
  });
const exampleVersion = (bodyHash: FileHash) =>
  v.parse(Version, {
    id: 'version',
    draftId: 'draft',
    assignmentId: 'a',
    parentId: null,
    at: '2026-11-02T10:00:00.000Z',
    name: '',
    why: 'started',
    bodyHash,
    files: [],
    post: null,
    items: {},
    fileHash: null,
  });
const undo = { scopes: ['a'], label: 'decided' };

/** A command that decides about a remark. */
function decide(database: WorkspaceDatabase, remarkId: string, decision: 'act' | 'keep', typing?: string) {
  return transact(database, { ...undo, ...(typing !== undefined && { typing }) }, (writing) =>
    writing.put('judgements', exampleJudgement(remarkId, { decision })),
  );
}

async function decisions(database: WorkspaceDatabase): Promise<unknown[]> {
  const { judgements } = await loadRecords(database);
  return [...judgements.values()].map((one) => (one as { decision: unknown }).decision);
}

async function move(database: WorkspaceDatabase, which: 'undo' | 'redo'): Promise<boolean> {
  const entry = await nextInHistory(database, 'a', which);
  return entry !== null && (await moveInHistory(database, entry, which)) !== null;
}

const checks: Readonly<Record<string, (open: Open) => Promise<void>>> = {
  'begins with nothing, in the form of today': async (open) => {
    const database = await open();
    same(database.version, DATABASE_VERSION);
    same([...database.objectStoreNames], ['bodies', 'bytes', 'gone', 'history', 'meta', 'papers', 'records']);
    same(await database.getAll('records'), []);
  },
  'saves all that one act writes, and has it when it is opened again': async (open) => {
    const body = await packText('{"words":"of a draft"}');
    await transact(await open(), null, async (writing) => {
      await writing.put('assignments', assignment);
      writing.putBytes('f'.repeat(64), new Uint8Array([1, 2, 3]));
      writing.putBody(body);
      writing.setMeta('cursor', 7);
    });
    const again = await open();
    same((await again.get('records', ['assignments', assignment.id]))?.record, assignment);
    same([...((await again.get('bytes', 'f'.repeat(64))) ?? [])], [1, 2, 3]);
    same(await again.get('meta', 'cursor'), 7);
    const stored = await again.get('bodies', body.hash);
    same(stored === undefined ? null : await unpackText(stored), '{"words":"of a draft"}');
  },
  'saves nothing of an act that fails, or writes what can’t be stored': async (open) => {
    const database = await open();
    const fails = [
      () => Promise.reject(new Error('given up')),
      // A function can't be stored.
      (writing: Parameters<Parameters<typeof transact>[2]>[0]) =>
        writing.put('assignments', { ...assignment, title: () => '' } as never),
    ];
    for (const fail of fails) {
      const done = await transact(database, undo, async (writing) => {
        await writing.put('assignments', assignment);
        writing.putBytes('f'.repeat(64), new Uint8Array([1]));
        await fail(writing);
      }).then(
        () => true,
        () => false,
      );
      same(done, false);
    }
    same(await database.getAll('records'), []);
    same(await database.getAllKeys('bytes'), []);
    same(await database.getAll('history'), []);
  },
  'reads within an act what it has written': async (open) => {
    await transact(await open(), null, async (writing) => {
      await writing.put('assignments', assignment);
      same(await writing.get('assignments', assignment.id), assignment);
      same((await writing.all('assignments')).length, 1);
      same(await writing.all('judgements'), []);
      await writing.remove('assignments', assignment.id);
      same(await writing.get('assignments', assignment.id), null);
    });
  },
  'takes back and does again, step by step, also when it is opened again': async (open) => {
    const database = await open();
    await decide(database, 'r1', 'act');
    await decide(database, 'r1', 'keep');
    same(await move(database, 'undo'), true);
    same(await decisions(database), ['act']);
    const again = await open();
    same(await move(again, 'redo'), true);
    same(await decisions(again), ['keep']);
    same(
      [await move(again, 'undo'), await move(again, 'undo'), await move(again, 'undo')],
      [true, true, false],
    );
    same(await decisions(again), []);
  },
  'takes nothing back that was changed since': async (open) => {
    const database = await open();
    await decide(database, 'r1', 'act');
    await transact(database, null, (writing) => writing.remove('judgements', 'r1'));
    same(await move(database, 'undo'), false);
    same(await decisions(database), []);
  },
  'takes one spell of typing back at once': async (open) => {
    const database = await open();
    await decide(database, 'r1', 'act', 'spell');
    await decide(database, 'r1', 'keep', 'spell');
    same(await move(database, 'undo'), true);
    same(await decisions(database), []);
  },
  'keeps both of two acts at once': async (open) => {
    const database = await open();
    const add = () =>
      transact(database, null, async (writing) => {
        const before = await writing.get('assignments', assignment.id);
        const attemptsAllowed = (before?.attemptsAllowed ?? 0) + 1;
        await writing.put('assignments', { ...assignment, attemptsAllowed });
      });
    await Promise.all([add(), add(), add()]);
    const found = await database.get('records', ['assignments', assignment.id]);
    same((found?.record as { attemptsAllowed: unknown }).attemptsAllowed, 3);
  },
  'takes out documents that nothing leads to, and no other': async (open) => {
    const database = await open();
    const written = await Promise.all(['a', 'b', 'c', 'd'].map((word) => packText(JSON.stringify(word))));
    const [current, frozen, undone, lost] = written;
    const draft = exampleDraft(current.hash);
    await transact(database, { scopes: ['a'], label: 'brought in' }, async (writing) => {
      for (const body of written) writing.putBody(body);
      await writing.put('drafts', { ...draft, bodyHash: undone.hash });
    });
    await move(database, 'undo');
    await transact(database, null, async (writing) => {
      await writing.put('drafts', { ...draft, id: 'other' as Draft['id'] });
      await writing.put('versions', exampleVersion(frozen.hash));
    });
    await sweepBodies(database);
    const kept = await database.getAllKeys('bodies');
    same(kept.toSorted(), [current.hash, frozen.hash, undone.hash].toSorted());
    same(kept.includes(lost.hash), false);
  },
  'brings a storage of version 7 up to date, documents and history with it': async (open) => {
    const old = await openDB(NAME, 7, {
      upgrade(database) {
        database.createObjectStore('records', { keyPath: ['store', 'key'] });
        for (const name of ['bytes', 'meta']) database.createObjectStore(name);
        database.createObjectStore('papers', { keyPath: 'hash' });
        database
          .createObjectStore('history', { keyPath: 'seq', autoIncrement: true })
          .createIndex('scopes', 'scopes', { multiEntry: true });
      },
    });
    for (const row of seventh.records) await old.put('records', row);
    for (const entry of seventh.history) await old.put('history', entry);
    old.close();
    const database = await open();
    const { drafts, versions } = await loadRecords(database);
    const hashes = [...drafts.values(), ...versions.values()].map(
      (one) => (one as { bodyHash: string }).bodyHash,
    );
    const stored = await database.getAllKeys('bodies');
    same(
      hashes.every((hash) => stored.includes(hash)),
      true,
    );
    const entry = await nextInHistory(database, 'dip-well-lab', 'redo');
    same(entry !== null && (await moveInHistory(database, entry, 'redo')) !== null, true);
  },
};

/** Holds every check against the storage that is here; tells what failed, by check. */
export async function acceptance(): Promise<{ readonly passed: string[]; readonly failed: string[] }> {
  const passed: string[] = [];
  const failed: string[] = [];
  for (const [name, check] of Object.entries(checks)) {
    const opened: WorkspaceDatabase[] = [];
    const open = async () => {
      for (const one of opened) one.close();
      const database = await openWorkspaceDatabase(NAME, () => undefined);
      opened.push(database);
      return database;
    };
    await deleteDB(NAME);
    try {
      await check(open);
      passed.push(name);
    } catch (error) {
      failed.push(`${name}: ${String(error)}`);
    }
    for (const one of opened) one.close();
  }
  await deleteDB(NAME);
  return { passed, failed };
}

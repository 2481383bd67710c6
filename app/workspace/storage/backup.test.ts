import { draftFrom } from '#core/paper/begin-draft.ts';
import 'fake-indexeddb/auto';
import { readFileSync } from 'node:fs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { paperOfDraft } from '#core/paper/draft.ts';
import { exampleAssignment, exampleJudgement, exampleTask } from '#core/model/example.ts';
import { readBag, writeBag } from '#formats/bag/bag.ts';
import { UnreadableFile } from '#formats/unreadable.ts';
import type { reader as Reader } from '../../workers/clients.ts';
import type { ReaderWorker } from '../../workers/protocol.ts';
import { beginDraft } from '../commands/draft.ts';
import { settingIn } from '../state/settings.ts';
import { putSetting, SETTINGS_SCOPE } from '../commands/settings.ts';
import { openWorkspace, type Workspace } from '../workspace.ts';
import {
  checkBackup,
  joinBackup,
  mergeWith,
  restoreBackup,
  SHELF_SCOPE,
  writeBackup,
  type CheckedBackup,
} from './backup.ts';
import { unpackText } from './bodies.ts';

vi.mock('../../workers/clients.ts', () => ({
  reader: {
    ask: (work: Parameters<typeof Reader.ask>[0]) => {
      const here: Pick<ReaderWorker, 'readBag' | 'writeBag'> = {
        readBag: async (bytes) => {
          try {
            return { kind: 'read', value: await readBag(new Uint8Array(bytes)) };
          } catch (error) {
            if (!(error instanceof UnreadableFile)) throw error;
            return { kind: 'unreadable', reason: error.reason, detail: error.detail };
          }
        },
        writeBag,
      };
      return work(here as never);
    },
  },
}));

let workspace: Workspace;
let run = 0;
const another = () =>
  openWorkspace({ kind: 'student', deskId: 'backup', studentId: String(run++), studentName: 'Ines' });
beforeEach(async () => {
  workspace = await another();
});
afterEach(() => workspace.close());

const id = (text: string) => text as never;
async function checked(bytes: Uint8Array): Promise<CheckedBackup> {
  const result = await checkBackup(bytes);
  if (result.kind === 'unreadable') throw new Error(`${result.reason}: ${result.detail}`);
  return result.value;
}
const draftText = async (of: Workspace) => {
  const [{ bodyHash }] = of.records.drafts.values();
  const content = await of.bodies.load(bodyHash);
  return content === null ? null : paperOfDraft(content).text;
};

async function fill(): Promise<void> {
  await workspace.save((writing) => writing.put('assignments', exampleAssignment({ id: id('a') })));
  await beginDraft(
    workspace,
    id('a'),
    2,
    id('0'.repeat(64)),
    draftFrom([{ kind: 'paragraph', level: 0, text: 'What the wells said.' }]),
  );
  await putSetting(workspace, { name: 'singleKeys', on: false });
}

describe('a backup', () => {
  it('brings records, documents of drafts and settings to another place', async () => {
    await fill();
    const { bytes } = await writeBackup(workspace);
    const { records } = workspace;
    workspace.close();
    workspace = await another();
    expect(workspace.records.drafts.size).toBe(0);
    await restoreBackup(workspace, await checked(bytes));
    expect(workspace.records).toEqual(records);
    expect(await draftText(workspace)).toBe('What the wells said.');
    expect(workspace.records.settings.get('singleKeys')).toEqual({ name: 'singleKeys', on: false });
  });

  it('that lacks a document is refused, and says which', async () => {
    await fill();
    const { bytes } = await writeBackup(workspace);
    const { payload } = { payload: await readBag(bytes) };
    const [body] = Object.keys(payload).filter((name) => name.startsWith('bodies/'));
    expect(body).toMatch(/^bodies\/[0-9a-f]{64}\.json$/);
    const without = Object.fromEntries(Object.entries(payload).filter(([name]) => name !== body));
    const result = await checkBackup(await writeBag('x', without, '2026-11-02'));
    expect(result).toMatchObject({ kind: 'unreadable', reason: 'damaged backup' });
    expect(result.kind === 'unreadable' && result.detail).toMatch(/^bodies\/, (drafts|versions) /);
  });

  it('of version 7, with the documents in its records, is taken', async () => {
    const sample = JSON.parse(
      readFileSync(new URL('./samples/storage-7-draft.json', import.meta.url), 'utf8'),
    ) as { records: object[] };
    const file = {
      kind: 'juncture workspace',
      version: 7,
      at: '2026-11-02T10:00:00.000Z',
      cursor: 4,
      records: sample.records,
    };
    const payload = { 'workspace.json': new TextEncoder().encode(JSON.stringify(file)) };
    const backup = await checked(await writeBag('x', payload, '2026-11-02'));
    await restoreBackup(workspace, backup);
    expect(await draftText(workspace)).toBe('All of it was written anew elsewhere.');
    expect(await workspace.metaValue('cursor')).toBe(4);
  });
});

describe('backups of every earlier storage', () => {
  it.each([1, 2, 3, 4, 5, 7, 8, 9, 10, 11, 12, 13, 14])(
    'version %i restores, record by record',
    async (version) => {
      const text = readFileSync(new URL(`./samples/storage-${version}.json`, import.meta.url), 'utf8');
      const { records, bodies = {} } = JSON.parse(text) as {
        records: { store: string; key: string }[];
        bodies?: Record<string, string>;
      };
      const file = {
        kind: 'juncture workspace',
        version,
        at: '2026-11-02T10:00:00.000Z',
        cursor: 0,
        records,
      };
      const payload: Record<string, Uint8Array<ArrayBuffer>> = {
        'workspace.json': new TextEncoder().encode(JSON.stringify(file)),
      };
      for (const [hash, base64] of Object.entries(bodies))
        payload[`bodies/${hash}.json`] = new TextEncoder().encode(
          await unpackText(new Uint8Array(Buffer.from(base64, 'base64'))),
        );
      const backup = await checked(await writeBag('x', payload, '2026-11-02'));
      await restoreBackup(workspace, backup);
      const { rows } = await workspace.storedRows();
      expect(rows).toHaveLength(records.length);
      expect(rows.map(({ store }) => store).sort()).toEqual(records.map(({ store }) => store).sort());
    },
  );
});

describe('a workspace handed over to another device', () => {
  const decideAct = (of: Workspace, note: string) =>
    of.run('a', 'decide', (writing) =>
      writing.put('judgements', exampleJudgement('r1', { decision: 'act', note })),
    );

  it('goes there and back, with what was done in both places', async () => {
    await fill();
    await decideAct(workspace, 'On the laptop.');
    await workspace.run('a', 'task', (writing) => writing.put('tasks', exampleTask('t')));
    const phone = await another();
    await joinBackup(phone, await checked((await writeBackup(workspace)).bytes));
    expect(phone.records.judgements.get('r1')?.note).toBe('On the laptop.');
    expect(await draftText(phone)).toBe('What the wells said.');
    // Both go on: a task is taken out here, a decision made and a note written there.
    await workspace.run('a', 'task', (writing) => writing.remove('tasks', 't'));
    await phone.run('a', 'decide', (writing) =>
      writing.put('judgements', exampleJudgement('r2', { decision: 'keep', note: 'On the phone.' })),
    );
    const back = await joinBackup(workspace, await checked((await writeBackup(phone)).bytes));
    expect(back).toMatchObject({ added: 1 });
    expect(workspace.records.judgements.get('r2')?.note).toBe('On the phone.');
    expect(workspace.records.tasks.size).toBe(0);
    // The other device learns of the task that is gone.
    await joinBackup(phone, await checked((await writeBackup(workspace)).bytes));
    expect(phone.records.tasks.size).toBe(0);
    const same = await mergeWith(workspace, await checked((await writeBackup(phone)).bytes));
    expect(same).toMatchObject({ puts: [], removes: [] });
    phone.close();
  });

  it('is taken back as one', async () => {
    await decideAct(workspace, 'Here.');
    const other = await another();
    await decideAct(other, 'There.');
    await joinBackup(workspace, await checked((await writeBackup(other)).bytes));
    expect(workspace.records.judgements.get('r1')?.note).toContain('There.');
    expect(await workspace.undoLast(SHELF_SCOPE)).toMatchObject({ kind: 'done' });
    expect(workspace.records.judgements.get('r1')?.note).toBe('Here.');
    other.close();
  });

  it('holds one assignment alone where that is asked for', async () => {
    await fill();
    await workspace.save((writing) => writing.put('assignments', exampleAssignment({ id: id('b') })));
    const { rows, only } = await checked((await writeBackup(workspace, { only: 'a' })).bytes);
    expect(only).toBe('a');
    expect(rows.filter(({ store }) => store === 'assignments').map(({ key }) => key)).toEqual(['a']);
    expect(rows.some(({ store }) => store === 'drafts')).toBe(true);
    expect(rows.some(({ store }) => store === 'settings')).toBe(false);
  });
});

describe('a setting', () => {
  it('is taken back among the settings and nowhere else', async () => {
    await putSetting(workspace, { name: 'singleKeys', on: false });
    await putSetting(workspace, { name: 'singleKeys', on: true });
    expect(await workspace.undoLast('a')).toEqual({ kind: 'nothing' });
    expect(await workspace.undoLast(SETTINGS_SCOPE)).toMatchObject({ kind: 'done', label: 'setting' });
    expect(settingIn(workspace.records.settings, 'singleKeys')?.on).toBe(false);
    expect(await workspace.undoLast(SETTINGS_SCOPE)).toMatchObject({ kind: 'done' });
    expect(workspace.records.settings.size).toBe(0);
    expect(await workspace.redoNext(SETTINGS_SCOPE)).toMatchObject({ kind: 'done' });
    expect(settingIn(workspace.records.settings, 'singleKeys')?.on).toBe(false);
  });
});

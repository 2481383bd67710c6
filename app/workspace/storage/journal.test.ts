import 'fake-indexeddb/auto';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { openWorkspace, type Workspace } from '../workspace.ts';
import { type Identity } from '../identity.ts';

let workspace: Workspace;

/** localStorage as far as it is used here, with what is on the disk to go back to. */
class Shelf {
  entries = new Map<string, string>();
  getItem(key: string): string | null {
    return this.entries.get(key) ?? null;
  }
  setItem(key: string, text: string): void {
    this.entries.set(key, text);
  }
  removeItem(key: string): void {
    this.entries.delete(key);
  }
}
const shelf = new Shelf();
beforeAll(() => Object.assign(globalThis, { localStorage: shelf }));
afterAll(() => Reflect.deleteProperty(globalThis, 'localStorage'));

let run = 0;
let identity: Identity;
beforeEach(async () => {
  shelf.entries.clear();
  identity = { kind: 'student', deskId: 'journal', studentId: String(run++), studentName: 'Ines Tarrow' };
  workspace = await openWorkspace(identity);
});
afterEach(() => workspace.close());

describe('the journal', () => {
  it('gives back what was typed last, also after a reload', async () => {
    workspace.journal.write('note/1', 'half a sen');
    workspace = await openWorkspace(identity);
    expect(workspace.journal.read('note/1')).toBe('half a sen');
    expect(workspace.journal.read('note/2')).toBeNull();
  });

  it('never takes up again what was saved, even when the cleared entry comes back after a crash', async () => {
    workspace.journal.write('note/1', 'old words');
    const onDisk = new Map(shelf.entries);
    await workspace.journal.settling('note/1')();
    expect(shelf.entries.size).toBe(0);
    shelf.entries = onDisk;
    workspace = await openWorkspace(identity);
    expect(workspace.journal.read('note/1')).toBeNull();
  });

  it('keeps words that are younger than what is being saved', async () => {
    workspace.journal.write('note/1', 'first');
    const settled = workspace.journal.settling('note/1');
    workspace.journal.write('note/1', 'first and second');
    await settled();
    expect(workspace.journal.read('note/1')).toBe('first and second');
  });

  it('numbers on from what was settled, whatever the clock says', async () => {
    workspace.journal.write('note/1', 'first');
    await workspace.journal.settling('note/1')();
    workspace.journal.write('note/1', 'second');
    expect(workspace.journal.read('note/1')).toBe('second');
  });

  it('remembers what was settled when a backup takes the place of everything', async () => {
    workspace.journal.write('note/1', 'old words');
    const onDisk = new Map(shelf.entries);
    await workspace.journal.settling('note/1')();
    await workspace.replaceAll({ rows: [], gone: [], files: new Map(), bodies: [] }, { cursor: 3 });
    shelf.entries = onDisk;
    workspace = await openWorkspace(identity);
    expect(workspace.journal.read('note/1')).toBeNull();
  });

  it('keeps each workspace’s own', async () => {
    workspace.journal.write('note/1', 'mine');
    workspace = await openWorkspace({ kind: 'files alone' });
    expect(workspace.journal.read('note/1')).toBeNull();
  });
});

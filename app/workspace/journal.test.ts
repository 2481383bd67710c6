import 'fake-indexeddb/auto';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { journalise, journalled, settling } from './journal.ts';
import { closeWorkspace, openWorkspace, replaceAll, type Identity } from './workspace.ts';

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
  await openWorkspace(identity);
});
afterEach(closeWorkspace);

describe('the journal', () => {
  it('gives back what was typed last, also after a reload', async () => {
    journalise('note/1', 'half a sen');
    await openWorkspace(identity);
    expect(journalled('note/1')).toBe('half a sen');
    expect(journalled('note/2')).toBeNull();
  });

  it('never takes up again what was saved, even when the cleared entry comes back after a crash', async () => {
    journalise('note/1', 'old words');
    const onDisk = new Map(shelf.entries);
    await settling('note/1')();
    expect(shelf.entries.size).toBe(0);
    shelf.entries = onDisk;
    await openWorkspace(identity);
    expect(journalled('note/1')).toBeNull();
  });

  it('keeps words that are younger than what is being saved', async () => {
    journalise('note/1', 'first');
    const settled = settling('note/1');
    journalise('note/1', 'first and second');
    await settled();
    expect(journalled('note/1')).toBe('first and second');
  });

  it('numbers on from what was settled, whatever the clock says', async () => {
    journalise('note/1', 'first');
    await settling('note/1')();
    journalise('note/1', 'second');
    expect(journalled('note/1')).toBe('second');
  });

  it('remembers what was settled when a backup takes the place of everything', async () => {
    journalise('note/1', 'old words');
    const onDisk = new Map(shelf.entries);
    await settling('note/1')();
    await replaceAll([], new Map(), { cursor: 3 });
    shelf.entries = onDisk;
    await openWorkspace(identity);
    expect(journalled('note/1')).toBeNull();
  });

  it('keeps each workspace’s own', async () => {
    journalise('note/1', 'mine');
    await openWorkspace({ kind: 'files alone' });
    expect(journalled('note/1')).toBeNull();
  });
});

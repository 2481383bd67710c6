import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { KEEP_AFTER_MS, Keeper } from './keeper.ts';
import { Saving } from './saving.ts';

/** A journal in memory: entries, and what was settled. */
function fakeWorkspace() {
  const entries = new Map<string, string>();
  const states: string[] = [];
  const saving = new Saving((state) => states.push(state));
  const workspace = {
    journal: {
      write: (field: string, text: string) => void entries.set(field, text),
      settling: (field: string) => {
        const entry = entries.get(field);
        return () => {
          if (entries.get(field) === entry) entries.delete(field);
          return Promise.resolve();
        };
      },
    },
    holdSaving: () => saving.hold(),
  };
  return { workspace, entries, state: () => states.at(-1) };
}

/** A store in which each saving waits until it is let go on, or made to fail. */
function slowStore() {
  const kept: string[] = [];
  const waiting: { text: string; done: () => void; fail: () => void }[] = [];
  const save = (text: string) =>
    new Promise<void>((resolve, reject) => {
      waiting.push({
        text,
        done: () => {
          kept.push(text);
          resolve();
        },
        fail: () => reject(new Error('the disk is full')),
      });
    });
  return { kept, waiting, save };
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

function keeperWith(save: (text: string) => Promise<void>, onFailed?: () => void) {
  const fake = fakeWorkspace();
  const keeper = new Keeper<string>(fake.workspace, 'note', (text) => text);
  keeper.keepBy(save, onFailed);
  return { ...fake, keeper };
}

describe('what is typed', () => {
  it('is kept soon, though typing goes on, with the newest words', async () => {
    const { kept, waiting, save } = slowStore();
    const { keeper, state } = keeperWith(save);
    for (const text of ['a', 'ab', 'abc']) {
      keeper.changed(() => text);
      await vi.advanceTimersByTimeAsync(KEEP_AFTER_MS / 2 - 1);
    }
    expect(waiting.map(({ text }) => text)).toEqual(['abc']);
    expect(state()).toBe('saving');
    waiting[0].done();
    await vi.advanceTimersByTimeAsync(0);
    expect(kept).toEqual(['abc']);
    expect(state()).toBe('saved');
  });

  it('while a saving is under way is kept after it, and said to be unsaved until then', async () => {
    const { kept, waiting, save } = slowStore();
    const { keeper, state } = keeperWith(save);
    keeper.changed(() => 'one');
    void keeper.keepNow();
    keeper.changed(() => 'two');
    waiting[0].done();
    await vi.advanceTimersByTimeAsync(0);
    expect(state()).toBe('saving');
    await vi.advanceTimersByTimeAsync(KEEP_AFTER_MS);
    waiting[1].done();
    await vi.advanceTimersByTimeAsync(0);
    expect(kept).toEqual(['one', 'two']);
    expect(state()).toBe('saved');
  });

  it('stays in the journal when the page goes, also what is under way, until it is kept', async () => {
    const { waiting, save } = slowStore();
    const { keeper, entries } = keeperWith(save);
    keeper.changed(() => 'under way');
    void keeper.keepNow();
    keeper.leave();
    expect(entries.get('note')).toBe('under way');
    waiting[0].done();
    await vi.advanceTimersByTimeAsync(0);
    expect(entries.size).toBe(0);
    keeper.leave();
    expect(entries.size).toBe(0);
  });

  it('is not taken for kept by an older saving that ends late', async () => {
    const { waiting, save } = slowStore();
    const { keeper, entries } = keeperWith(save);
    keeper.changed(() => 'old');
    void keeper.keepNow();
    keeper.changed(() => 'new');
    keeper.leave();
    expect(entries.get('note')).toBe('new');
    // The page did not go after all; the older saving ends, the newer one is still under way.
    waiting[0].done();
    await vi.advanceTimersByTimeAsync(0);
    expect(entries.get('note')).toBe('new');
    waiting[1].done();
    await vi.advanceTimersByTimeAsync(0);
    expect(entries.size).toBe(0);
  });

  it('that could not be kept is said, waits in the journal, and is made good by the next saving', async () => {
    const { kept, waiting, save } = slowStore();
    const onFailed = vi.fn();
    const { keeper, entries, state } = keeperWith(save, onFailed);
    keeper.changed(() => 'lost?');
    void keeper.keepNow();
    waiting[0].fail();
    await vi.advanceTimersByTimeAsync(0);
    expect(onFailed).toHaveBeenCalledOnce();
    expect(entries.get('note')).toBe('lost?');
    expect(state()).toBe('failed');
    keeper.changed(() => 'lost? no');
    void keeper.keepNow();
    waiting[1].done();
    await vi.advanceTimersByTimeAsync(0);
    expect(kept).toEqual(['lost? no']);
    expect(entries.size).toBe(0);
    expect(state()).toBe('saved');
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exampleJudgement, exampleTask } from '#core/model/example.ts';
import type { GoneRow, StoredRow } from './database.ts';
import { mergeOf } from './merge.ts';

interface Copy {
  readonly rows: readonly StoredRow[];
  readonly gone: readonly GoneRow[];
}

const keyOf = ({ store, key }: { store: string; key: string }) => `${store}/${key}`;

/** A copy after what another has was joined with it. */
function after(mine: Copy, theirs: Copy): Copy {
  const { puts, removes } = mergeOf(mine, theirs);
  const rows = new Map(mine.rows.map((row) => [keyOf(row), row]));
  const gone = new Map(mine.gone.map((row) => [keyOf(row), row]));
  for (const row of puts) {
    rows.set(keyOf(row), row);
    gone.delete(keyOf(row));
  }
  for (const row of removes) {
    rows.delete(keyOf(row));
    gone.set(keyOf(row), row);
  }
  return { rows: [...rows.values()], gone: [...gone.values()] };
}

const shown = ({ rows }: Copy) =>
  Object.fromEntries(
    rows.map((row) => [keyOf(row), row.record] as const).toSorted(([x], [y]) => (x < y ? -1 : 1)),
  );

const at = fc.integer({ min: 1, max: 9 }).map((day) => `2026-11-0${day}T10:00:00.000Z`);
const text = fc.constantFrom('', 'Why?', 'Ask her.', 'Ask her. Soon.');
const judgement = fc
  .record({
    key: fc.constantFrom('r1', 'r2', 'r3'),
    decision: fc.constantFrom(null, 'act' as const, 'keep' as const),
    note: text,
    reply: text,
    at,
  })
  .map(({ key, at: when, ...given }): StoredRow => ({
    store: 'judgements',
    key,
    record: exampleJudgement(key, given),
    at: when,
  }));
const task = fc
  .record({ key: fc.constantFrom('t1', 't2'), title: text, at })
  .map(({ key, title, at: when }): StoredRow => ({
    store: 'tasks',
    key,
    record: exampleTask(key, { title }),
    at: when,
  }));
const gone = fc
  .record({ key: fc.constantFrom('t1', 't2'), at })
  .map((given): GoneRow => ({ store: 'tasks', ...given }));
const copy = fc
  .tuple(
    fc.uniqueArray(fc.oneof(judgement, task), { selector: keyOf, maxLength: 5 }),
    fc.uniqueArray(gone, { selector: keyOf, maxLength: 2 }),
  )
  .map(([rows, taken]): Copy => ({
    rows,
    gone: taken.filter((one) => !rows.some((row) => keyOf(row) === keyOf(one))),
  }));

describe('two copies of a workspace', () => {
  it('hold the same after each was joined with the other, whichever was first', () => {
    fc.assert(
      fc.property(copy, copy, (x, y) => {
        expect(shown(after(x, y))).toEqual(shown(after(y, x)));
      }),
    );
  });

  it('are as they are once they were joined', () => {
    fc.assert(
      fc.property(copy, copy, (x, y) => {
        const both = after(x, y);
        expect(shown(after(both, y))).toEqual(shown(both));
        expect(mergeOf(both, both)).toMatchObject({ puts: [], removes: [], added: 0, newer: 0 });
      }),
    );
  });

  it('lose nothing that was typed about a remark', () => {
    const typed = ({ rows }: Copy) =>
      rows.flatMap(({ store, key, record }) => {
        if (store !== 'judgements') return [];
        const { note, reply } = record as { note: string; reply: string };
        return [note, reply].map((said) => [key, said] as const);
      });
    fc.assert(
      fc.property(copy, copy, (x, y) => {
        const both = after(x, y);
        for (const [key, said] of [...typed(x), ...typed(y)]) {
          const { note, reply } = both.rows.find((row) => row.key === key)?.record as {
            note: string;
            reply: string;
          };
          expect(note.includes(said) || reply.includes(said)).toBe(true);
        }
      }),
    );
  });

  const row = (decision: 'act' | 'keep' | null, day: number, more = {}): StoredRow => ({
    store: 'judgements',
    key: 'r1',
    record: exampleJudgement('r1', { decision, ...more }),
    at: `2026-11-0${day}T10:00:00.000Z`,
  });

  it('take the newer of two decisions, and the older where the newer decides nothing', () => {
    const one = (x: StoredRow, y: StoredRow) =>
      after({ rows: [x], gone: [] }, { rows: [y], gone: [] }).rows[0].record as { decision: unknown };
    expect(one(row('act', 1), row('keep', 2)).decision).toBe('keep');
    expect(one(row('keep', 2), row('act', 1)).decision).toBe('keep');
    expect(one(row('act', 1), row(null, 2, { note: 'Hm.' })).decision).toBe('act');
  });

  it('don’t bring back what was taken out, unless it was changed later', () => {
    const mine = {
      rows: [],
      gone: [{ store: 'judgements' as const, key: 'r1', at: '2026-11-05T10:00:00.000Z' }],
    };
    expect(mergeOf(mine, { rows: [row('act', 4)], gone: [] }).puts).toEqual([]);
    expect(mergeOf(mine, { rows: [row('act', 6)], gone: [] }).puts).toHaveLength(1);
  });

  it('keep the older of two texts of a draft as a version', () => {
    const draft = (body: string, day: number): StoredRow => ({
      store: 'drafts',
      key: 'a/2',
      at: `2026-11-0${day}T10:00:00.000Z`,
      record: {
        id: 'a/2',
        assignmentId: 'a',
        attemptNumber: 2,
        startedFrom: null,
        bodyHash: body.repeat(64),
        files: [],
        post: null,
        items: {},
        note: '',
        paperFile: null,
        headVersionId: null,
        savedAt: `2026-11-0${day}T10:00:00.000Z`,
      },
    });
    for (const [x, y] of [
      [draft('a', 1), draft('b', 2)],
      [draft('b', 2), draft('a', 1)],
    ]) {
      const { rows } = after({ rows: [x], gone: [] }, { rows: [y], gone: [] });
      const bodies = rows.map(({ store, record }) => [store, (record as { bodyHash: string }).bodyHash[0]]);
      expect(bodies.sort()).toEqual([
        ['drafts', 'b'],
        ['versions', 'a'],
      ]);
    }
  });
});

import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { openDB } from 'idb';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { followPassages, followerOf } from '#core/anchors/outcome.ts';
import { exampleRemark } from '#core/model/example.ts';
import { draftFrom } from '#core/paper/begin-draft.ts';
import { paperOfDraft } from '#core/paper/draft.ts';
import { paperOf, type Block } from '#core/paper/paper.ts';
import { isRead } from '#core/tally/tally.ts';
import { decideRemark, noteOnRemark, toggleCarry } from './commands/decide.ts';
import { addReadingTime } from './commands/reading.ts';
import { markQueryPut } from './commands/queries.ts';
import type { FileHash } from '#core/model/ids.ts';
import { beginDraft, bringInFile, goBackTo, saveDraft } from './commands/draft.ts';
import { recordHandedIn, sentFile } from './commands/send.ts';
import { orderTasks, renameTask, tickTask } from './commands/plan.ts';
import { openWorkspace, type Workspace } from './workspace.ts';
import { type Identity } from './identity.ts';

let workspace: Workspace;

let run = 0;
let identity: Identity;
beforeEach(async () => {
  identity = { kind: 'student', deskId: 'test', studentId: String(run++), studentName: 'Ines Tarrow' };
  workspace = await openWorkspace(identity);
});
afterEach(() => workspace.close());

const records = () => workspace.records;
const reopen = async () => {
  workspace.close();
  workspace = await openWorkspace(identity);
};
const reopenAs = async (studentId: string) => {
  identity = { kind: 'student', deskId: 'test', studentId, studentName: 'Ines Tarrow' };
  await reopen();
};
const id = (text: string) => text as never;

const remark = exampleRemark({ id: 'r1', text: 'Too strong. Say what the wells show.' });
const theTask = () => [...records().tasks.values()][0];

describe('what was taken back', () => {
  const decision = () => records().judgements.get('r1')?.decision ?? null;

  it('can be done again, also after a reload, until something else is done', async () => {
    await decideRemark(workspace, remark, 'act');
    await toggleCarry(workspace, remark);
    await workspace.undoLast('a');
    await workspace.undoLast('a');
    expect(decision()).toBeNull();
    await reopen();
    expect(await workspace.redoNext('a')).toMatchObject({ kind: 'done', remarkId: 'r1' });
    expect(decision()).toBe('act');
    expect(records().judgements.get('r1')?.carry).toBe(false);
    await workspace.redoNext('a');
    expect(records().judgements.get('r1')?.carry).toBe(true);
    expect(await workspace.redoNext('a')).toEqual({ kind: 'nothing' });
    await workspace.undoLast('a');
    await noteOnRemark(workspace, remark, null, 'Something else.');
    expect(await workspace.redoNext('a')).toEqual({ kind: 'nothing' });
  });

  it('is what it was before, whatever is taken back and done again in between', async () => {
    const step = fc.constantFrom('act', 'ask', 'keep', 'carry', 'undo', 'redo');
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 14 }), async (steps) => {
        await reopenAs(`undo${run++}`);
        // The plain way: whole states in two stacks.
        const shown = () => JSON.stringify([...records().judgements.values(), ...records().tasks.values()]);
        const before: string[] = [];
        const after: string[] = [];
        for (const each of steps) {
          const now = shown();
          if (each === 'undo') {
            await workspace.undoLast('a');
            const was = before.pop();
            if (was !== undefined) after.push(now);
            expect(shown()).toBe(was ?? now);
          } else if (each === 'redo') {
            await workspace.redoNext('a');
            const was = after.pop();
            if (was !== undefined) before.push(now);
            expect(shown()).toBe(was ?? now);
          } else {
            if (each === 'carry') await toggleCarry(workspace, remark);
            else await decideRemark(workspace, remark, each);
            before.push(now);
            after.length = 0;
          }
        }
      }),
      { numRuns: 25 },
    );
  });

  it('belongs to every assignment that it touched', async () => {
    const other = exampleRemark({ id: 'r2', assignmentId: 'b' });
    await workspace.run('a', 'both', async (writing) => {
      await writing.put('remarks', remark);
      await writing.put('remarks', other);
    });
    expect(await workspace.undoLast('b')).toMatchObject({ kind: 'done', label: 'both' });
    expect(records().remarks.size).toBe(0);
    expect(await workspace.undoLast('a')).toEqual({ kind: 'nothing' });
    expect(await workspace.redoNext('a')).toMatchObject({ kind: 'done' });
    expect(records().remarks.size).toBe(2);
  });

  it('stays with one assignment when the other has done so much since that it is given up there', async () => {
    const put = (assignmentId: string, text: string) =>
      workspace.run('a', text, (writing) =>
        writing.put('remarks', exampleRemark({ id: `of ${assignmentId}`, assignmentId, text })),
      );
    await workspace.run('a', 'both', async (writing) => {
      await writing.put('remarks', remark);
      await writing.put('remarks', exampleRemark({ id: 'r2', assignmentId: 'b' }));
    });
    for (let n = 0; n < 300; n++) await put('a', `change ${n}`);
    for (let n = 299; n >= 0; n--)
      expect(await workspace.undoLast('a')).toMatchObject({ kind: 'done', label: `change ${n}` });
    expect(await workspace.undoLast('a')).toEqual({ kind: 'nothing' });
    expect(await workspace.undoLast('b')).toMatchObject({ kind: 'done', label: 'both' });
  });
});

describe('deciding', () => {
  it('makes a task with the decision, and takes both back together, also after a reload', async () => {
    await decideRemark(workspace, remark, 'act');
    expect(records().judgements.get('r1')?.decision).toBe('act');
    expect(records().readings.get('r1')?.read).toBe(true);
    expect(theTask().title).toBe('Too strong. Say what the wells show.');
    await reopen();
    expect(theTask().title).toBe('Too strong. Say what the wells show.');
    expect(await workspace.undoLast('a')).toEqual({
      kind: 'done',
      label: 'decided “Act”',
      remarkId: 'r1',
    });
    expect([records().tasks.size, records().judgements.size, records().readings.size]).toEqual([0, 0, 0]);
    await reopen();
    expect(records().tasks.size).toBe(0);
    expect(await workspace.undoLast('a')).toEqual({ kind: 'nothing' });
  });

  it('withdraws an untouched task, and only lets go of a touched one', async () => {
    await decideRemark(workspace, remark, 'act');
    await decideRemark(workspace, remark, 'decline');
    expect(records().tasks.size).toBe(0);
    await decideRemark(workspace, remark, 'act');
    await renameTask(workspace, theTask(), 'Weigh the weather');
    await decideRemark(workspace, remark, 'act');
    expect(records().judgements.get('r1')?.decision).toBeNull();
    expect(theTask()).toMatchObject({ title: 'Weigh the weather', about: [] });
  });

  it('takes back all of one spell of typing at once, and an earlier one after it', async () => {
    await decideRemark(workspace, remark, 'ask');
    for (const note of ['W', 'Which', 'Which season?'])
      await noteOnRemark(workspace, remark, null, note, 'spell 1');
    for (const note of ['Which year', 'Which year?'])
      await noteOnRemark(workspace, remark, null, note, 'spell 2');
    await reopen();
    const note = () => records().judgements.get('r1')?.note;
    await workspace.undoLast('a');
    expect([note(), records().queries.get('query/r1')?.text]).toEqual(['Which season?', 'Which season?']);
    await workspace.undoLast('a');
    expect([note(), records().queries.get('query/r1')?.text]).toEqual(['', '']);
    expect(await workspace.undoLast('a')).toMatchObject({ label: 'decided “Ask”' });
  });

  it('makes a question that follows the note until it was worded, and stays once it was asked', async () => {
    await decideRemark(workspace, remark, 'ask');
    await noteOnRemark(workspace, remark, null, 'Which season?');
    expect(records().queries.get('query/r1')).toMatchObject({
      person: 'Dr Aune Keld',
      text: 'Which season?',
      putAt: null,
      answer: '',
    });
    await markQueryPut(workspace, 'a', 'query/r1', true);
    await decideRemark(workspace, remark, 'keep');
    expect(records().queries.get('query/r1')?.putAt).not.toBeNull();
  });

  it('carries beside any decision', async () => {
    await decideRemark(workspace, remark, 'keep');
    await toggleCarry(workspace, remark);
    expect(records().judgements.get('r1')).toMatchObject({ decision: 'keep', carry: true });
  });
});

describe('commands', () => {
  it('leave nothing behind when they fail half-way', async () => {
    await expect(
      workspace.run('a', 'fails', async (writing) => {
        await writing.put('remarks', remark);
        throw new Error('half-way');
      }),
    ).rejects.toThrow('half-way');
    await reopen();
    expect(records().remarks.size).toBe(0);
    expect(await workspace.undoLast('a')).toEqual({ kind: 'nothing' });
  });

  it('refuse to take back what something later builds on', async () => {
    await decideRemark(workspace, remark, 'act');
    await workspace.save((writing) => writing.put('tasks', { ...theTask(), minutes: 99 }));
    expect(await workspace.undoLast('a')).toEqual({ kind: 'changed since' });
    expect(theTask().minutes).toBe(99);
  });

  it('undo goes back step by step, each assignment for itself', async () => {
    await decideRemark(workspace, remark, 'act');
    await decideRemark(workspace, { ...remark, id: id('other'), assignmentId: id('b') }, 'keep');
    await tickTask(workspace, theTask(), true);
    await orderTasks(workspace, 'a', [theTask().id]);
    expect(theTask()).toMatchObject({ done: true, rank: 0 });
    await workspace.undoLast('a');
    expect(theTask()).toMatchObject({ done: true, rank: null });
    await workspace.undoLast('a');
    await workspace.undoLast('a');
    expect(records().tasks.size).toBe(0);
    expect(records().judgements.get('other')?.decision).toBe('keep');
  });
});

describe('time spent reading', () => {
  const read = () => records().readings.get('r1');

  it('stands in the way of nothing that is taken back or done again, and stays', async () => {
    await addReadingTime(workspace, remark, 400, false);
    await decideRemark(workspace, remark, 'act');
    // What was on its way when it was decided comes in afterwards.
    await addReadingTime(workspace, remark, 600, false);
    expect(read()).toMatchObject({ read: true, seenMs: 400 });
    expect(await workspace.undoLast('a')).toMatchObject({ kind: 'done' });
    expect(read()).toMatchObject({ read: false, seenMs: 400 });
    await addReadingTime(workspace, remark, 1500, false);
    expect(await workspace.redoNext('a')).toMatchObject({ kind: 'done' });
    expect(read()).toMatchObject({ read: true, seenMs: 1900 });
    expect(records().judgements.get('r1')?.decision).toBe('act');
    await reopen();
    expect(await workspace.undoLast('a')).toMatchObject({ kind: 'done' });
    expect(read()).toMatchObject({ read: false, seenMs: 1900 });
    expect(records().judgements.size).toBe(0);
  });

  it('of what was said anew since is not taken back', async () => {
    await decideRemark(workspace, remark, 'act');
    const anew = { ...remark, text: 'Say it otherwise.' };
    await addReadingTime(workspace, anew, 5000, true);
    expect(await workspace.undoLast('a')).toMatchObject({ kind: 'done' });
    expect(isRead(anew, read())).toBe(true);
  });
});

const OLD: Block[] = [
  'This proves that blocking alone restored the bog. The wells by the cutting changed least.',
  'Rainfall was higher than the mean. Well N7 was left out since its cap had come off twice.',
  'The dams of peat are cheap and they can be repaired with a spade by anybody who has one.',
].map((text) => ({ kind: 'paragraph', level: 0, text }));

describe('drafts', () => {
  const draft = () => [...records().drafts.values()][0];
  const written = async () => {
    const content = await workspace.bodies.load(draft().bodyHash);
    if (content === null) throw new Error('the draft has no document');
    return paperOfDraft(content);
  };

  it('keep what was written before a file came in, and go back to it', async () => {
    await beginDraft(workspace, id('a'), 2, id('0'.repeat(64)), draftFrom(OLD));
    const file = {
      hash: id('1'.repeat(64)),
      name: 'new.docx',
      mediaType: 'x',
      size: 1,
      cameAt: draft().savedAt,
      origin: 'dropped' as const,
      assignmentId: id('a'),
      role: 'version' as const,
      aboutHash: null,
    };
    await bringInFile(workspace, id('a'), 2, null, file, new Uint8Array([1]));
    expect(draft()).toMatchObject({ bodyHash: null, paperFile: file.hash, startedFrom: '0'.repeat(64) });
    // As it was begun it is a version already.
    expect([...records().versions.values()].map((version) => version.why).sort()).toEqual([
      'brought in',
      'started',
    ]);
    await workspace.undoLast('a');
    expect(await written()).toEqual(paperOf(OLD));
    await workspace.redoNext('a');
    await reopen();
    expect(draft().paperFile).toBe(file.hash);
    // What was written before is a version to go back to; the file is one too.
    const before = [...records().versions.values()].find(({ why }) => why === 'started');
    await goBackTo(workspace, draft(), before?.id ?? id('none'));
    expect(await written()).toEqual(paperOf(OLD));
    expect(draft().paperFile).toBeNull();
    expect([...records().versions.values()].some(({ fileHash }) => fileHash === file.hash)).toBe(true);
    await workspace.undoLast('a');
    expect(draft().paperFile).toBe(file.hash);
  });

  it('are sent as the file that they are, and the version that was sent leads to it', async () => {
    const hash = id('2'.repeat(64)) as FileHash;
    const file = {
      hash,
      name: 'new.docx',
      mediaType: 'x',
      size: 1,
      cameAt: workspace.now(),
      origin: 'dropped' as const,
      assignmentId: id('a'),
      role: 'version' as const,
      aboutHash: null,
    };
    await bringInFile(workspace, id('a'), 2, null, file, new Uint8Array([1]));
    const going = {
      kind: 'paper',
      content: null,
      kept: [sentFile('paper', file)],
      written: [],
      post: null,
    } as const;
    await recordHandedIn(workspace, draft(), going, 'By mail');
    const sent = [...records().versions.values()].find(({ why }) => why === 'sent');
    expect(sent).toMatchObject({ bodyHash: null, fileHash: hash });
    await goBackTo(workspace, draft(), sent?.id ?? id('none'));
    expect(draft().paperFile).toBe(hash);
  });

  it('keep no document but those of versions and the one that is written', async () => {
    await beginDraft(workspace, id('a'), 2, id('0'.repeat(64)), draftFrom(OLD));
    const texts = ['One.', 'Two.', 'One.', 'Three.', 'Four.'];
    for (const text of texts)
      await saveDraft(workspace, draft().id, draftFrom([{ kind: 'paragraph', level: 0, text }]));
    const started = [...records().versions.values()][0];
    const database = await openDB(workspace.name);
    expect((await database.getAllKeys('bodies')).toSorted()).toEqual(
      [started.bodyHash, draft().bodyHash].toSorted(),
    );
    database.close();
    await reopen();
    expect((await written()).text).toBe('Four.');
    expect(await workspace.bodies.load(started.bodyHash)).toEqual(draftFrom(OLD));
    expect(await workspace.bodies.load('0'.repeat(64))).toBeNull();
  });

  it('live outcomes equal a fresh computation after any edits, pastes and reloads', async () => {
    const older = paperOf(OLD);
    const passages = ['proves that blocking alone', 'Well N7', 'with a spade', 'higher than the mean.'].map(
      (words) => {
        const from = older.text.indexOf(words);
        return { from, to: from + words.length };
      },
    );
    const words = fc.constantFrom(
      'bog',
      'the',
      'N7',
      'suggests',
      'proves that blocking alone',
      'with a spade',
      '',
    );
    const step = fc.oneof(
      fc.record({
        kind: fc.constant('type' as const),
        block: fc.nat({ max: 5 }),
        at: fc.nat({ max: 90 }),
        text: words,
      }),
      fc.record({
        kind: fc.constant('delete' as const),
        block: fc.nat({ max: 5 }),
        at: fc.nat({ max: 90 }),
        count: fc.nat({ max: 60 }),
      }),
      fc.record({ kind: fc.constant('paste' as const), at: fc.nat({ max: 5 }), from: fc.nat({ max: 2 }) }),
      fc.record({ kind: fc.constant('cut' as const), block: fc.nat({ max: 5 }) }),
      fc.record({ kind: fc.constant('reload' as const) }),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 10 }), async (steps) => {
        identity = { kind: 'student', deskId: 'test', studentId: `p${run++}`, studentName: 'Ines Tarrow' };
        await reopen();
        await beginDraft(workspace, id('a'), 2, id('0'.repeat(64)), draftFrom(OLD));
        let live = followerOf(older);
        let blocks = OLD;
        for (const each of steps) {
          if (each.kind === 'reload') {
            await reopen();
            live = followerOf(older);
          } else {
            blocks = edited(blocks, each);
            await saveDraft(workspace, draft().id, draftFrom(blocks));
          }
          const newer = await written();
          expect(newer.text).toBe(paperOf(blocks).text);
          expect(live.follow(newer, passages)).toEqual(followPassages(older, newer, passages));
        }
      }),
      { numRuns: 40 },
    );
  });
});

type Edit =
  | { kind: 'type'; block: number; at: number; text: string }
  | { kind: 'delete'; block: number; at: number; count: number }
  | { kind: 'paste'; at: number; from: number }
  | { kind: 'cut'; block: number };

function edited(blocks: readonly Block[], edit: Edit): Block[] {
  switch (edit.kind) {
    case 'type':
      return blocks.map((b, i) =>
        i === edit.block ? { ...b, text: b.text.slice(0, edit.at) + edit.text + b.text.slice(edit.at) } : b,
      );
    case 'delete':
      return blocks.map((b, i) =>
        i === edit.block ? { ...b, text: b.text.slice(0, edit.at) + b.text.slice(edit.at + edit.count) } : b,
      );
    case 'paste':
      return blocks.toSpliced(edit.at, 0, OLD[edit.from]);
    case 'cut':
      return blocks.toSpliced(edit.block, 1);
  }
}

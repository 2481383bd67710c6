import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import {
  exampleAssignment,
  exampleFile,
  exampleMarking,
  exampleRemark,
  wordsTarget,
} from '#core/model/example.ts';
import type { Fact } from '#core/model/facts.ts';
import { hashOf } from '#formats/hash.ts';
import { downloadFile } from './desk-client.ts';
import { takeInFacts } from './facts.ts';
import { matchReturned } from './returned.ts';
import { openWorkspace, type Workspace } from '../workspace.ts';

let workspace: Workspace;

const bytes = new Uint8Array(1000).map((_, i) => i % 251);
const noProgress = () => undefined;

/** A desk that answers with parts of the file, and may break off after some bytes. */
function serveFile(options: { breakAfter?: (number | null)[]; ranges?: boolean; status?: number } = {}) {
  const asked: (string | null)[] = [];
  const breaks = [...(options.breakAfter ?? [])];
  vi.stubGlobal(
    'fetch',
    (_path: string, init: { headers: Partial<Record<string, string>>; signal?: AbortSignal }) => {
      const range = init.headers.Range ?? null;
      asked.push(range);
      if (options.status !== undefined)
        return Promise.resolve(new Response(null, { status: options.status }));
      const from = range === null || options.ranges === false ? 0 : Number(/\d+/.exec(range)?.[0]);
      const stop = breaks.shift() ?? null;
      let at = from;
      const body = new ReadableStream<Uint8Array>({
        pull(controller) {
          if (stop !== null && at >= from + stop) controller.error(new Error('connection lost'));
          else if (at >= bytes.length) controller.close();
          else {
            const to = Math.min(bytes.length, at + 100);
            controller.enqueue(bytes.slice(at, to));
            at = to;
          }
        },
      });
      return Promise.resolve(new Response(body, { status: from > 0 ? 206 : 200 }));
    },
  );
  return asked;
}

let run = 0;
beforeEach(async () => {
  workspace = await openWorkspace({
    kind: 'student',
    deskId: 'fetch',
    studentId: String(run++),
    studentName: 'Ines',
  });
});
afterEach(() => {
  vi.unstubAllGlobals();
  workspace.close();
});

const fact = async (over: object = {}) =>
  exampleFile({ hash: await hashOf(bytes), size: bytes.length, role: 'brief', ...over });

describe('downloading', () => {
  it('goes on where it broke off', async () => {
    const asked = serveFile({ breakAfter: [300, 200, null] });
    expect(await workspace.downloads.deskFile(await fact(), 'a' as never)).toEqual(bytes);
    expect(asked).toEqual([null, 'bytes=300-', 'bytes=500-']);
    const { hash } = await fact();
    expect(await workspace.fileBytes(hash)).toEqual(bytes);
    expect((await workspace.partialBytes(hash)).length).toBe(0);
  });

  it('keeps what came when the connection stays broken, and uses it the next time', async () => {
    serveFile({ breakAfter: [400, 0] });
    const file = await fact();
    expect(await workspace.downloads.deskFile(file, 'a' as never)).toBeNull();
    expect(workspace.downloads.store.getState().byHash.get(file.hash)).toEqual({
      kind: 'failed',
      because: 'broken',
      received: 400,
    });
    expect((await workspace.partialBytes(file.hash)).length).toBe(400);
    const asked = serveFile();
    expect(await workspace.downloads.deskFile(file, 'a' as never)).toEqual(bytes);
    expect(asked).toEqual(['bytes=400-']);
  });

  it('begins again where the desk knows no parts', async () => {
    serveFile({ breakAfter: [400, null], ranges: false });
    expect(await workspace.downloads.deskFile(await fact(), 'a' as never)).toEqual(bytes);
  });

  it('says what arrived damaged, and keeps nothing of it', async () => {
    serveFile();
    const wrong = await fact({ hash: 'b'.repeat(64) });
    expect(await workspace.downloads.deskFile(wrong, 'a' as never)).toBeNull();
    expect(workspace.downloads.store.getState().byHash.get(wrong.hash)).toMatchObject({ because: 'damaged' });
    expect(await workspace.fileBytes(wrong.hash)).toBeNull();
  });

  it('is not over for good where the student was signed out in the middle of it', async () => {
    const returned = { ...(await fact()), role: 'brief' as const };
    const facts: Fact[] = [
      { seq: 1, kind: 'assignment', value: exampleAssignment() },
      { seq: 2, kind: 'marking', value: exampleMarking({ files: [returned] }) },
    ];
    await takeInFacts(workspace, facts, [], 2);
    serveFile({ status: 401 });
    await workspace.downloads.fetchReturnedFiles();
    expect(workspace.downloads.store.getState().byHash.size).toBe(0);
    // Signed in again, with the page still open.
    serveFile();
    await workspace.downloads.fetchReturnedFiles();
    expect(await workspace.fileBytes(returned.hash)).toEqual(bytes);
  });

  it('tells a missing file, a signed-out student and more bytes than were announced apart', async () => {
    const get = (size = bytes.length) =>
      downloadFile('x', size, new Uint8Array(), { of: '', signal: new AbortController().signal }, noProgress);
    serveFile({ status: 404 });
    expect((await get()).kind).toBe('missing');
    serveFile({ status: 401 });
    expect((await get()).kind).toBe('signed out');
    serveFile();
    expect((await get(500)).kind).toBe('missing');
    serveFile({ status: 503 });
    expect((await get()).kind).toBe('broken');
  });
});

describe('a newly returned file', () => {
  const at = (id: string, text: string, exact: string, author = 'Dr Aune Keld') =>
    exampleRemark({ id, text, author: { name: author, role: 'instructor' }, targets: [wordsTarget(exact)] });

  it('speaks of the remarks of the one before: by id, by author and place, by text', () => {
    const old = [at('1', 'Say why.', 'wet'), at('2', 'Which?', 'dry'), at('3', 'Source?', 'known')];
    const next = [
      at('1', 'Say why, now.', 'wet'),
      at('x', 'Which of them?', 'dry'),
      at('y', 'Source?', 'moved'),
    ];
    const { remarks, idBefore } = matchReturned(old, next);
    expect(remarks.map(({ id }) => id as string)).toEqual(['1', '2', '3']);
    expect([...idBefore]).toEqual([
      ['x', '2'],
      ['y', '3'],
    ]);
  });

  it('takes nobody else’s remark for one of the old ones, and each only once', () => {
    const old = [at('1', 'Say why.', 'wet')];
    const next = [at('a', 'Say why.', 'wet', 'Joss'), at('b', 'Say why.', 'wet'), at('c', 'Say why.', 'wet')];
    expect(matchReturned(old, next).remarks.map(({ id }) => id as string)).toEqual(['a', '1', 'c']);
  });
});

describe('facts that come late', () => {
  it('don’t undo a newer correction', async () => {
    const marking = (id: string, atTime: string, overall: string) => ({
      seq: 1,
      kind: 'marking' as const,
      value: exampleMarking({ id, at: atTime, overall, score: '5' }),
    });
    const newer = marking('m2', '2026-11-03T10:00:00.000Z', 'Corrected.');
    const older = marking('m1', '2026-11-02T10:00:00.000Z', 'First.');
    await takeInFacts(
      workspace,
      [{ seq: 0, kind: 'assignment', value: exampleAssignment() }, older, newer],
      [],
      2,
    );
    await takeInFacts(workspace, [older], [], 3);
    expect([...workspace.records.remarks.values()].map(({ text }) => text)).toEqual(['Corrected.']);
  });
});

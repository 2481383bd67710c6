import { draftFrom } from '#core/paper/begin-draft.ts';
import { exampleSaying } from '#core/saying/example.ts';
import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { openDB } from 'idb';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { Fact } from '#core/model/facts.ts';
import { asId, AssignmentId, FileHash } from '#core/model/ids.ts';
import { likelyAssignment } from '#core/taking-in/likely.ts';
import { exampleAssignment, exampleAttempt, exampleFile, exampleMarking } from '#core/model/example.ts';
import { wireOfFact } from '#formats/desk/wire.ts';
import { hashOf } from '#formats/hash.ts';
import { readPaper } from '#formats/read-paper.ts';
import type { reader as Reader, texts as Texts } from '../workers/clients.ts';
import type { ReaderWorker, TextWorker } from '../workers/protocol.ts';
import { beginDraft } from './commands/draft.ts';
import { sendAttempt } from './commands/send.ts';
import { Session } from './state/session.ts';
import type { TakingInTeller } from './taking-in/told.ts';
import type { Workspace } from './workspace.ts';

/**
 * Two students at one page, in turn, who come and go at random moments while files are fetched and read and work is sent.
 * All that is of a student names them; nothing of one may ever be in the other's workspace.
 */

const students = ['ines', 'joss'] as const;
type Student = (typeof students)[number];
const FILES = 6;

let ticks: () => number = () => 0;
const aWhile = async () => {
  for (let left = ticks(); left > 0; left--) await new Promise((resolve) => setTimeout(resolve, 0));
};

vi.mock('../workers/clients.ts', () => ({
  reader: {
    ask: (work: Parameters<typeof Reader.ask>[0]) => {
      const slow: Pick<ReaderWorker, 'readPaper' | 'readFile' | 'likelyAssignment'> = {
        readFile: async (_name, bytes) => {
          await aWhile();
          const paper = await readPaper(bytes, null);
          await aWhile();
          return { kind: 'read', value: { kind: 'paper', mediaType: 'text/plain', paper } };
        },
        likelyAssignment: async (file, candidates) => {
          await aWhile();
          return likelyAssignment(file, candidates);
        },
        readPaper: async (bytes) => {
          await aWhile();
          const value = await readPaper(bytes, null);
          await aWhile();
          return { kind: 'read', value };
        },
      };
      return work(slow as never);
    },
  },
  texts: {
    ask: (work: Parameters<typeof Texts.ask>[0]) => {
      const slow: Pick<TextWorker, 'says'> = {
        says: async (_model, remarks) => {
          await aWhile();
          return remarks.map(() => exampleSaying('fix'));
        },
      };
      return work(slow as never);
    },
  },
}));

// Nothing is drawn here.
vi.mock('../workers/pdf-drawing.ts', () => ({ openForDrawing: () => Promise.reject(new Error('no PDF')) }));

const textOf = (student: Student, number: number) =>
  new TextEncoder().encode(
    `A page of ${student}, the ${number}th.\n\nIt says what ${student} wrote about peat.`,
  );
const files = new Map<string, { student: Student; bytes: Uint8Array<ArrayBuffer> }>();
const facts = new Map<Student, Fact[]>();
for (const student of students) {
  const own: Fact[] = [];
  const put = (fact: object) => own.push({ ...fact, seq: own.length + 1 } as Fact);
  put({ kind: 'assignment', value: exampleAssignment({ id: `of-${student}`, title: `Work of ${student}` }) });
  for (let number = 1; number <= FILES; number++) {
    const bytes = textOf(student, number);
    const hash = await hashOf(bytes);
    files.set(hash, { student, bytes });
    const ids = { assignmentId: `of-${student}`, attemptId: `${student}-${number}` };
    put({
      kind: 'attempt',
      value: exampleAttempt({ id: ids.attemptId, assignmentId: ids.assignmentId, number }),
    });
    const file = exampleFile({
      hash,
      size: bytes.length,
      name: `${student}-${number}.txt`,
      mediaType: 'text/plain',
      role: number % 2 === 0 ? 'marked' : 'brief',
    });
    put({
      kind: 'marking',
      value: exampleMarking({
        ...ids,
        id: `m-${student}-${number}`,
        overall: `Well done, ${student}.`,
        files: [file],
      }),
    });
  }
  facts.set(student, own);
}

/** The desk: whoever signed in last is the one whose session its cookie names. */
function serve() {
  let signedIn: Student | null = null;
  const sent: { by: Student; text: string }[] = [];
  const json = (value: unknown, status = 200) => new Response(JSON.stringify(value), { status });
  const answer = (path: string, init: RequestInit): Response => {
    const who = signedIn;
    if (path === '/desk/session' && init.method === 'POST') {
      signedIn = (JSON.parse(init.body as string) as { student: Student }).student;
      return json({ deskId: 'two', deskName: 'Two', studentId: signedIn, studentName: signedIn, now: NOW });
    }
    if (path === '/desk/session' && init.method === 'DELETE') {
      signedIn = null;
      return json({});
    }
    const named = new Headers(init.headers).get('Desk-Student');
    if (who === null || (named !== null && named !== encodeURIComponent(`two/${who}`)))
      return json({ error: 'Sign in.' }, 401);
    if (path.startsWith('/desk/facts')) {
      const after = Number(path.split('=')[1]);
      const own = facts.get(who) ?? [];
      return json({
        now: NOW,
        cursor: own.length,
        facts: own.filter(({ seq }) => seq > after).map((fact) => wireOfFact(fact, who)),
      });
    }
    const hash = path.split('/').at(-1) ?? '';
    const file = files.get(hash);
    // A desk gives nobody what is another's; the page must not even try to keep it.
    if (path.startsWith('/desk/files/') && file !== undefined)
      return file.student === who ? new Response(file.bytes) : json({ error: 'There is no such file.' }, 404);
    if (path.startsWith('/desk/uploads/')) {
      const bytes = init.method === 'PUT' ? (init.body as Uint8Array<ArrayBuffer>) : null;
      if (bytes !== null) sent.push({ by: who, text: new TextDecoder().decode(bytes) });
      return json({ hash, received: bytes?.length ?? 0, whole: bytes !== null });
    }
    if (path.includes('/attempts')) return json({ error: 'Not today.' }, 409);
    return json({ error: 'no' }, 404);
  };
  const fetch = async (path: string, init: RequestInit = {}) => {
    const isOver = () => init.signal?.aborted === true;
    await aWhile();
    if (isOver()) throw new DOMException('aborted', 'AbortError');
    const response = answer(path, init);
    await aWhile();
    if (isOver()) throw new DOMException('aborted', 'AbortError');
    return response;
  };
  return { fetch, sent, signInElsewhere: (who: Student) => (signedIn = who) };
}
const NOW = '2026-11-02T10:00:00.000Z';

beforeEach(() => {
  const stored = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => stored.get(key) ?? null,
    setItem: (key: string, value: string) => void stored.set(key, value),
    removeItem: (key: string) => void stored.delete(key),
  });
  const nothing = { addEventListener: () => undefined, removeEventListener: () => undefined };
  vi.stubGlobal('document', { ...nothing, visibilityState: 'visible' });
  vi.stubGlobal('window', nothing);
  vi.stubGlobal('navigator', {
    locks: { request: (_name: string, _how: object, work: () => unknown) => Promise.resolve(work()) },
  });
  vi.stubGlobal(
    'EventSource',
    class extends EventTarget {
      close() {}
    },
  );
});
afterEach(() => {
  vi.unstubAllGlobals();
});

/** Everything in a database, as text. */
async function allIn(name: string): Promise<string> {
  const database = await openDB(name);
  const texts: string[] = [];
  for (const store of database.objectStoreNames)
    for (const value of await database.getAll(store as never))
      texts.push(value instanceof Uint8Array ? new TextDecoder().decode(value) : JSON.stringify(value));
  database.close();
  return texts.join('\n');
}

let run = 0;
const teller: TakingInTeller = {
  reading: () => ({
    pages: () => undefined,
    hide: () => undefined,
    read: () => undefined,
    notTaken: () => undefined,
  }),
  nothingToPlaceOn: () => undefined,
  notPlaced: () => undefined,
  taken: () => undefined,
};

/** Drops a file, and says that it is where it is proposed to be. */
async function drop({ takingIn }: Workspace, who: Student): Promise<void> {
  const file = new File([`${who} dropped this, ${run++}: a text on peat.`], `${who}.txt`);
  await takingIn.takeIn([file], teller, () => undefined);
  await takingIn.confirm(takingIn.store.getState().pending, teller);
}

const moves = fc.array(
  fc.record({
    drops: fc.boolean(),
    who: fc.constantFrom(...students, 'files alone', 'nobody'),
    elsewhere: fc.option(fc.constantFrom(...students)),
    stay: fc.nat({ max: 40 }),
    sends: fc.boolean(),
  }),
  { minLength: 3, maxLength: 8 },
);

it('nothing of one student is ever in the other’s workspace', async () => {
  let dropped = 0;
  await fc.assert(
    fc.asyncProperty(moves, fc.infiniteStream(fc.nat({ max: 3 })), async (steps, delays) => {
      const next = delays[Symbol.iterator]();
      ticks = () => Number(next.next().value);
      const { fetch, sent, signInElsewhere } = serve();
      vi.stubGlobal('fetch', fetch);
      for (const name of ['juncture/two/ines', 'juncture/two/joss', 'juncture/files'])
        indexedDB.deleteDatabase(name);
      localStorage.removeItem('juncture/last');
      const session = new Session();
      const stay = async (count: number) => {
        for (let i = 0; i < count; i++) await new Promise((resolve) => setTimeout(resolve, 0));
      };
      for (const { who, stay: count, sends, drops, elsewhere } of steps) {
        if (who === 'nobody') await session.leave();
        else if (who === 'files alone') await session.workFromFilesAlone();
        else {
          await session.signInWith(who, 'code');
          const { workspace } = session.store.getState();
          if (drops && workspace !== null) workspace.inBackground(() => drop(workspace, who));
          if (sends && workspace !== null) {
            const id = asId(AssignmentId, `of-${who}`);
            workspace.inBackground(async () => {
              await beginDraft(workspace, id, 9, asId(FileHash, '0'.repeat(64)), draftFrom([]));
              const draft = [...workspace.records.drafts.values()][0];
              const bytes = new TextEncoder().encode(`${who} sent this, ${run++}`);
              const file = { role: 'paper' as const, name: `${who}.docx`, mediaType: '', bytes };
              const content = await workspace.bodies.load(draft.bodyHash);
              if (content !== null)
                await sendAttempt(workspace, draft, {
                  kind: 'paper',
                  content,
                  kept: [],
                  written: [file],
                  post: null,
                });
            });
          }
        }
        await stay(count);
        // In another tab of the same browser, with the same cookie.
        if (elsewhere !== null) signInElsewhere(elsewhere);
        await stay(count);
      }
      // Each comes back once more and stays until all is there.
      for (const who of students) {
        await session.signInWith(who, 'code');
        await session.store.getState().workspace?.desk?.catchUp();
      }
      await session.leave();
      for (const who of students) {
        const other = who === 'ines' ? 'joss' : 'ines';
        const all = await allIn(`juncture/two/${who}`);
        expect(all).not.toContain(other);
        dropped += all.split(`${who} dropped this`).length - 1;
        for (let number = 1; number <= FILES; number++)
          expect(all).toContain(`A page of ${who}, the ${number}th.`);
      }
      expect(await allIn('juncture/files')).not.toMatch(/ines|joss/);
      for (const { by, text } of sent) expect(text).toContain(`${by} sent this`);
    }),
    { numRuns: 25 },
  );
  expect(dropped).toBeGreaterThan(0);
}, 120_000);

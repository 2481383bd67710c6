import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { buildDesk } from '#demo/build-desk.ts';
import type { SignedIn } from '#core/model/facts.ts';
import type { SentFile } from '#core/model/handed-in.ts';
import { asId, FileHash } from '#core/model/ids.ts';
import type { HandingIn } from '#formats/desk/handing-in.ts';
import { writeDraftDocx } from '#formats/docx/write-draft.ts';
import { factOfWire } from '#formats/desk/wire.ts';
import { createApp } from './app.ts';
import { steppedClock } from './clock.ts';
import { createDesk, openDesk } from './desk/desk-folder.ts';
import { newNotices } from './notices.ts';

const PORT = 7316;
const HOST = `127.0.0.1:${PORT}`;
const ORIGIN = `http://${HOST}`;
const content = await buildDesk('2026-11-02');
const docx = Buffer.from(
  await writeDraftDocx(
    [{ kind: 'paragraph', level: 0, runs: [{ text: 'A new text.', bold: false, italic: false }] }],
    'r',
    new Map(),
  ),
);

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'juncture-server-'));
  createDesk(folder, content, 'RIGHT-CODES');
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

function serve(nowIso = '2026-11-02T10:00:00Z') {
  const desk = openDesk(folder);
  const notices = newNotices();
  const app = createApp({
    desk,
    clock: steppedClock(Date.parse(nowIso)),
    notices,
    appFolder: folder,
    port: PORT,
  });
  const from = request.agent(app).host('127.0.0.1');
  return { desk, app, from };
}
type Agent = ReturnType<typeof serve>['from'];
const get = (from: Agent, path: string) => from.get(path).set('Host', HOST);
const post = (from: Agent, path: string) => from.post(path).set('Host', HOST).set('Origin', ORIGIN);

async function signedIn(nowIso?: string) {
  const { desk, app } = serve(nowIso);
  const answer = await request(app)
    .post('/desk/session')
    .set('Host', HOST)
    .set('Origin', ORIGIN)
    .send({ student: 'ines-tarrow', code: 'right-codes' });
  expect(answer.status).toBe(200);
  const [cookie] = answer.get('Set-Cookie') ?? [''];
  return { desk, app, cookie };
}

describe('signing in', () => {
  it('refuses a wrong code and a wrong name in the same words', async () => {
    const { app } = serve();
    const tries = await Promise.all(
      [
        { student: 'ines-tarrow', code: 'WRONG' },
        { student: 'somebody', code: 'RIGHT-CODES' },
        { student: 5 },
      ].map((body) => request(app).post('/desk/session').set('Host', HOST).set('Origin', ORIGIN).send(body)),
    );
    for (const answer of tries) {
      expect(answer.status).toBe(403);
      expect(answer.body).toEqual({ error: 'Name and access code don’t fit together.' });
      expect(answer.headers['set-cookie']).toBeUndefined();
    }
  });

  it('gives a cookie that scripts can’t read, and stops listening to guesses', async () => {
    const { cookie, app } = await signedIn();
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Strict/);
    let last = 0;
    for (let i = 0; i < 25; i++)
      last = (
        await request(app)
          .post('/desk/session')
          .set('Host', HOST)
          .set('Origin', ORIGIN)
          .send({ student: 'x', code: 'y' })
      ).status;
    expect(last).toBe(429);
  });

  it('keeps the session when the server starts again', async () => {
    const { cookie } = await signedIn();
    const { from } = serve();
    expect((await get(from, '/desk/session').set('Cookie', cookie)).status).toBe(200);
  });
});

describe('who may ask', () => {
  it('nobody without a session', async () => {
    const { from } = serve();
    for (const path of [
      '/desk/facts',
      '/desk/session',
      '/desk/notices',
      '/desk/rubrics/rubric-skarn-moss',
      '/desk/files/x',
    ])
      expect((await get(from, path)).status).toBe(401);
  });

  it('nobody for a student whose session it is no more', async () => {
    const { cookie } = await signedIn();
    const { from } = serve();
    const { deskId, studentId } = (await get(from, '/desk/session').set('Cookie', cookie)).body as SignedIn;
    const asFor = (student: string) =>
      get(from, '/desk/facts')
        .set('Cookie', cookie)
        .set('Desk-Student', encodeURIComponent(`${deskId}/${student}`));
    expect((await asFor(studentId)).status).toBe(200);
    expect((await asFor('joss-amble')).status).toBe(401);
    expect((await get(from, '/desk/notices?for=somebody').set('Cookie', cookie)).status).toBe(401);
  });

  it('no other host, and no change from another page', async () => {
    const { app } = serve();
    expect((await request(app).get('/').set('Host', 'evil.example')).status).toBe(421);
    const redirected = await request(app).get('/a/b').set('Host', `localhost:${PORT}`);
    expect(redirected.status).toBe(308);
    expect(redirected.headers.location).toBe(`${ORIGIN}/a/b`);
    const foreign = await request(app)
      .post('/desk/session')
      .set('Host', HOST)
      .set('Origin', 'http://evil.example');
    expect(foreign.status).toBe(403);
  });

  it('sends a strict policy with every answer', async () => {
    const { from } = serve();
    const policy = (await get(from, '/desk/session')).headers['content-security-policy'];
    expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval'");
    expect(policy).not.toContain("script-src 'self' 'unsafe-inline'");
  });
});

describe('facts and files', () => {
  it('are given from where the page left off', async () => {
    const { app, cookie, desk } = await signedIn();
    const all = await request(app).get('/desk/facts').set('Host', HOST).set('Cookie', cookie);
    const some = await request(app).get('/desk/facts?after=3').set('Host', HOST).set('Cookie', cookie);
    const seqs = (body: unknown) => (body as { facts: { seq: number }[] }).facts.map((fact) => fact.seq);
    expect(seqs(all.body)).toHaveLength(desk.state.facts.length);
    expect(seqs(some.body)).toEqual(seqs(all.body).slice(3));
  });

  it('come in parts where parts are asked for', async () => {
    const { app, cookie } = await signedIn();
    const [hash] = [...content.files.keys()];
    const part = await request(app)
      .get(`/desk/files/${hash}`)
      .set('Host', HOST)
      .set('Cookie', cookie)
      .set('Range', 'bytes=0-4');
    expect(part.status).toBe(206);
    expect(Buffer.from(part.body as Uint8Array).toString()).toBe('%PDF-');
    const outside = await request(app)
      .get('/desk/files/..%2Fdesk.json')
      .set('Host', HOST)
      .set('Cookie', cookie);
    expect(outside.status).toBe(404);
  });
});

describe('handing in', () => {
  const REPORT = '/desk/assignments/skarn-moss-report/attempts';
  async function upload(
    app: Parameters<typeof request>[0],
    cookie: string,
    bytes: Buffer,
    range = `bytes 0-${bytes.length - 1}/${bytes.length}`,
    hash = sha256(bytes),
  ) {
    return request(app)
      .put(`/desk/uploads/${hash}`)
      .set('Host', HOST)
      .set('Origin', ORIGIN)
      .set('Cookie', cookie)
      .set('Content-Type', 'application/octet-stream')
      .set('Content-Range', range)
      .send(bytes);
  }
  async function ask(
    app: Parameters<typeof request>[0],
    cookie: string,
    key: string,
    given: Partial<HandingIn>,
    path = REPORT,
  ) {
    return request(app)
      .post(path)
      .set('Host', HOST)
      .set('Origin', ORIGIN)
      .set('Cookie', cookie)
      .set('Idempotency-Key', key)
      .send({ kind: 'paper', note: 'With thanks', files: [], post: null, items: {}, ...given });
  }
  const sent = (bytes: Buffer, name = 'Skärn:Moss.docx'): SentFile => ({
    role: 'paper',
    name,
    mediaType: '',
    size: bytes.length,
    hash: asId(FileHash, sha256(bytes)),
  });
  async function hand(
    app: Parameters<typeof request>[0],
    cookie: string,
    key: string,
    path = REPORT,
    file = docx,
    given: Partial<HandingIn> = {},
  ) {
    await upload(app, cookie, file);
    return ask(app, cookie, key, { files: [sent(file)], ...given }, path);
  }

  it('gives a receipt, and the same one when it comes twice', async () => {
    const { app, cookie, desk } = await signedIn();
    const first = await hand(app, cookie, 'key-number-1');
    const again = await hand(app, cookie, 'key-number-1');
    expect([first.status, again.status]).toEqual([201, 200]);
    expect(again.body).toEqual(first.body);
    const attempts = desk.state.facts.filter(
      (f) => f.kind === 'attempt' && f.value.assignmentId === 'skarn-moss-report',
    );
    expect(attempts).toHaveLength(2);
    expect(first.body).toMatchObject({
      number: 2,
      note: 'With thanks',
      receipt: {
        attempt: 2,
        files: [{ name: 'Skärn_Moss.docx', words: 3, pages: 1, pagesEstimated: true, size: docx.length }],
      },
    });
  });

  it('is barred by the rules, each with its sentence', async () => {
    const { app, cookie } = await signedIn();
    const answer = async (given: ReturnType<typeof hand>) => {
      const response = await given;
      return [response.status, (response.body as { error?: string }).error];
    };
    expect(await answer(hand(app, cookie, 'key-number-1', REPORT, Buffer.from('no Word file')))).toEqual([
      422,
      '“Skärn_Moss.docx” can’t be read as a text. Save it again as a Word file (.docx) or PDF and send that.',
    ]);
    expect(await answer(hand(app, cookie, 'key-number-2', '/desk/assignments/none/attempts'))).toEqual([
      404,
      'There is no such assignment.',
    ]);
    expect(
      (await answer(hand(app, cookie, 'key-number-3', '/desk/assignments/dip-well-lab/attempts')))[0],
    ).toBe(409);
    expect((await answer(hand(app, cookie, 'bad')))[0]).toBe(400);
    await hand(app, cookie, 'key-number-4');
    expect(await answer(hand(app, cookie, 'key-number-5'))).toEqual([
      409,
      'All 2 attempts at this assignment have been used.',
    ]);
  });

  it('takes only what the assignment asks for', async () => {
    const { app, cookie } = await signedIn();
    const LOG = '/desk/assignments/core-log/attempts';
    const picture = Buffer.from('89504e470d0a1a0a', 'hex');
    await upload(app, cookie, picture);
    const say = async (given: Partial<HandingIn>, path = LOG) => {
      const answer = await ask(app, cookie, 'a-key-for-asking', given, path);
      return [answer.status, (answer.body as { error?: string }).error];
    };
    expect(await say({})).toEqual([422, 'This assignment takes files.']);
    expect(await say({ kind: 'files' })).toEqual([422, 'An attempt needs a file.']);
    expect(await say({ kind: 'files', files: [sent(picture, 'log.exe')] })).toEqual([
      422,
      '“log.exe” is of no kind that this assignment takes: .png, .jpg, .jpeg, .pdf.',
    ]);
    expect(await say({ kind: 'files', files: [{ ...sent(picture, 'log.png'), size: 0 }] })).toEqual([
      422,
      '“log.png” is empty.',
    ]);
    expect(await say({ kind: 'files', files: [sent(docx, 'log.png')] })).toEqual([
      422,
      '“log.png” was not uploaded.',
    ]);
    expect(await say({ kind: 'files', files: [sent(picture, 'log.png')] })).toEqual([201, undefined]);
    // The key stands for that attempt and no other.
    expect(await say({ kind: 'files', files: [sent(picture, 'another.png')] })).toEqual([
      409,
      'Another attempt was sent under this key.',
    ]);
  });

  it('takes a file part by part, goes on after a break and after the server was started anew', async () => {
    const { app, cookie } = await signedIn();
    const bytes = Buffer.from('Rain fell for two days on the moss.');
    const part = (from: number, to: number, on = app) =>
      upload(on, cookie, bytes.subarray(from, to + 1), `bytes ${from}-${to}/${bytes.length}`, sha256(bytes));
    expect((await part(0, 9)).body).toMatchObject({ received: 10, whole: false });
    // Sent again after a break, it is there once.
    expect((await part(0, 9)).body).toMatchObject({ received: 10, whole: false });
    expect((await part(20, 29)).status).toBe(409);
    const anew = serve().app;
    const state = await request(anew)
      .get(`/desk/uploads/${sha256(bytes)}`)
      .set('Host', HOST)
      .set('Cookie', cookie);
    expect(state.body).toMatchObject({ received: 10, whole: false });
    expect((await part(10, bytes.length - 1, anew)).body).toMatchObject({
      received: bytes.length,
      whole: true,
    });
    expect((await part(0, 9, anew)).body).toMatchObject({ received: bytes.length, whole: true });
  });

  it('keeps nothing of a file that arrived damaged, and says what is no part', async () => {
    const { app, cookie } = await signedIn();
    const bytes = Buffer.from('whole');
    const range = `bytes 0-${bytes.length - 1}/${bytes.length}`;
    const damaged = await upload(app, cookie, Buffer.from('hole!'), range, sha256(bytes));
    expect([damaged.status, (damaged.body as { error: string }).error]).toEqual([
      422,
      'The file arrived damaged. It is sent anew.',
    ]);
    expect((await upload(app, cookie, bytes)).body).toMatchObject({ whole: true });
    expect((await upload(app, cookie, bytes, 'bytes 0-9', sha256(docx))).status).toBe(400);
    expect((await upload(app, cookie, bytes, range, 'no-hash')).status).toBe(422);
    const large = await upload(app, cookie, bytes, 'bytes 0-4/400000000', 'a'.repeat(64));
    expect([large.status, (large.body as { error: string }).error]).toEqual([
      413,
      'The file is larger than 300 MB.',
    ]);
  });

  it('is over when the closing time has passed', async () => {
    const { app, cookie } = await signedIn('2026-11-30T10:00:00Z');
    expect((await hand(app, cookie, 'key-number-1')).body).toEqual({
      error: 'The closing time has passed; no attempt is taken any more.',
    });
  });

  it('tells nothing of the inside when the server itself fails', async () => {
    const { app, cookie, desk } = await signedIn();
    rmSync(folder, { recursive: true, force: true });
    expect(desk.state.facts.length).toBeGreaterThan(0);
    const answer = await upload(app, cookie, docx);
    expect(answer.status).toBe(500);
    expect(JSON.stringify(answer.body)).not.toContain(folder);
  });
});

describe('paths that are no pages', () => {
  it('answer 404 for files and desk addresses', async () => {
    const { from } = serve();
    expect((await get(from, '/assets/none.js')).status).toBe(404);
    expect((await post(from, '/desk/nothing')).status).toBe(404);
  });
});

describe('the record of the desk', () => {
  it('speaks OneRoster where that has a record, and can be read back whole', async () => {
    const { app, cookie } = await signedIn();
    const answer = await request(app).get('/desk/facts').set('Host', HOST).set('Cookie', cookie);
    const { facts } = answer.body as { facts: { kind: string; value: object }[] };
    expect(facts.find(({ kind }) => kind === 'course')?.value).toMatchObject({
      academicSession: { type: 'term' },
      class: { classCode: 'MIRE 210' },
    });
    expect(facts.find(({ kind }) => kind === 'marking')?.value).toMatchObject({
      result: { scoreStatus: 'fully graded', student: { sourcedId: 'ines-tarrow' } },
    });
    const read = facts.map((fact) => factOfWire(fact));
    expect(read.filter((one) => 'unread' in one)).toEqual([]);
    expect(read.map((one) => ('fact' in one ? one.fact : null))).toEqual(content.facts);
  });

  it('gives parts of a file, from where a download broke off', async () => {
    const { app, cookie } = await signedIn();
    const [hash, bytes] = [...content.files][0];
    const answer = await request(app)
      .get(`/desk/files/${hash}`)
      .set('Host', HOST)
      .set('Cookie', cookie)
      .set('Range', 'bytes=100-')
      .buffer(true)
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts)));
      });
    expect(answer.status).toBe(206);
    expect(answer.headers['content-range']).toBe(`bytes 100-${bytes.length - 1}/${bytes.length}`);
    expect(new Uint8Array(answer.body as Buffer)).toEqual(new Uint8Array(bytes.subarray(100)));
  });
});

describe('taking an attempt back', () => {
  const takeBack = async (assignment: string, attempt: string, nowIso?: string) => {
    const { app, cookie, desk } = await signedIn(nowIso);
    const answer = await request(app)
      .delete(`/desk/assignments/${assignment}/attempts/${attempt}`)
      .set('Host', HOST)
      .set('Origin', ORIGIN)
      .set('Cookie', cookie);
    return { status: answer.status, body: answer.body as Record<string, unknown>, desk, app, cookie };
  };

  it('is allowed until the rules end it, and said once', async () => {
    const { status, body, desk, app, cookie } = await takeBack('stand-survey', 'stand-survey-attempt-1');
    expect([status, body.attemptId]).toEqual([200, 'stand-survey-attempt-1']);
    const facts = desk.state.facts.length;
    expect(desk.state.facts.at(-1)?.kind).toBe('withdrawal');
    const again = await request(app)
      .delete('/desk/assignments/stand-survey/attempts/stand-survey-attempt-1')
      .set('Host', HOST)
      .set('Origin', ORIGIN)
      .set('Cookie', cookie);
    expect(again.body).toEqual(body);
    expect(desk.state.facts).toHaveLength(facts);
  });

  it.each([
    ['after its time', 'stand-survey', 'stand-survey-attempt-1', '2026-11-05T10:00:00Z', 409],
    ['of one that is marked', 'seminar-post-3', 'seminar-post-3-attempt-1', undefined, 409],
    ['where the rules never allow it', 'dip-well-lab', 'dip-well-lab-attempt-1', undefined, 409],
    ['of one that is not there', 'stand-survey', 'nothing', undefined, 404],
    ['of another assignment’s', 'stand-survey', 'dip-well-lab-attempt-1', undefined, 404],
  ])('is refused %s', async (_, assignment, attempt, nowIso, wanted) => {
    const { status, body, desk } = await takeBack(assignment, attempt, nowIso);
    expect(status).toBe(wanted);
    expect(body.error).toMatch(/\.$/);
    expect(desk.state.facts).toHaveLength(content.facts.length);
  });

  it('makes room for another attempt', async () => {
    const { app, cookie, desk } = await takeBack('stand-survey', 'stand-survey-attempt-1');
    const late = await request(app)
      .post('/desk/assignments/stand-survey/attempts')
      .set('Host', HOST)
      .set('Origin', ORIGIN)
      .set('Cookie', cookie)
      .set('Idempotency-Key', 'another-attempt')
      .send({ kind: 'paper', note: '', files: [], post: null, items: {} });
    // Its due time has passed, so there the rules end it: but not because of the one that was taken back.
    expect([late.status, (late.body as { error: string }).error]).toEqual([
      409,
      'The closing time has passed; no attempt is taken any more.',
    ]);
    expect(desk.state.facts.filter(({ kind }) => kind === 'withdrawal')).toHaveLength(1);
  });
});

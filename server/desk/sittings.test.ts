import { mkdtempSync, rmSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import request from 'supertest';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { buildDesk } from '#demo/build-desk.ts';
import { readQuizResults } from '#formats/qti/read-results.ts';
import { createApp } from '../app.ts';
import { steppedClock } from '../clock.ts';
import { markPending } from '../marker/mark-pending.ts';
import { newNotices } from '../notices.ts';
import { createDesk, openDesk } from './desk-folder.ts';
import { attemptsIn } from './record.ts';
import { answerInSitting, beginSitting, endSitting, quizOf } from './sittings.ts';

const HOST = '127.0.0.1:7316';
const content = await buildDesk('2026-11-02', ['quiz-flow', 'quiz-sphagna', 'skarn-moss-report']);
const NOW = Date.parse('2026-11-03T10:00:00Z');
const MINUTE = 60_000;

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'juncture-sittings-'));
  createDesk(folder, content, 'RIGHT-CODES');
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const ofQuiz = (desk: ReturnType<typeof openDesk>) =>
  attemptsIn(desk.state).filter(({ assignmentId }) => assignmentId === 'quiz-flow');
const markingsOf = (desk: ReturnType<typeof openDesk>, attemptId: string) =>
  desk.state.facts.flatMap((fact) =>
    fact.kind === 'marking' && fact.value.attemptId === attemptId ? [fact.value] : [],
  );

function begun(desk: ReturnType<typeof openDesk>, at = NOW) {
  const result = beginSitting(desk, at, 'quiz-flow');
  if (result.kind === 'refused') throw new Error(result.why);
  return result.sitting;
}

/** Every question answered as it should be. */
const RIGHT: Readonly<Record<string, readonly string[]>> = {
  'darcy-1': ['0,02 m per day'],
  'darcy-2': ['B'],
  'darcy-3': ['B'],
  'darcy-4': [
    'The pouring stirs the water and fills the gap around the pipe, so the first fall is too fast.',
  ],
  'darcy-5': ['80'],
  'darcy-6': [
    'The conductivity of the peat, the depth of the ditch, and what the next ditch on the other side still drains.',
  ],
  'darcy-7': ['A', 'B', 'C', 'E'],
  'darcy-8': ['A 3', 'B 1', 'C 4', 'D 2'],
  'darcy-9': ['head m', 'discharge m3d', 'gradient none', 'conductivity md'],
  'darcy-10': ['Darcy’s law'],
  'darcy-11': ['A'],
  'darcy-12': ['40'],
};

describe('a sitting', () => {
  it('becomes one attempt when it is ended, is marked where it can be, and its texts a little later', async () => {
    const desk = openDesk(folder);
    const sitting = begun(desk);
    for (const [id, answer] of Object.entries(RIGHT))
      expect(answerInSitting(desk, NOW, sitting.id, id, answer)).toBe('kept');
    endSitting(desk, NOW + 5 * MINUTE, sitting.id);
    endSitting(desk, NOW + 6 * MINUTE, sitting.id);
    const attempts = ofQuiz(desk);
    expect(attempts.map(({ number }) => number)).toEqual([1, 2, 3]);
    const own = attempts[2];
    expect(own.receipt?.rule).toContain('Attempt 3 of 3');
    await markPending(desk, NOW + 5 * MINUTE, new Set());
    expect(
      markingsOf(desk, own.id).map(({ score, complete, files }) => [score, complete, files.length]),
    ).toEqual([['9', false, 0]]);
    await markPending(desk, NOW + 6 * MINUTE, new Set());
    await markPending(desk, NOW + 7 * MINUTE, new Set());
    const [, marked] = markingsOf(desk, own.id);
    expect(markingsOf(desk, own.id)).toHaveLength(2);
    expect([marked.score, marked.complete]).toEqual(['12', true]);
    const bytes = new Uint8Array(await readFile(desk.pathOfFile(marked.files[0].hash) ?? ''));
    const { questions } = readQuizResults(bytes);
    expect(questions.map(({ score, possible }) => score === possible)).toEqual(Array(12).fill(true));
    expect(questions[7].response).toEqual(['B', 'D', 'A', 'C']);
    expect(questions.map(({ item }) => item?.kind)).toEqual(
      quizOf(desk.state, 'quiz-flow')?.items.map(({ kind }) => kind),
    );
  });

  it('is one for two tabs, and uses up an attempt only once', () => {
    const desk = openDesk(folder);
    const first = begun(desk);
    expect(begun(desk, NOW + MINUTE).id).toBe(first.id);
    endSitting(desk, NOW + 2 * MINUTE, first.id);
    expect(beginSitting(desk, NOW + 3 * MINUTE, 'quiz-flow')).toMatchObject({ kind: 'refused', status: 409 });
    expect(answerInSitting(desk, NOW + 3 * MINUTE, first.id, 'darcy-1', ['1'])).toBe('over');
    expect(ofQuiz(desk)).toHaveLength(3);
  });

  it('ends by itself when its time is over, with what was answered, also after the desk was started again', async () => {
    const sitting = begun(openDesk(folder));
    answerInSitting(openDesk(folder), NOW, sitting.id, 'darcy-5', ['80']);
    const desk = openDesk(folder);
    await markPending(desk, NOW + 29 * MINUTE, new Set());
    expect(ofQuiz(desk)).toHaveLength(2);
    await markPending(desk, NOW + 45 * MINUTE, new Set());
    expect(ofQuiz(desk).at(-1)?.at).toBe(sitting.endsAt);
    // No text was answered, so nothing waits.
    expect(markingsOf(desk, ofQuiz(desk)[2].id)).toMatchObject([{ score: '1', complete: true }]);
    expect(answerInSitting(desk, NOW + 45 * MINUTE, sitting.id, 'darcy-5', ['60'])).toBe('over');
  });

  it('ends at the closing time where that comes first', () => {
    const desk = openDesk(folder);
    const closes = Date.parse('2026-11-06T23:59:00Z');
    expect(Date.parse(begun(desk, closes - 10 * MINUTE).endsAt)).toBe(closes);
  });

  it('is not begun where the rules bar it', () => {
    const desk = openDesk(folder);
    const why = (id: string, at = NOW) => {
      const result = beginSitting(desk, at, id);
      return result.kind === 'refused' ? result.why : null;
    };
    expect(why('quiz-sphagna')).toContain('All 2 attempts');
    expect(why('skarn-moss-report')).toContain('no such quiz');
    expect(why('quiz-flow', Date.parse('2026-11-20T10:00:00Z'))).toContain('closing time has passed');
  });

  it('keeps whatever was answered last, in any order of answering', () => {
    const desk = openDesk(folder);
    const sitting = begun(desk);
    const answer = fc.record({
      id: fc.constantFrom(...Object.keys(RIGHT)),
      values: fc.array(fc.string({ maxLength: 20 }), { maxLength: 4 }),
    });
    fc.assert(
      fc.property(fc.array(answer, { minLength: 1, maxLength: 12 }), (given) => {
        for (const { id, values } of given) answerInSitting(desk, NOW, sitting.id, id, values);
        const kept = desk.state.sittings[0].answers;
        const last = new Map(given.map(({ id, values }) => [id, values]));
        for (const [id, values] of last) expect(kept[id]).toEqual(values);
      }),
      { numRuns: 30 },
    );
  });
});

describe('the desk’s own pages', () => {
  async function signedIn() {
    const desk = openDesk(folder);
    const clock = steppedClock(NOW);
    const app = createApp({ desk, clock, notices: newNotices(), appFolder: folder, port: 7316 });
    const answer = await request(app)
      .post('/desk/session')
      .set('Host', HOST)
      .set('Origin', `http://${HOST}`)
      .send({ student: 'ines-tarrow', code: 'right-codes' });
    const [cookie] = answer.get('Set-Cookie') ?? [''];
    const get = (path: string) => request(app).get(path).set('Host', HOST).set('Cookie', cookie);
    const post = (path: string, form: object = {}) =>
      request(app)
        .post(path)
        .set('Host', HOST)
        .set('Origin', `http://${HOST}`)
        .set('Cookie', cookie)
        .type('form')
        .send(form);
    return { app, desk, clock, get, post };
  }

  it('lead by forms alone from the beginning to the end', async () => {
    const { get, post, desk } = await signedIn();
    const before = await get('/desk/quizzes/quiz-flow');
    expect(before.text).toContain('12 questions, 12 points.');
    expect(before.text).toContain('attempt 3 of 3');
    const began = await post('/desk/quizzes/quiz-flow/sittings');
    expect(began.status).toBe(303);
    const first = began.headers.location;
    const next = await post(first, { answer: '0.02', to: '8' });
    expect(next.headers.location).toBe(first.replace(/1$/, '8'));
    await post(next.headers.location, { 'place A': '3', 'place B': '1', 'place C': '1', to: 'review' });
    const review = await get(first.replace(/1$/, 'review'));
    expect(review.text).toContain('10 questions are not answered.');
    expect(review.text).toContain('two in one place');
    expect((await get(next.headers.location)).text).toMatch(/name="place A">.*<option value="3" selected>/);
    await post(first.replace(/1$/, 'end'));
    expect((await get(first)).text).toContain('Attempt 3 is handed in');
    expect(ofQuiz(desk)).toHaveLength(3);
    expect((await get('/desk/quizzes/quiz-flow')).text).toContain('All 3 attempts');
  });

  it('keep what a script sends, and say when it comes too late', async () => {
    const { post, clock, desk } = await signedIn();
    const { location } = (await post('/desk/quizzes/quiz-flow/sittings')).headers;
    expect((await post(location, { answer: '0.0' }).set('Desk-Keep', '1')).status).toBe(204);
    expect(desk.state.sittings[0].answers['darcy-1']).toEqual(['0.0']);
    // What a page sends that is left has no headers of its own.
    expect((await post(location, { answer: '0.01', 'desk-keep': '1' })).status).toBe(204);
    expect(desk.state.sittings[0].answers['darcy-1']).toEqual(['0.01']);
    clock.advance(31 * MINUTE);
    expect((await post(location, { answer: '0.02' }).set('Desk-Keep', '1')).status).toBe(409);
    expect((await post(location, { answer: '0.02', to: '2' })).status).toBe(303);
    expect(desk.state.sittings[0].answers['darcy-1']).toEqual(['0.01']);
  });

  it('never put an older answer in the place of a newer one from another tab', async () => {
    const { get, post, desk } = await signedIn();
    const { location } = (await post('/desk/quizzes/quiz-flow/sittings')).headers;
    const seenOn = (html: string) => /name="seen" value="([^"]*)"/.exec(html)?.[1].replaceAll('&quot;', '"');
    const stale = seenOn((await get(location)).text);
    expect(stale).toBe('[]');
    await post(location, { answer: '0.02', seen: stale, to: '2' });
    // The other tab still shows an empty field, and goes on without touching it.
    await post(location, { answer: '', seen: stale, to: '2' });
    expect(desk.state.sittings[0].answers['darcy-1']).toEqual(['0.02']);
    expect(seenOn((await get(location)).text)).toBe('["0.02"]');
    // Emptied on purpose, it is empty.
    await post(location, { answer: '', seen: '["0.02"]', to: '2' });
    expect(desk.state.sittings[0].answers['darcy-1']).toEqual([]);
    await post(location, { answer: '7', seen: '', to: '2' });
    expect(desk.state.sittings[0].answers['darcy-1']).toEqual(['7']);
  });

  it('say what is wrong at an address that isn’t there, or without a session', async () => {
    const { app, get, post } = await signedIn();
    expect((await get('/desk/quizzes/none')).text).toContain('no such quiz');
    expect((await get('/desk/sittings/none/1')).text).toContain('no such sitting');
    expect((await post('/desk/sittings/none/1', { answer: 'x' })).status).toBe(404);
    const { location } = (await post('/desk/quizzes/quiz-flow/sittings')).headers;
    expect((await get(location.replace(/1$/, '13'))).status).toBe(404);
    expect((await post(location.replace(/1$/, '13'), { answer: 'x' })).status).toBe(404);
    const stranger = await request(app).get(location).set('Host', HOST);
    expect([stranger.status, stranger.text.includes('Sign in to Juncture first')]).toEqual([401, true]);
  });

  it('show what was typed as text, whatever it is', async () => {
    const { get, post } = await signedIn();
    const { location } = (await post('/desk/quizzes/quiz-flow/sittings')).headers;
    const tenth = location.replace(/1$/, '10');
    await post(tenth, { answer: '"><script>alert(1)</script>', to: '10' });
    expect((await get(tenth)).text).toContain('value="&quot;&gt;&lt;script&gt;alert(1)&lt;/script&gt;"');
  });
});

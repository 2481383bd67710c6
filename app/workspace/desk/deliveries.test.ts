import 'fake-indexeddb/auto';
import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import net, { type AddressInfo, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, expect, it, vi } from 'vitest';
import { buildDesk } from '#demo/build-desk.ts';
import { asId, AssignmentId } from '#core/model/ids.ts';
import { createApp } from '#server/app.ts';
import { systemClock } from '#server/clock.ts';
import { createDesk, openDesk, type DeskFolder } from '#server/desk/desk-folder.ts';
import { newNotices } from '#server/notices.ts';
import { addFiles } from '../commands/new-files.ts';
import { sendAttempt, sentFile } from '../commands/send.ts';
import { openWorkspace, type Workspace } from '../workspace.ts';

/** Handing in to the real desk over a connection that breaks: whatever arrives or not, one attempt comes of it. */

const LOG = asId(AssignmentId, 'core-log');
/** More than one part, so that there is something to go on from. */
const FILE_BYTES = 2_300_000;

const folder = mkdtempSync(join(tmpdir(), 'juncture-deliveries-'));
let desk: DeskFolder;
let server: Server;
let proxy: net.Server;
let port: number;
let cookie = '';
/** So many bytes, in either direction, until the connection breaks. */
let untilBreak = Infinity;
let breaks = 0;
/** How many of the next large pieces of bytes arrive with one of them wrong. */
let damaged = 0;

function serve(): void {
  desk = openDesk(folder);
  const app = createApp({ desk, clock: systemClock, notices: newNotices(), appFolder: folder, port });
  server.removeAllListeners('request');
  server.on('request', (request, response) => void app(request, response));
}

/** A connection through which bytes go until they may no more. */
function breaking(client: Socket, up: Socket): void {
  const through = (from: Socket, to: Socket) =>
    from.on('data', (bytes: Buffer) => {
      if (bytes.length < untilBreak) {
        untilBreak -= bytes.length;
        // In the middle of a large piece it is the file's own bytes.
        if (damaged > 0 && bytes.length > 30_000) {
          damaged--;
          bytes[bytes.length >> 1] ^= 1;
        }
        to.write(bytes);
        return;
      }
      to.write(bytes.subarray(0, untilBreak));
      untilBreak = Infinity;
      breaks++;
      client.destroy();
      up.destroy();
    });
  through(client, up);
  through(up, client);
  for (const [one, other] of [
    [client, up],
    [up, client],
  ])
    one.on('error', () => other.destroy()).on('close', () => other.destroy());
}

beforeAll(async () => {
  const content = await buildDesk('2026-11-02', ['core-log']);
  const facts = content.facts.map((fact) =>
    fact.kind === 'assignment'
      ? {
          ...fact,
          value: { ...fact.value, attemptsAllowed: 100, closesAt: '2099-01-01T00:00:00.000Z' as never },
        }
      : fact,
  );
  createDesk(folder, { ...content, facts }, 'RIGHT-CODES');
  server = createServer();
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const inner = (server.address() as AddressInfo).port;
  proxy = net.createServer((client) => breaking(client, net.connect(inner, '127.0.0.1')));
  await new Promise<void>((done) => proxy.listen(0, '127.0.0.1', done));
  port = (proxy.address() as AddressInfo).port;
  serve();
  const real = fetch;
  vi.stubGlobal('fetch', (path: string, init: RequestInit = {}) =>
    real(`http://127.0.0.1:${port}${path}`, {
      ...init,
      headers: {
        ...(init.headers as Record<string, string>),
        Origin: `http://127.0.0.1:${port}`,
        Cookie: cookie,
      },
    }),
  );
  const locks = new Map<string, Promise<unknown>>();
  vi.stubGlobal('navigator', {
    locks: {
      request: (name: string, _how: object, work: () => Promise<unknown>) => {
        const held = (locks.get(name) ?? Promise.resolve()).then(work, work);
        locks.set(name, held);
        return held;
      },
    },
  });
  const answer = await fetch('/desk/session', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ student: 'ines-tarrow', code: 'RIGHT-CODES' }),
  });
  cookie = answer.headers.get('set-cookie')?.split(';')[0] ?? '';
});
afterAll(() => {
  vi.unstubAllGlobals();
  server.closeAllConnections();
  server.close();
  proxy.close();
  rmSync(folder, { recursive: true, force: true });
});

let workspaces: Workspace[] = [];
afterEach(() => {
  for (const workspace of workspaces) workspace.close();
  workspaces = [];
});

const open = async () => {
  const workspace = await openWorkspace({
    kind: 'student',
    deskId: desk.state.deskId,
    studentId: 'ines-tarrow',
    studentName: 'Ines Tarrow',
  });
  workspaces.push(workspace);
  return workspace;
};
const attempts = () =>
  desk.state.facts.flatMap((fact) =>
    fact.kind === 'attempt' && fact.value.receipt !== null ? [fact.value] : [],
  );

/** Sends a new picture; it is on its way when this resolves, or already there. */
async function sendOne(workspace: Workspace, number: number): Promise<string> {
  const name = `core-${number}.png`;
  await addFiles(workspace, LOG, number, [{ name, mediaType: 'image/png', bytes: randomBytes(FILE_BYTES) }]);
  const draft = [...workspace.records.drafts.values()].find((one) => one.attemptNumber === number);
  const file = workspace.records.files.get(draft?.files.at(0) ?? '');
  if (draft === undefined || file === undefined) throw new Error('no draft');
  await sendAttempt(workspace, draft, {
    kind: 'files',
    content: null,
    kept: [sentFile('paper', file)],
    written: [],
    post: null,
  });
  return name;
}
const stateOf = (workspace: Workspace, name: string) =>
  [...workspace.records.submissions.values()].find(({ files }) => files[0].name === name)?.state.kind;

it('one attempt comes of each, wherever the connection breaks', async () => {
  const workspace = await open();
  for (let run = 0; run < 50; run++) {
    const before = attempts().length;
    untilBreak = 1 + Math.floor(Math.random() * (FILE_BYTES + 12_000));
    const name = await sendOne(workspace, run + 2);
    // What waits goes as soon as the desk is reached again.
    for (let tries = 0; tries < 5 && stateOf(workspace, name) !== 'received'; tries++)
      await workspace.deliveries.deliver();
    expect([run, stateOf(workspace, name), attempts().length - before]).toEqual([run, 'received', 1]);
    const [sent] = attempts().at(-1)?.files ?? [];
    expect([sent.name, sent.size]).toEqual([name, FILE_BYTES]);
  }
  // Where the last bytes were its break, there was none.
  expect(breaks).toBeGreaterThan(40);
}, 120_000);

it('is sent once where the server stops in mid-upload and is started anew', async () => {
  const workspace = await open();
  const before = attempts().length;
  untilBreak = FILE_BYTES / 2;
  const stopping = sendOne(workspace, 90);
  await vi.waitFor(() => expect(untilBreak).toBe(Infinity));
  server.closeAllConnections();
  serve();
  await stopping;
  for (let tries = 0; tries < 5 && stateOf(workspace, 'core-90.png') !== 'received'; tries++)
    await workspace.deliveries.deliver();
  expect([stateOf(workspace, 'core-90.png'), attempts().length - before]).toEqual(['received', 1]);
});

it('is sent once where two tabs send it at once', async () => {
  const [one, other] = [await open(), await open()];
  const before = attempts().length;
  untilBreak = FILE_BYTES / 3;
  const name = await sendOne(one, 91);
  await Promise.all([one.deliveries.deliver(), other.deliveries.deliver()]);
  for (let tries = 0; tries < 5 && stateOf(one, name) !== 'received'; tries++)
    await Promise.all([one.deliveries.deliver(), other.deliveries.deliver()]);
  expect([stateOf(one, name), attempts().length - before]).toEqual(['received', 1]);
});

it('goes anew where it arrived damaged, and is given up with a reason where that never ends', async () => {
  const workspace = await open();
  const before = attempts().length;
  damaged = 1;
  const name = await sendOne(workspace, 92);
  expect([damaged, stateOf(workspace, name), attempts().length - before]).toEqual([0, 'received', 1]);
  damaged = Infinity;
  const lost = await sendOne(workspace, 93);
  damaged = 0;
  expect([stateOf(workspace, lost), attempts().length - before]).toEqual(['refused', 1]);
});

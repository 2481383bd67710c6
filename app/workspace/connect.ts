import * as v from 'valibot';
import type { Marking, Rubric, SignedIn } from '#core/model/facts.ts';
import { readerInWorker } from '../workers/reader-client.ts';
import {
  currentSession,
  downloadFile,
  factsAfter,
  rubricById,
  signIn,
  signOut,
  type Answer,
} from './desk-client.ts';
import { deliverWaiting } from './send.ts';
import { takeInFacts, takeInReturnedFile } from './take-in.ts';
import {
  databaseName,
  metaValue,
  nowMs,
  now,
  openWorkspace,
  closeWorkspace,
  setClockByDesk,
  useWorkspace,
  type Identity,
} from './workspace.ts';

/** Who was here last, so that the workspace opens when the desk can't be reached. */
const LAST = 'juncture/last';
const ASK_AGAIN_MS = 4000;

const KnownIdentity = v.variant('kind', [
  v.object({
    kind: v.literal('student'),
    deskId: v.string(),
    studentId: v.string(),
    studentName: v.string(),
  }),
  v.object({ kind: v.literal('files alone') }),
]);

function lastIdentity(): Identity | null {
  const parsed = v.safeParse(KnownIdentity, JSON.parse(localStorage.getItem(LAST) ?? 'null'));
  return parsed.success ? parsed.output : null;
}

async function open(identity: Identity): Promise<void> {
  localStorage.setItem(LAST, JSON.stringify(identity));
  await openWorkspace(identity);
}

let stopListening: (() => void) | null = null;
let retry: ReturnType<typeof setTimeout> | null = null;
let onMarking: (marking: Marking) => void = () => undefined;

/** Calls back for each marking that arrives while the page is open. */
export function onNewMarking(callback: (marking: Marking) => void): void {
  onMarking = callback;
}

/** Takes the access code out of the address, if it brought one. */
function codeFromAddress(): { student: string; code: string } | null {
  const given = new URLSearchParams(location.hash.slice(1));
  const student = given.get('student');
  const code = given.get('code');
  if (student === null || code === null) return null;
  history.replaceState(null, '', location.pathname + location.search);
  return { student, code };
}

/** Opens the workspace: of the student that the address or the session names, else the last one here. */
export async function start(): Promise<void> {
  const given = codeFromAddress();
  const answer = given === null ? await currentSession() : await signIn(given.student, given.code);
  if (answer.kind === 'ok') {
    await openForStudent(answer.value);
    return;
  }
  const last = lastIdentity();
  if (last === null || given !== null) {
    useWorkspace.setState({ connection: answer.kind === 'not reached' ? 'not reached' : 'signed out' });
    return;
  }
  await open(last);
  if (last.kind === 'files alone') useWorkspace.setState({ connection: 'none' });
  else if (answer.kind === 'signed out') useWorkspace.setState({ connection: 'signed out' });
  else lost();
}

async function openForStudent(session: SignedIn): Promise<void> {
  setClockByDesk(session.now);
  await open({
    kind: 'student',
    deskId: session.deskId,
    studentId: session.studentId,
    studentName: session.studentName,
  });
  await catchUp();
}

/** Signs in with a typed code; the refusal, in the desk's words, is for the student. */
export async function signInWith(student: string, code: string): Promise<Answer<SignedIn>> {
  const answer = await signIn(student, code);
  if (answer.kind === 'ok') await openForStudent(answer.value);
  return answer;
}

export async function workFromFilesAlone(): Promise<void> {
  disconnect();
  await open({ kind: 'files alone' });
  useWorkspace.setState({ connection: 'none' });
}

export async function leave(): Promise<void> {
  disconnect();
  if (useWorkspace.getState().identity?.kind === 'student') await signOut();
  localStorage.removeItem(LAST);
  closeWorkspace();
  useWorkspace.setState({ connection: 'signed out' });
}

function disconnect(): void {
  stopListening?.();
  stopListening = null;
  if (retry !== null) clearTimeout(retry);
  retry = null;
}

function lost(): void {
  disconnect();
  useWorkspace.setState({ connection: 'not reached' });
  retry = setTimeout(() => void catchUp(), ASK_AGAIN_MS);
}

/**
 * Listens for notices. Of several tabs only one does at a time: a browser opens few connections to one server, and a
 * notice keeps one busy. The others see what it takes in, and take over when it is gone.
 */
function listen(): void {
  const { identity } = useWorkspace.getState();
  if (stopListening !== null || identity === null) return;
  const over = new AbortController();
  stopListening = () => over.abort();
  const untilOver = () =>
    new Promise<void>((resolve) => {
      const notices = new EventSource('/desk/notices');
      notices.addEventListener('facts', () => void catchUp());
      notices.onerror = lost;
      over.signal.addEventListener('abort', () => {
        notices.close();
        resolve();
      });
    });
  navigator.locks
    .request(`${databaseName(identity)}/notices`, { signal: over.signal }, untilOver)
    .catch((error: unknown) => {
      if (!over.signal.aborted) throw error;
    });
}

/** A page that is put aside gives its connection up, and catches up when it comes back. */
export function listenWhileShown(): void {
  window.addEventListener('pagehide', disconnect);
  // The address that signs in, opened where the page is open already, changes its fragment alone.
  window.addEventListener('hashchange', () => {
    if (new URLSearchParams(location.hash.slice(1)).has('code')) location.reload();
  });
  window.addEventListener('pageshow', (event) => {
    if (event.persisted && useWorkspace.getState().identity?.kind === 'student') void catchUp();
  });
}

let catching: Promise<void> | null = null;
let again = false;

/** Fetches what is new at the desk, delivers what waits, and reads files that aren't read yet. */
export function catchUp(): Promise<void> {
  if (catching !== null) {
    again = true;
    return catching;
  }
  catching = fetchNew().finally(() => {
    catching = null;
    if (again) {
      again = false;
      void catchUp();
    }
  });
  return catching;
}

async function fetchNew(): Promise<void> {
  const cursor = v.parse(v.fallback(v.number(), 0), await metaValue('cursor'));
  const answer = await factsAfter(cursor);
  if (answer.kind !== 'ok') {
    if (answer.kind === 'signed out') useWorkspace.setState({ connection: 'signed out' });
    else lost();
    return;
  }
  const { facts } = answer.value;
  setClockByDesk(answer.value.now);
  if (facts.length > 0) await takeInFacts(facts, await rubricsFor(facts), answer.value.cursor);
  useWorkspace.setState({ connection: 'reached', lastReachedAt: nowMs() });
  listen();
  if (cursor > 0) for (const fact of facts) if (fact.kind === 'marking') onMarking(fact.value);
  await readReturnedFiles();
  await deliverWaiting();
}

async function rubricsFor(facts: readonly { kind: string; value: object }[]): Promise<Rubric[]> {
  const ids = facts.flatMap(({ value }) =>
    'rubricId' in value && typeof value.rubricId === 'string' ? [value.rubricId] : [],
  );
  const answers = await Promise.all([...new Set(ids)].map(rubricById));
  return answers.flatMap((answer) => (answer.kind === 'ok' ? [answer.value] : []));
}

async function readReturnedFiles(): Promise<void> {
  const { markings, assignments, rubrics, files } = useWorkspace.getState().records;
  for (const marking of markings.values())
    for (const fact of marking.files) {
      if (fact.role !== 'marked' || files.has(fact.hash)) continue;
      const bytes = await downloadFile(fact.hash);
      if (bytes === null) continue;
      const read = await readerInWorker().readPaper(bytes);
      if (read.kind === 'unreadable') continue;
      const rubricId = assignments.get(marking.assignmentId)?.rubricId;
      await takeInReturnedFile(
        {
          file: {
            hash: fact.hash,
            name: fact.name,
            mediaType: fact.mediaType,
            size: fact.size,
            cameAt: now(),
            origin: 'desk',
            assignmentId: marking.assignmentId,
            role: 'marked',
            aboutHash: null,
          },
          bytes,
          read: read.value,
        },
        marking,
        rubrics.get(rubricId ?? '') ?? null,
      );
    }
}

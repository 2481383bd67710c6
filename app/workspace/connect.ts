import * as v from 'valibot';
import type { Fact, Marking, Rubric, SignedIn } from '#core/model/facts.ts';
import { factOfWire } from '#formats/desk/wire.ts';
import { currentSession, factsAfter, rubricById, signIn, signOut, type Answer } from './desk-client.ts';
import { deliverWaiting } from './send.ts';
import { takeInFacts } from './facts.ts';
import { fetchReturnedFiles, forgetFailures } from './fetching.ts';
import { beginVisit, noteArrival } from './visits.ts';
import {
  databaseName,
  metaValue,
  nowMs,
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
  beginVisit(identity);
  caughtUp = false;
}

/** Whether the desk was heard since the page was opened: what it tells from then on comes while somebody looks. */
let caughtUp = false;
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
  else lost('not reached');
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

function lost(connection: 'not reached' | 'not understood'): void {
  disconnect();
  useWorkspace.setState({ connection });
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
      notices.onerror = () => lost('not reached');
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

/** Facts that could not be read, kept as they came: a newer Juncture may understand them. */
const UNREAD = 'unread facts';
const KeptUnread = v.fallback(
  v.array(
    v.object({
      seq: v.nullable(v.number()),
      kind: v.string(),
      problem: v.string(),
      raw: v.unknown(),
    }),
  ),
  [],
);

async function fetchNew(): Promise<void> {
  const cursor = v.parse(v.fallback(v.number(), 0), await metaValue('cursor'));
  const answer = await factsAfter(cursor);
  if (answer.kind !== 'ok') {
    if (answer.kind === 'signed out') useWorkspace.setState({ connection: 'signed out' });
    else lost(answer.kind === 'not reached' ? 'not reached' : 'not understood');
    return;
  }
  setClockByDesk(answer.value.now);
  const before = v.parse(KeptUnread, await metaValue(UNREAD));
  // The same line twice is one.
  const lines = new Map(
    [...before.map((one) => one.raw), ...answer.value.facts].map((raw) => [JSON.stringify(raw), raw]),
  );
  const raw = [...lines.values()];
  const read = raw.map((one) => ({ raw: one, ...factOfWire(one) }));
  const facts = read.flatMap((one) => ('fact' in one ? [one.fact] : []));
  const unread = read.flatMap((one) => ('unread' in one ? [{ ...one.unread, raw: one.raw }] : []));
  const live = caughtUp;
  caughtUp = true;
  // What arrives while somebody looks is held until they ask for it.
  if (live) for (const fact of facts) if (fact.kind === 'marking') noteArrival(fact.value.assignmentId);
  if (facts.length > 0 || unread.length !== before.length) {
    const rubrics = await rubricsFor(facts);
    await takeInFacts(facts, rubrics, answer.value.cursor, { [UNREAD]: unread });
  }
  useWorkspace.setState({ connection: 'reached', lastReachedAt: nowMs(), unreadFacts: unread });
  forgetFailures();
  listen();
  if (live) for (const fact of facts) if (fact.kind === 'marking') onMarking(fact.value);
  await fetchReturnedFiles();
  await deliverWaiting();
}

async function rubricsFor(facts: readonly Fact[]): Promise<Rubric[]> {
  const known = useWorkspace.getState().records.rubrics;
  const ids = facts.flatMap((fact) =>
    fact.kind === 'assignment' && fact.value.rubricId !== null ? [fact.value.rubricId as string] : [],
  );
  const wanted = [...new Set(ids)].filter((id) => !known.has(id));
  const answers = await Promise.all(wanted.map(rubricById));
  return answers.flatMap((answer) => (answer.kind === 'ok' ? [answer.value] : []));
}

import { create } from 'zustand';
import type { FileFact, Marking } from '#core/model/facts.ts';
import { hashOf } from '#formats/hash.ts';
import type { UnreadableReason } from '#formats/unreadable.ts';
import { readerInWorker } from '../workers/reader-client.ts';
import { downloadFile } from './desk-client.ts';
import { filesToFetch, keepDeskFile, takeInReturnedFile, type ReturnedContent } from './returned.ts';
import { fileBytes, keepPartialBytes, partialBytes, useWorkspace } from './workspace.ts';

/** Files that came back: which are on their way, which wait, which could not be had or read. */

export type Fetching =
  | { readonly kind: 'loading'; readonly received: number }
  /** Left for later, or too large to come by itself. */
  | { readonly kind: 'later' }
  | {
      readonly kind: 'failed';
      readonly because: 'broken' | 'missing' | 'damaged' | 'no room';
      readonly received: number;
    }
  | { readonly kind: 'unreadable'; readonly reason: UnreadableReason; readonly detail: string };

export const useFetching = create<{ readonly byHash: ReadonlyMap<string, Fetching> }>(() => ({
  byHash: new Map(),
}));

/** Larger files are announced with their size, and come when they are asked for. */
const COMES_BY_ITSELF_BYTES = 20 * 1024 * 1024;
/** A download that breaks is taken up again so often before the student is told. */
const TRIES = 3;

const running = new Map<string, AbortController>();

function show(hash: string, fetching: Fetching | null): void {
  useFetching.setState(({ byHash }) => {
    const next = new Map(byHash);
    if (fetching === null) next.delete(hash);
    else next.set(hash, fetching);
    return { byHash: next };
  });
}

/** Downloads a file, going on where it broke off; null where it could not be had. */
async function bytesFromDesk({ hash, size }: FileFact): Promise<Uint8Array<ArrayBuffer> | null> {
  const over = new AbortController();
  running.set(hash, over);
  try {
    let beginning = await partialBytes(hash);
    show(hash, { kind: 'loading', received: beginning.length });
    for (let tries = 1; ; tries++) {
      const got = await downloadFile(hash, size, beginning, over.signal, (received) =>
        show(hash, { kind: 'loading', received }),
      );
      if (got.kind === 'whole') {
        await keepPartialBytes(hash, new Uint8Array());
        if ((await hashOf(got.bytes)) === hash) return got.bytes;
        show(hash, { kind: 'failed', because: 'damaged', received: 0 });
        return null;
      }
      if (got.kind !== 'broken') {
        show(hash, { kind: 'failed', because: 'missing', received: 0 });
        return null;
      }
      // Nothing more came: to ask again at once is no use.
      const stuck = got.bytes.length === beginning.length;
      beginning = got.bytes;
      await keepPartialBytes(hash, beginning);
      if (over.signal.aborted) {
        show(hash, { kind: 'later' });
        return null;
      }
      if (tries >= TRIES || stuck) {
        show(hash, { kind: 'failed', because: 'broken', received: beginning.length });
        return null;
      }
    }
  } finally {
    running.delete(hash);
  }
}

/** The disk has no room, or the browser gives no more of it. */
function isFull(error: unknown): boolean {
  return error instanceof DOMException && error.name === 'QuotaExceededError';
}

type Read =
  { readonly kind: 'content'; readonly content: ReturnedContent } | Extract<Fetching, { kind: 'unreadable' }>;

async function readReturned(fact: FileFact, bytes: Uint8Array<ArrayBuffer>): Promise<Read> {
  const worker = readerInWorker();
  switch (fact.role) {
    case 'marked':
    case 'quiz':
    case 'posts':
    case 'paper': {
      const read = await worker.readPaper(bytes);
      return read.kind === 'read' ? { kind: 'content', content: { kind: 'paper', read: read.value } } : read;
    }
    case 'remarks':
    case 'report': {
      const about = fact.aboutHash === null ? null : await fileBytes(fact.aboutHash);
      const read = await worker.readRemarksOnto(bytes, about);
      // A report that found nothing is a good report.
      if (read.kind === 'unreadable' && read.reason === 'no remarks' && fact.role === 'report')
        return { kind: 'content', content: { kind: 'remarks', marks: [] } };
      return read.kind === 'read'
        ? { kind: 'content', content: { kind: 'remarks', marks: read.value } }
        : read;
    }
    case 'transcript': {
      const read = await worker.readFile(fact.name, bytes, null, () => undefined);
      if (read.kind === 'unreadable') return read;
      const cues = read.value.kind === 'transcript' ? read.value.cues : [];
      return { kind: 'content', content: { kind: 'transcript', cues } };
    }
    case 'recording':
      return { kind: 'content', content: { kind: 'recording' } };
    case 'brief':
    case 'response':
      return { kind: 'content', content: { kind: 'file' } };
  }
}

async function fetchReturned(marking: Marking, fact: FileFact): Promise<void> {
  const bytes = await bytesFromDesk(fact);
  if (bytes === null) return;
  const read = await readReturned(fact, bytes);
  if (read.kind === 'unreadable') {
    show(fact.hash, read);
    return;
  }
  try {
    await takeInReturnedFile(fact, bytes, read.content, marking);
    show(fact.hash, null);
  } catch (error) {
    if (!isFull(error)) throw error;
    show(fact.hash, { kind: 'failed', because: 'no room', received: 0 });
  }
}

/** What a file of remarks is about has to be there first: what came with it, or what was sent. */
async function withSubject(marking: Marking, fact: FileFact): Promise<void> {
  const { records } = useWorkspace.getState();
  if (fact.aboutHash === null || records.files.has(fact.aboutHash)) return;
  const subject = [...marking.files, ...[...records.attempts.values()].flatMap(({ files }) => files)].find(
    ({ hash }) => hash === fact.aboutHash,
  );
  if (subject !== undefined) await fetchReturned(marking, subject);
}

/** Fetches what came back and is not here yet, except what is large, was left for later, or failed before. */
export async function fetchReturnedFiles(): Promise<void> {
  const tried = new Set<string>();
  for (;;) {
    const next = filesToFetch(useWorkspace.getState().records).find(
      ({ fact }) => !tried.has(fact.hash) && !useFetching.getState().byHash.has(fact.hash),
    );
    if (next === undefined) return;
    tried.add(next.fact.hash);
    if (next.fact.size > COMES_BY_ITSELF_BYTES) show(next.fact.hash, { kind: 'later' });
    else await fetchOne(next.marking, next.fact);
  }
}

async function fetchOne(marking: Marking, fact: FileFact): Promise<void> {
  await withSubject(marking, fact);
  await fetchReturned(marking, fact);
}

/** Fetches a file of a marking that was left, or that failed. */
export async function fetchNow(marking: Marking, fact: FileFact): Promise<void> {
  if (!running.has(fact.hash)) await fetchOne(marking, fact);
}

/** Stops a download and leaves it for later; what is here of it stays. */
export function leaveForLater(hash: string): void {
  running.get(hash)?.abort();
}

/** A file of an attempt or an assignment, to be opened: from here, or from the desk. null where it can't be had. */
export async function deskFile(
  fact: FileFact,
  assignmentId: Marking['assignmentId'],
): Promise<Uint8Array<ArrayBuffer> | null> {
  const here = await fileBytes(fact.hash);
  if (here !== null) return here;
  const bytes = await bytesFromDesk(fact);
  if (bytes === null) return null;
  await keepDeskFile(fact, bytes, assignmentId);
  show(fact.hash, null);
  return bytes;
}

/** What failed since the desk was away is tried again when it is back. */
export function forgetFailures(): void {
  useFetching.setState(({ byHash }) => ({
    byHash: new Map(
      [...byHash].filter(([, fetching]) => fetching.kind !== 'failed' || fetching.because !== 'broken'),
    ),
  }));
}

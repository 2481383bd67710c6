import { isFull } from '../storage/refusal.ts';
import { useStore } from 'zustand';
import { createStore } from 'zustand/vanilla';
import type { FileFact, Marking } from '#core/model/facts.ts';
import { hashOf } from '#formats/hash.ts';
import type { UnreadableReason } from '#formats/unreadable.ts';
import { reader } from '../../workers/clients.ts';
import { WorkerStopped } from '../../workers/worker-client.ts';
import { downloadFile } from './desk-client.ts';
import { filesToFetch, keepDeskFile } from './fetching.ts';
import type { ReturnedContent } from './returned.ts';
import { useWorkspace } from '../use-workspace.ts';
import type { Workspace } from '../workspace.ts';

export type Fetching =
  | { readonly kind: 'loading'; readonly received: number }
  /** Left for later, or too large to come by itself. */
  | { readonly kind: 'later' }
  | {
      readonly kind: 'failed';
      readonly because: 'broken' | 'missing' | 'damaged' | 'no room' | 'reader';
      readonly received: number;
    }
  | { readonly kind: 'unreadable'; readonly reason: UnreadableReason; readonly detail: string };

/** Larger files are announced with their size, and come when they are asked for. */
const COMES_BY_ITSELF_BYTES = 20 * 1024 * 1024;
/** A download that breaks is taken up again so often before the student is told. */
const TRIES = 3;

type Read =
  { readonly kind: 'content'; readonly content: ReturnedContent } | Extract<Fetching, { kind: 'unreadable' }>;

/** What a file that came back holds; it is read off the main thread. */
async function readReturned(
  workspace: Workspace,
  fact: FileFact,
  bytes: Uint8Array<ArrayBuffer>,
): Promise<Read> {
  switch (fact.role) {
    case 'marked':
    case 'quiz':
    case 'posts':
    case 'paper': {
      const read = await reader.ask((worker) => worker.readPaper(bytes));
      return read.kind === 'read' ? { kind: 'content', content: { kind: 'paper', read: read.value } } : read;
    }
    case 'remarks':
    case 'report': {
      const about = fact.aboutHash === null ? null : await workspace.fileBytes(fact.aboutHash);
      const read = await reader.ask((worker) => worker.readRemarksOnto(bytes, about));
      // A report that found nothing is a good report.
      if (read.kind === 'unreadable' && read.reason === 'no remarks' && fact.role === 'report')
        return { kind: 'content', content: { kind: 'remarks', marks: [] } };
      return read.kind === 'read'
        ? { kind: 'content', content: { kind: 'remarks', marks: read.value } }
        : read;
    }
    case 'transcript': {
      const read = await reader.ask((worker) => worker.readFile(fact.name, bytes, null, null));
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

/** Files that came back: which are on their way, which wait, which could not be had or read. */
export class Downloads {
  readonly store = createStore<{ readonly byHash: ReadonlyMap<string, Fetching> }>(() => ({
    byHash: new Map(),
  }));
  private readonly running = new Map<string, AbortController>();

  constructor(private readonly workspace: Workspace) {}

  private show(hash: string, fetching: Fetching | null): void {
    this.store.setState(({ byHash }) => {
      const next = new Map(byHash);
      if (fetching === null) next.delete(hash);
      else next.set(hash, fetching);
      return { byHash: next };
    });
  }

  /** Downloads a file, going on where it broke off; null where it could not be had. */
  private async bytesFromDesk({ hash, size }: FileFact): Promise<Uint8Array<ArrayBuffer> | null> {
    const { workspace } = this;
    const over = new AbortController();
    this.running.set(hash, over);
    try {
      let beginning = await workspace.partialBytes(hash);
      this.show(hash, { kind: 'loading', received: beginning.length });
      for (let tries = 1; ; tries++) {
        const signal = AbortSignal.any([over.signal, workspace.signal]);
        const got = await downloadFile(hash, size, beginning, { ...workspace.caller, signal }, (received) =>
          this.show(hash, { kind: 'loading', received }),
        );
        if (got.kind === 'whole') {
          await workspace.keepPartialBytes(hash, new Uint8Array());
          if ((await hashOf(got.bytes)) === hash) return got.bytes;
          this.show(hash, { kind: 'failed', because: 'damaged', received: 0 });
          return null;
        }
        if (got.kind === 'signed out') {
          // Nothing is wrong with the file: it comes with the next that is heard of the desk.
          this.show(hash, null);
          workspace.desk?.signedOut();
          return null;
        }
        if (got.kind === 'missing') {
          this.show(hash, { kind: 'failed', because: 'missing', received: 0 });
          return null;
        }
        // Nothing more came: to ask again at once is no use.
        const stuck = got.bytes.length === beginning.length;
        beginning = got.bytes;
        await workspace.keepPartialBytes(hash, beginning);
        if (over.signal.aborted) {
          this.show(hash, { kind: 'later' });
          return null;
        }
        if (tries >= TRIES || stuck) {
          this.show(hash, { kind: 'failed', because: 'broken', received: beginning.length });
          return null;
        }
      }
    } finally {
      this.running.delete(hash);
    }
  }

  private async fetchReturned(marking: Marking, fact: FileFact): Promise<void> {
    const bytes = await this.bytesFromDesk(fact);
    if (bytes === null) return;
    try {
      const read = await readReturned(this.workspace, fact, bytes);
      if (read.kind === 'unreadable') {
        this.show(fact.hash, read);
        return;
      }
      const { takeInReturnedFile } = await import('./returned.ts');
      await takeInReturnedFile(this.workspace, fact, bytes, read.content, marking);
      this.show(fact.hash, null);
    } catch (error) {
      if (isFull(error)) this.show(fact.hash, { kind: 'failed', because: 'no room', received: 0 });
      else if (error instanceof WorkerStopped)
        this.show(fact.hash, { kind: 'failed', because: 'reader', received: bytes.length });
      else throw error;
    }
  }

  /** What a file of remarks is about has to be there first: what came with it, or what was sent. */
  private async withSubject(marking: Marking, fact: FileFact): Promise<void> {
    const { records } = this.workspace;
    if (fact.aboutHash === null || records.files.has(fact.aboutHash)) return;
    const subject = [...marking.files, ...[...records.attempts.values()].flatMap(({ files }) => files)].find(
      ({ hash }) => hash === fact.aboutHash,
    );
    if (subject !== undefined) await this.fetchReturned(marking, subject);
  }

  /** Fetches what came back and is not here yet, except what is large, was left for later, or failed before. */
  async fetchReturnedFiles(): Promise<void> {
    const tried = new Set<string>();
    while (!this.workspace.signal.aborted) {
      const next = filesToFetch(this.workspace.records).find(
        ({ fact }) => !tried.has(fact.hash) && !this.store.getState().byHash.has(fact.hash),
      );
      if (next === undefined) return;
      tried.add(next.fact.hash);
      if (next.fact.size > COMES_BY_ITSELF_BYTES) this.show(next.fact.hash, { kind: 'later' });
      else await this.fetchOne(next.marking, next.fact);
      if (this.workspace.store.getState().connection === 'signed out') return;
    }
  }

  private async fetchOne(marking: Marking, fact: FileFact): Promise<void> {
    await this.withSubject(marking, fact);
    await this.fetchReturned(marking, fact);
  }

  /** Fetches a file of a marking that was left, or that failed. */
  async fetchNow(marking: Marking, fact: FileFact): Promise<void> {
    if (!this.running.has(fact.hash)) await this.fetchOne(marking, fact);
  }

  /** Stops a download and leaves it for later; what is here of it stays. */
  leaveForLater(hash: string): void {
    this.running.get(hash)?.abort();
  }

  /** A file of an attempt or an assignment, to be opened: from here, or from the desk. null where it can't be had. */
  async deskFile(
    fact: FileFact,
    assignmentId: Marking['assignmentId'],
  ): Promise<Uint8Array<ArrayBuffer> | null> {
    const here = await this.workspace.fileBytes(fact.hash);
    if (here !== null) return here;
    const bytes = await this.bytesFromDesk(fact);
    if (bytes === null) return null;
    await keepDeskFile(this.workspace, fact, bytes, assignmentId);
    this.show(fact.hash, null);
    return bytes;
  }

  /** What failed since the desk was away is tried again when it is back. */
  forgetFailures(): void {
    this.store.setState(({ byHash }) => ({
      byHash: new Map(
        [...byHash].filter(([, fetching]) => fetching.kind !== 'failed' || fetching.because !== 'broken'),
      ),
    }));
  }
}

export function useFetching(hash: string): Fetching | undefined {
  return useStore(useWorkspace().downloads.store, ({ byHash }) => byHash.get(hash));
}

import type { FileRole } from '#core/model/work.ts';
import { createStore } from 'zustand/vanilla';
import type { AssignmentId, FileHash } from '#core/model/ids.ts';
import type { Candidate } from '#core/taking-in/likely.ts';
import {
  attachedTo,
  groupsOf,
  incomingOf,
  sentBeside,
  twinsFor,
  withSubject,
  type PendingFile,
} from '#core/taking-in/pending.ts';
import { hashOf } from '#formats/hash.ts';
import type { Mark, MarkedPaper } from '#formats/marked-paper.ts';
import { markOfRecording, spokenIn } from '#formats/sound/recording-mark.ts';
import { MOST_FILE_BYTES } from '#formats/unreadable.ts';
import type { FileContent } from '../../workers/protocol.ts';
import { reader } from '../../workers/clients.ts';
import type { FileToTake, Placement } from '../commands/take-in.ts';
import type { Workspace } from '../workspace.ts';
import { Coming } from './coming.ts';
import { openFile } from './open-file.ts';
import type { ReadingTeller, TakingInTeller } from './told.ts';

/** A file that was read and waits for the student to say where it belongs. */
export interface FileAtHand extends PendingFile {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly content: FileContent;
}

interface PasswordQuestion {
  readonly name: string;
  readonly wrong: boolean;
  /** Takes the password; null when it is not given. */
  readonly answer: (password: string | null) => void;
}

export interface TakingInState {
  readonly pending: readonly FileAtHand[];
  readonly question: PasswordQuestion | null;
}

/** Files in files in files are made to break their readers. */
const DEEPEST_ATTACHED = 3;
/** Each telling draws the notice anew, which takes from the reading. */
const TELL_EVERY_MS = 250;

/** Files on their way into a workspace: read, matched with what is there, placed by the student, taken in. */
export class TakingIn {
  readonly store = createStore<TakingInState>(() => ({ pending: [], question: null }));
  readonly coming = new Coming();

  constructor(private readonly workspace: Workspace) {}

  /**
   * Reads files, each by itself, and takes in what could be read once the student said where it belongs.
   * @param onShown called when a paper can be looked at that is still being read
   * @returns the assignment to open where nothing is left to say; null where something is, or nothing was taken in
   */
  async takeIn(
    files: readonly File[],
    teller: TakingInTeller,
    onShown: () => void,
  ): Promise<AssignmentId | null> {
    const read: FileAtHand[] = [];
    for (const file of files)
      read.push(...(await this.readOne(file, teller, files.length === 1 ? onShown : null)));
    if (read.length === 0) return null;
    const pending = await this.withProposals(read);
    const [only] = pending;
    if (pending.length === 1 && this.workspace.records.assignments.size === 0 && only.holds === 'paper')
      return this.confirm(pending, teller);
    this.store.setState({ pending });
    return null;
  }

  /** Takes another place, role or subject for a file that waits. */
  change(hash: FileHash, next: Partial<PendingFile>): void {
    this.store.setState(({ pending }) => ({
      pending: pending.map((file) => (file.hash === hash ? { ...file, ...next } : file)),
    }));
  }

  /** Nothing of what waits is taken in. */
  drop(): void {
    this.store.setState({ pending: [] });
    this.coming.forget();
  }

  /** Ends with its workspace: a question that is open is answered by nothing. */
  close(): void {
    this.store.getState().question?.answer(null);
    this.coming.close();
  }

  /**
   * Takes in what waits as the student left it; everything or nothing.
   * @returns the first assignment; null where nothing was taken in, or the place that is open leads there by itself
   */
  async confirm(pending: readonly FileAtHand[], teller: TakingInTeller): Promise<AssignmentId | null> {
    if (pending.length === 0) return null;
    const marksByHash = new Map<string, readonly Mark[]>();
    for (const file of pending) {
      const marks = await this.marksFor(file, pending, teller);
      if (marks === null) return null;
      marksByHash.set(file.hash, marks);
    }
    const marksOf = (file: FileAtHand) => marksByHash.get(file.hash) ?? [];
    const { takeInFiles, withNews } = await import('../commands/take-in.ts');
    const placed = groupsOf(pending).map(({ assignmentId, title, files }): Placement => ({
      assignmentId: assignmentId as AssignmentId | null,
      title,
      files: files.map((file) => fileToTake(file, marksOf(file))),
    }));
    const placements = await withNews(this.workspace, placed);
    const all = placements.flatMap(({ files }) =>
      files.flatMap(({ read, marks }) => [...(read?.marks ?? []), ...marks]),
    );
    const ids = await takeInFiles(this.workspace, placements);
    this.store.setState({ pending: [] });
    teller.taken(
      pending.map(({ name }) => name),
      all.length,
    );
    const id = ids.at(0);
    const hashes = pending.map(({ hash }) => hash);
    return id === undefined || this.coming.leadsOn(hashes, id) ? null : id;
  }

  private async readOne(
    file: File,
    teller: TakingInTeller,
    onShown: (() => void) | null,
    depth = 0,
  ): Promise<FileAtHand[]> {
    const isHere = (hash: FileHash) => this.workspace.records.files.has(hash);
    const given = new AbortController();
    const cancel = () => given.abort();
    const told = teller.reading(file.name, cancel);
    if (file.size > MOST_FILE_BYTES) {
      told.notTaken({ kind: 'unreadable', reason: 'too large', detail: '' });
      return [];
    }
    const bytesGiven = new Uint8Array(await file.arrayBuffer());
    const hashGiven = await hashOf(bytesGiven);
    if (isHere(hashGiven)) {
      told.notTaken({ kind: 'known' });
      return [];
    }
    let isRead = false;
    const over = AbortSignal.any([given.signal, this.workspace.signal]);
    const isOver = () => isRead || over.aborted;
    if (onShown !== null)
      void this.coming.showWhileRead(file.name, hashGiven, bytesGiven, { cancel, isOver, onShown });
    const opened = await openFile(file.name, bytesGiven, {
      signal: over,
      progress: this.tellPages(hashGiven, told, isOver),
      askPassword: (wrong) => this.askPassword(file.name, wrong),
    });
    isRead = true;
    if (opened.kind !== 'opened') {
      this.coming.forget(hashGiven);
      told.notTaken(opened);
      return [];
    }
    const { content, bytes } = opened;
    const hash = await hashOf(bytes);
    if (isHere(hash)) {
      told.notTaken({ kind: 'known' });
      return [];
    }
    told.read();
    const own = fileAtHand(file.name, hash, bytes, content);
    const inside: FileAtHand[] = [];
    const parts = content.kind === 'paper' && depth < DEEPEST_ATTACHED ? content.paper.attached : [];
    for (const { name, bytes: part } of parts) {
      const found = await this.readOne(new File([part], name), teller, null, depth + 1);
      inside.push(...found.map((one) => attachedTo(own, one)));
    }
    return [own, ...inside];
  }

  private tellPages(hash: FileHash, told: ReadingTeller, isOver: () => boolean) {
    told.pages(0, 0);
    let toldAt = 0;
    return (done: number, of: number) => {
      // What was on its way when the reader was stopped says nothing any more.
      if (isOver()) return;
      if (done < of && performance.now() - toldAt < TELL_EVERY_MS) return;
      toldAt = performance.now();
      if (this.coming.tell(hash, done, of)) told.hide();
      else told.pages(done, of);
    };
  }

  private askPassword(name: string, wrong: boolean): Promise<string | null> {
    return new Promise((resolve) => {
      const answer = (password: string | null) => {
        this.store.setState({ question: null });
        resolve(password);
      };
      this.store.setState({ question: { name, wrong, answer } });
    });
  }

  /** What each file most likely is and where it belongs. */
  private async withProposals(read: readonly FileAtHand[]): Promise<FileAtHand[]> {
    const here = await this.candidatesHere();
    const likelyFor = (file: PendingFile, among: readonly Candidate[]) =>
      reader.ask((worker) => worker.likelyAssignment(incomingOf(file), among));
    const placed: FileAtHand[] = [];
    for (const file of read) {
      if (file.place !== null) {
        placed.push(file);
        continue;
      }
      const likely = await likelyFor(file, here);
      placed.push({ ...file, likely, place: likely === null ? null : { assignment: likely.id } });
    }
    // Of two papers that are much alike, dropped together, one is the marked copy and the other what was sent.
    for (const [index, file] of placed.entries()) {
      const twins = twinsFor(file, placed);
      const twin = twins.length === 0 ? null : await likelyFor(file, twins);
      if (twin !== null) placed[index] = sentBeside(file, twin);
    }
    return placed.map((file) => withSubject(file, placed, this.workspace.records.files.values()));
  }

  private async candidatesHere(): Promise<Candidate[]> {
    const { assignments, files } = this.workspace.records;
    const found: Candidate[] = [];
    for (const { id, title } of assignments.values()) {
      const own = [...files.values()].filter((file) => file.assignmentId === id);
      const papers = await Promise.all(own.map(({ hash }) => this.workspace.readPaper(hash)));
      found.push({
        id,
        names: [title, ...own.map(({ name }) => name)],
        texts: papers.flatMap((paper) => (paper === null ? [] : [paper.paper.text])),
      });
    }
    return found;
  }

  /** The marks of remarks or a recording in a file of its own; null, and told why, where they can't be put anywhere. */
  private async marksFor(
    file: FileAtHand,
    pending: readonly FileAtHand[],
    teller: TakingInTeller,
  ): Promise<readonly Mark[] | null> {
    if (file.holds === 'recording')
      return [
        recordingMark(pending.find(({ holds, about }) => holds === 'transcript' && about === file.hash)),
      ];
    if (file.holds !== 'remarks') return [];
    const about =
      pending.find(({ hash }) => hash === file.about)?.bytes ??
      (await this.workspace.fileBytes(file.about ?? ''));
    if (about === null) {
      teller.nothingToPlaceOn();
      return null;
    }
    const marks = await reader.ask((worker) => worker.readRemarksOnto(file.bytes, about));
    if (marks.kind === 'read') return marks.value;
    teller.notPlaced(file.name, marks.reason, marks.detail);
    return null;
  }
}

function fileAtHand(
  name: string,
  hash: FileHash,
  bytes: Uint8Array<ArrayBuffer>,
  content: FileContent,
): FileAtHand {
  const paper = content.kind === 'paper' ? content.paper : null;
  const remarks = content.kind === 'remarks' ? content : null;
  return {
    hash,
    name,
    bytes,
    content,
    holds: content.kind,
    marks: paper?.marks.length ?? 0,
    title: paper?.paper.blocks.at(0)?.text ?? '',
    text: paper?.paper.text ?? remarks?.quotes ?? '',
    aboutNames: remarks?.about ?? [],
    likely: null,
    place: null,
    role: content.kind === 'paper' ? roleOf(content.paper.kind) : content.kind,
    about: null,
  };
}

/** What a paper is of an assignment by what it holds: a quiz or posts tell the kind of work too. */
function roleOf(kind: MarkedPaper['kind']): FileRole {
  return kind === 'quiz' || kind === 'posts' ? kind : 'marked';
}

function fileToTake(file: FileAtHand, marks: readonly Mark[]): FileToTake {
  const { hash, name, bytes, role, content, about } = file;
  return {
    hash,
    name,
    mediaType: content.mediaType,
    bytes,
    role,
    read: content.kind === 'paper' ? content.paper : null,
    marks,
    aboutHash: about,
    transcript: content.kind === 'transcript' ? spokenIn(content.cues) : null,
  };
}

/** A recording is one remark; its words are those of its transcript, if there is one. */
function recordingMark(transcript: FileAtHand | undefined): Mark {
  const cues = transcript?.content.kind === 'transcript' ? transcript.content.cues : [];
  return markOfRecording(cues.find(({ speaker }) => speaker !== null)?.speaker ?? '', spokenIn(cues));
}

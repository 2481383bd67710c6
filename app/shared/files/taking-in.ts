import type { Workspace } from '../../workspace/workspace.ts';
import { proxy } from 'comlink';
import { toast } from 'sonner';
import { create } from 'zustand';
import { proposalFor } from '#core/saying/saying-of.ts';
import type { Candidate, Likely } from '#core/taking-in/likely.ts';
import type { AssignmentId, FileHash } from '#core/model/ids.ts';
import type { FileRole } from '#core/model/work.ts';
import { hashOf } from '#formats/hash.ts';
import type { Mark } from '#formats/marked-paper.ts';
import { markOfRecording, spokenIn } from '#formats/sound/recording-mark.ts';
import { MOST_FILE_BYTES } from '#formats/unreadable.ts';
import { words } from '../../words/en.ts';
import type { FileContent } from '../../workers/protocol.ts';
import { reader } from '../../workers/clients.ts';
import { WorkerStopped } from '../../workers/worker-client.ts';
import { takeInFiles, type FileToTake, type Placement } from '../../workspace/commands/take-in.ts';
import { forgetComing, leadsOn, showWhileRead, tellComing } from './coming-paper.ts';
import { assignmentAddress } from '../page/addresses.ts';

/** A file that was read and waits for the student to say where it belongs. */
export interface PendingFile {
  readonly hash: FileHash;
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly content: FileContent;
  readonly likely: Likely | null;
  /** An assignment that is there, the hash of a file beside it whose assignment it shares, or null: one of its own. */
  readonly place: { readonly assignment: string } | { readonly beside: string } | null;
  readonly role: FileRole;
  /** For remarks and transcripts: what they are about. */
  readonly about: FileHash | null;
}

/** Asks for a password; null when it is not given. */
interface PasswordQuestion {
  readonly name: string;
  readonly wrong: boolean;
  readonly answer: (password: string | null) => void;
}

interface TakingIn {
  readonly pending: readonly PendingFile[];
  readonly question: PasswordQuestion | null;
}

export const useTakingIn = create<TakingIn>(() => ({ pending: [], question: null }));

/** The bytes of a chosen file, or the sentence why it isn't even begun. */
export async function bytesOfFile(file: File): Promise<Uint8Array<ArrayBuffer> | string> {
  if (file.size > MOST_FILE_BYTES) return words.unreadable['too large'](file.name, '');
  return new Uint8Array(await file.arrayBuffer());
}

function askPassword(name: string, wrong: boolean): Promise<string | null> {
  return new Promise((resolve) => {
    const answer = (password: string | null) => {
      useTakingIn.setState({ question: null });
      resolve(password);
    };
    useTakingIn.setState({ question: { name, wrong, answer } });
  });
}

/**
 * Reads files, each by itself, and takes in what could be read once the student said where it belongs. Returns the
 * address to open where nothing is left to say.
 * @param onShown called when a paper can be looked at that is still being read
 */
export async function takeIn(
  workspace: Workspace,
  files: readonly File[],
  onShown: () => void,
): Promise<string | null> {
  const read: PendingFile[] = [];
  for (const file of files)
    read.push(...(await readOne(workspace, file, files.length === 1 ? onShown : null)));
  if (read.length === 0) return null;
  const pending = await withProposals(workspace, read);
  const { assignments } = workspace.records;
  const [only] = pending;
  if (pending.length === 1 && assignments.size === 0 && only.content.kind === 'paper')
    return confirmTakeIn(workspace, pending);
  useTakingIn.setState({ pending });
  return null;
}

const DEEPEST_ATTACHED = 3;
const TELL_EVERY_MS = 250;

/** What a file holds, and its bytes: of a locked PDF those of a copy that opens without its password. */
type Opened =
  { readonly content: FileContent; readonly bytes: Uint8Array<ArrayBuffer> } | { readonly why: string };

async function readOne(
  workspace: Workspace,
  file: File,
  onShown: (() => void) | null,
  depth = 0,
): Promise<PendingFile[]> {
  const notice = toast.loading(words.takeIn.reading(file.name), { duration: Infinity });
  const end = (why: string, isFault: boolean) => {
    const show = isFault ? toast.error : toast;
    show(why, { id: notice, duration: isFault ? 15_000 : 8000, description: '', cancel: undefined });
    return [];
  };
  const isHere = (hash: FileHash) => workspace.records.files.has(hash);
  const given = await bytesOfFile(file);
  if (typeof given === 'string') return end(given, true);
  const givenHash = await hashOf(given);
  if (isHere(givenHash)) return end(words.takeIn.known(file.name), false);
  const telling = tellReading(file.name, givenHash, notice);
  if (onShown !== null) void showWhileRead(file.name, givenHash, given, { ...telling, onShown });
  const opened = await openFile(file.name, given, telling);
  telling.end();
  if ('why' in opened) {
    forgetComing(givenHash);
    return end(opened.why, true);
  }
  const { content, bytes } = opened;
  const hash = await hashOf(bytes);
  if (isHere(hash)) return end(words.takeIn.known(file.name), false);
  toast.dismiss(notice);
  const role: FileRole = content.kind === 'paper' ? 'marked' : content.kind;
  const own: PendingFile = {
    hash,
    name: file.name,
    bytes,
    content,
    likely: null,
    place: null,
    role,
    about: null,
  };
  if (content.kind !== 'paper') return [own];
  const inside: PendingFile[] = [];
  // Files in files in files are made to break their readers.
  for (const { name, bytes: part } of depth < DEEPEST_ATTACHED ? content.paper.attached : [])
    inside.push(
      ...(await readOne(workspace, new File([part], name), null, depth + 1)).map((one) =>
        attachedTo(own, one),
      ),
    );
  return [own, ...inside];
}

/** Tells how far the reading of a file is, in a notice or in the place that shows the paper meanwhile. */
function tellReading(name: string, hash: FileHash, notice: string | number) {
  let isOver = false;
  const over = new AbortController();
  const cancel = () => {
    isOver = true;
    over.abort();
  };
  const say = (description: string) =>
    toast.loading(words.takeIn.reading(name), {
      id: notice,
      description,
      duration: Infinity,
      cancel: { label: words.takeIn.cancel, onClick: cancel },
    });
  let toldAt = 0;
  const progress = (done: number, of: number) => {
    // What was on its way when the reader was stopped says nothing any more.
    if (isOver) return;
    // Each telling draws the notice anew, which takes from the reading.
    if (done < of && performance.now() - toldAt < TELL_EVERY_MS) return;
    toldAt = performance.now();
    if (tellComing(hash, done, of)) toast.dismiss(notice);
    else say(words.takeIn.pages(done, of));
  };
  say('');
  return { cancel, signal: over.signal, progress, isOver: () => isOver, end: () => (isOver = true) };
}

function stoppedOnly(error: unknown): 'stopped' {
  if (error instanceof WorkerStopped) return 'stopped';
  throw error;
}

/** Reads a file in the worker until it is read, refused or given up; asks for a password as needed. */
async function openFile(
  name: string,
  bytes: Uint8Array<ArrayBuffer>,
  { signal, progress }: ReturnType<typeof tellReading>,
): Promise<Opened> {
  for (let password: string | null = null, tries = 0; ; tries++) {
    const given = password;
    const result = await reader
      .ask((worker) => worker.readFile(name, bytes, given, proxy(progress)), { signal })
      .catch(stoppedOnly);
    if (signal.aborted) return { why: words.takeIn.cancelled(name) };
    if (result === 'stopped') return { why: words.takeIn.stopped(name) };
    if (result.kind === 'read') {
      if (given === null) return { content: result.value, bytes };
      // Kept as a copy that opens without: nobody wants to type it each time.
      const copy = await reader.ask((worker) => worker.unlockPdf(bytes, given));
      if (copy.kind === 'read') return { content: result.value, bytes: copy.value };
      return { why: words.unreadable[copy.reason](name, copy.detail) };
    }
    if (result.reason !== 'locked PDF' && result.reason !== 'wrong password')
      return { why: words.unreadable[result.reason](name, result.detail) };
    password = await askPassword(name, tries > 0);
    if (password === null) return { why: words.unreadable['locked PDF'](name, '') };
  }
}

/** A file that came inside another one belongs with it; one without remarks is no paper to read. */
function attachedTo(host: PendingFile, file: PendingFile): PendingFile {
  const isPaper = file.content.kind === 'paper' && file.content.paper.marks.length === 0;
  return { ...file, place: { beside: host.hash }, role: isPaper ? 'attachment' : file.role };
}

/** What each file most likely is and where it belongs. */
async function withProposals(workspace: Workspace, read: readonly PendingFile[]): Promise<PendingFile[]> {
  const candidates = await candidatesHere(workspace);
  const papers = read.filter(({ content }) => content.kind === 'paper');
  const likelyAssignment = (file: PendingFile, among: readonly Candidate[]) =>
    reader.ask((worker) => worker.likelyAssignment(incomingOf(file), among));
  const placed: PendingFile[] = [];
  for (const file of read) {
    const likely = file.place === null ? await likelyAssignment(file, candidates) : file.likely;
    const proposed = likely === null ? null : { assignment: likely.id };
    placed.push(file.place === null ? { ...file, likely, place: proposed } : file);
  }
  // Of two papers that are much alike, dropped together, one is the marked copy and the other what was sent.
  for (const [index, file] of placed.entries()) {
    if (file.content.kind !== 'paper' || file.place !== null || file.content.paper.marks.length > 0) continue;
    const others = papers.filter((other) => other.hash !== file.hash && marksIn(other) > 0);
    const twin = await likelyAssignment(file, others.map(candidateOf));
    if (twin !== null) placed[index] = { ...file, likely: twin, place: { beside: twin.id }, role: 'sent' };
  }
  return placed.map((file) => (file.content.kind === 'paper' ? file : withSubject(workspace, file, placed)));
}

function marksIn({ content }: PendingFile): number {
  return content.kind === 'paper' ? content.paper.marks.length : 0;
}

function incomingOf({ name, content }: PendingFile) {
  const paper = content.kind === 'paper' ? content.paper.paper : null;
  const quotes = content.kind === 'remarks' ? content.quotes : '';
  return { name, title: paper?.blocks.at(0)?.text ?? '', text: paper?.text ?? quotes };
}

function candidateOf(file: PendingFile): Candidate {
  const { name, title, text } = incomingOf(file);
  return { id: file.hash, names: [name, title], texts: [text] };
}

async function candidatesHere(workspace: Workspace): Promise<Candidate[]> {
  const { assignments, files } = workspace.records;
  const found: Candidate[] = [];
  for (const { id, title } of assignments.values()) {
    const own = [...files.values()].filter((file) => file.assignmentId === id);
    const papers = await Promise.all(own.map(({ hash }) => workspace.readPaper(hash)));
    found.push({
      id,
      names: [title, ...own.map(({ name }) => name)],
      texts: papers.flatMap((paper) => (paper === null ? [] : [paper.paper.text])),
    });
  }
  return found;
}

/** The paper or recording that remarks, a transcript or a recording in a file of its own belong to. */
function withSubject(workspace: Workspace, file: PendingFile, pending: readonly PendingFile[]): PendingFile {
  if (file.content.kind === 'recording') {
    const [first] = pending.filter(({ content }) => content.kind === 'paper');
    return file.place === null && (first as PendingFile | undefined) !== undefined
      ? { ...file, place: { beside: first.hash } }
      : file;
  }
  const subjects = subjectsFor(workspace, file, pending);
  const stem = (name: string) => name.replace(/\.[a-z0-9]+$/i, '').toLowerCase();
  const named = file.content.kind === 'remarks' ? file.content.about.map(stem) : [stem(file.name)];
  const subject =
    subjects.find(({ name }) => named.includes(stem(name))) ??
    subjects.find(({ name }) => stem(name) === stem(file.name)) ??
    subjects.at(0);
  if (subject === undefined) return file;
  const place =
    subject.assignmentId === null ? { beside: subject.hash as string } : { assignment: subject.assignmentId };
  return { ...file, about: subject.hash, place };
}

export interface Subject {
  readonly hash: FileHash;
  readonly name: string;
  /** null for one that is taken in together. */
  readonly assignmentId: AssignmentId | null;
}

/** What remarks or a transcript can be about: what comes with them first, then what is here, newest first. */
export function subjectsFor(
  workspace: Workspace,
  file: PendingFile,
  pending: readonly PendingFile[],
): Subject[] {
  const wanted = file.content.kind === 'transcript' ? ['recording'] : ['paper', 'recording'];
  const coming = pending
    .filter((other) => other.hash !== file.hash && wanted.includes(other.content.kind))
    .map(({ hash, name }): Subject => ({ hash, name, assignmentId: null }));
  const roles: FileRole[] =
    file.content.kind === 'transcript' ? ['recording'] : ['marked', 'sent', 'recording'];
  const here = [...workspace.records.files.values()]
    .filter(({ role, assignmentId }) => roles.includes(role) && assignmentId !== null)
    .sort((x, y) => (x.cameAt < y.cameAt ? 1 : -1))
    .map(({ hash, name, assignmentId }): Subject => ({ hash, name, assignmentId }));
  return [...coming, ...here];
}

/**
 * Takes in what is pending as the student left it; everything or nothing. Returns the address of the first assignment;
 * null where nothing was taken in, or the place that is open leads there by itself.
 */
export async function confirmTakeIn(
  workspace: Workspace,
  pending: readonly PendingFile[],
): Promise<string | null> {
  const toTake: { key: string; assignmentId: string | null; title: string; file: FileToTake }[] = [];
  for (const file of pending) {
    const marks = await marksFor(workspace, file, pending);
    if (typeof marks === 'string') {
      toast.error(marks, { duration: 15_000 });
      return null;
    }
    const host = hostOf(file, pending);
    const assignmentId = host.place !== null && 'assignment' in host.place ? host.place.assignment : null;
    toTake.push({
      key: assignmentId ?? host.hash,
      assignmentId,
      title: titleOf(host),
      file: {
        hash: file.hash,
        name: file.name,
        mediaType: file.content.mediaType,
        bytes: file.bytes,
        role: file.role,
        read: file.content.kind === 'paper' ? file.content.paper : null,
        marks,
        aboutHash: file.about,
        transcript: file.content.kind === 'transcript' ? spokenIn(file.content.cues) : null,
      },
    });
  }
  const placements = [...new Set(toTake.map(({ key }) => key))].map((key): Placement => {
    const own = toTake.filter((one) => one.key === key);
    // The host of the others first: a new assignment is named after it.
    const files = own.map(({ file }) => file).sort((x, y) => Number(y.hash === key) - Number(x.hash === key));
    return { assignmentId: own[0].assignmentId as AssignmentId | null, title: own[0].title, files };
  });
  await weighRemarks(toTake.flatMap(({ file }) => [...(file.read?.marks ?? []), ...file.marks]));
  const ids = await takeInFiles(workspace, placements);
  useTakingIn.setState({ pending: [] });
  const count = toTake.reduce((sum, { file }) => sum + (file.read?.marks.length ?? 0) + file.marks.length, 0);
  toast.success(
    pending.length === 1
      ? words.takeIn.taken(pending[0].name, count)
      : words.takeIn.takenSeveral(pending.length, count),
  );
  const id = ids.at(0);
  const hashes = pending.map(({ hash }) => hash);
  return id === undefined || leadsOn(hashes, id) ? null : assignmentAddress(id);
}

/** So many remarks are weighed before the page may answer again. */
const WEIGHED_AT_ONCE = 200;

/** What thousands of remarks say is worked out piece by piece, lest the page stand still when they are first shown. */
async function weighRemarks(marks: readonly Mark[]): Promise<void> {
  for (let from = 0; from < marks.length; from += WEIGHED_AT_ONCE) {
    for (const mark of marks.slice(from, from + WEIGHED_AT_ONCE)) proposalFor(mark);
    if (from + WEIGHED_AT_ONCE < marks.length) await new Promise((resolve) => setTimeout(resolve));
  }
}

/** The file whose assignment another one shares, followed to its end. */
function hostOf(file: PendingFile, pending: readonly PendingFile[]): PendingFile {
  let host = file;
  for (let steps = 0; steps < pending.length && host.place !== null && 'beside' in host.place; steps++) {
    const { beside } = host.place;
    const next = pending.find(({ hash }) => hash === beside);
    if (next === undefined) return { ...host, place: null };
    host = next;
  }
  return host;
}

function titleOf({ name }: PendingFile): string {
  return name.replace(/\.[a-z0-9]{2,5}$/i, '').replaceAll('_', ' ');
}

async function marksFor(
  workspace: Workspace,
  file: PendingFile,
  pending: readonly PendingFile[],
): Promise<Mark[] | string> {
  const { content } = file;
  if (content.kind === 'recording')
    return [
      recordingMark(
        pending.find(({ content: other, about }) => other.kind === 'transcript' && about === file.hash),
      ),
    ];
  if (content.kind !== 'remarks') return [];
  const about =
    pending.find(({ hash }) => hash === file.about)?.bytes ?? (await workspace.fileBytes(file.about ?? ''));
  if (about === null) return words.takeIn.nothingToPlaceOn;
  const marks = await reader.ask((worker) => worker.readRemarksOnto(file.bytes, about));
  return marks.kind === 'read' ? marks.value : words.unreadable[marks.reason](file.name, marks.detail);
}

/** A recording is one remark; its words are those of its transcript, if there is one. */
function recordingMark(transcript: PendingFile | undefined): Mark {
  const cues = transcript?.content.kind === 'transcript' ? transcript.content.cues : [];
  return markOfRecording(cues.find(({ speaker }) => speaker !== null)?.speaker ?? '', spokenIn(cues));
}

/** Files for taking in out of what was pasted: files as they are, text as a file of its own. */
export function pastedFiles(data: DataTransfer): File[] {
  if (data.files.length > 0) return [...data.files];
  const text = data.getData('text/plain');
  return text.trim() === '' ? [] : [new File([text], words.takeIn.pasted)];
}

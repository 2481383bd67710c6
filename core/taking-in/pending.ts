import type { AssignmentId, FileHash } from '../model/ids.ts';
import type { FileRole, StoredFile } from '../model/work.ts';
import type { Candidate, Incoming, Likely } from './likely.ts';

/** Where files that were dropped together belong: proposed from what they are, then put right by the student. */

/** An assignment that is there, or the one of another file that is taken in together, by its hash. */
type PendingPlace = { readonly assignment: string } | { readonly beside: string };

/** A file that was read and isn't taken in yet, as far as its place follows from it. */
export interface PendingFile {
  readonly hash: FileHash;
  readonly name: string;
  readonly holds: 'paper' | 'remarks' | 'recording' | 'transcript';
  /** Of a paper: how many remarks are on it. */
  readonly marks: number;
  /** Of a paper its first block, else ''. */
  readonly title: string;
  /** The text of a paper, or the words that remarks quote. */
  readonly text: string;
  /** Of remarks: names of the files that they say they are about. */
  readonly aboutNames: readonly string[];
  readonly likely: Likely | null;
  /** null: an assignment of its own. */
  readonly place: PendingPlace | null;
  readonly role: FileRole;
  /** For remarks and transcripts: what they are about. */
  readonly about: FileHash | null;
}

/** What of a file is compared with what is there. */
export function incomingOf({ name, title, text }: PendingFile): Incoming {
  return { name, title, text };
}

/** A file that comes inside another one belongs with it; one without remarks is no paper to read. */
export function attachedTo<File extends PendingFile>(host: PendingFile, file: File): File {
  const isPlain = file.holds === 'paper' && file.marks === 0;
  return { ...file, place: { beside: host.hash }, role: isPlain ? 'attachment' : file.role };
}

/**
 * Marked papers that a paper without remarks may be the unmarked copy of; none for a file that has its place, or remarks
 * of its own.
 */
export function twinsFor(file: PendingFile, pending: readonly PendingFile[]): Candidate[] {
  if (file.holds !== 'paper' || file.place !== null || file.marks > 0) return [];
  return pending
    .filter((other) => other.holds === 'paper' && other.hash !== file.hash && other.marks > 0)
    .map(({ hash, name, title, text }) => ({ id: hash, names: [name, title], texts: [text] }));
}

/** A paper as what was sent, beside the marked copy of it. */
export function sentBeside<File extends PendingFile>(file: File, twin: Likely): File {
  return { ...file, likely: twin, place: { beside: twin.id }, role: 'sent' };
}

/** What remarks or a transcript can be about. */
export interface Subject {
  readonly hash: FileHash;
  readonly name: string;
  /** null for one that is taken in together. */
  readonly assignmentId: AssignmentId | null;
}

/** What remarks or a transcript can be about: what comes with them first, then what is here, newest first. */
export function subjectsFor(
  file: PendingFile,
  pending: readonly PendingFile[],
  here: Iterable<StoredFile>,
): Subject[] {
  const isTranscript = file.holds === 'transcript';
  const coming = pending
    .filter(
      ({ hash, holds }) =>
        hash !== file.hash && (holds === 'recording' || (holds === 'paper' && !isTranscript)),
    )
    .map(({ hash, name }): Subject => ({ hash, name, assignmentId: null }));
  const roles: readonly FileRole[] = isTranscript ? ['recording'] : ['marked', 'sent', 'recording'];
  const stored = [...here]
    .filter(({ role, assignmentId }) => roles.includes(role) && assignmentId !== null)
    .sort((x, y) => (x.cameAt < y.cameAt ? 1 : -1))
    .map(({ hash, name, assignmentId }): Subject => ({ hash, name, assignmentId }));
  return [...coming, ...stored];
}

/** A file as being about a subject, and in its place. */
export function aboutSubject<File extends PendingFile>(file: File, { hash, assignmentId }: Subject): File {
  return {
    ...file,
    about: hash,
    place: assignmentId === null ? { beside: hash } : { assignment: assignmentId },
  };
}

function stemOf(name: string): string {
  return name.replace(/\.[a-z0-9]+$/i, '').toLowerCase();
}

/** The paper or recording that remarks, a transcript or a recording in a file of its own most likely belong to. */
export function withSubject<File extends PendingFile>(
  file: File,
  pending: readonly PendingFile[],
  here: Iterable<StoredFile>,
): File {
  if (file.holds === 'paper') return file;
  if (file.holds === 'recording') {
    const paper = pending.find(({ holds }) => holds === 'paper');
    return file.place === null && paper !== undefined ? { ...file, place: { beside: paper.hash } } : file;
  }
  const subjects = subjectsFor(file, pending, here);
  const own = stemOf(file.name);
  const named = file.holds === 'remarks' ? file.aboutNames.map(stemOf) : [own];
  const subject =
    subjects.find(({ name }) => named.includes(stemOf(name))) ??
    subjects.find(({ name }) => stemOf(name) === own) ??
    subjects.at(0);
  return subject === undefined ? file : aboutSubject(file, subject);
}

/** The file whose assignment another one shares, followed to its end. */
function hostOf<File extends PendingFile>(file: File, pending: readonly File[]): File {
  let host = file;
  // No more steps than files: of two that are put beside each other the second is the host.
  for (let steps = 0; steps < pending.length && host.place !== null && 'beside' in host.place; steps++) {
    const { beside } = host.place;
    const next = pending.find(({ hash }) => hash === beside);
    if (next === undefined) return { ...host, place: null };
    host = next;
  }
  return host;
}

/** What a new assignment is called after its first file. */
function titleOf({ name }: PendingFile): string {
  return name.replace(/\.[a-z0-9]{2,5}$/i, '').replaceAll('_', ' ');
}

/** Files that go into one assignment. */
export interface PendingGroup<File> {
  /** null: a new one. */
  readonly assignmentId: string | null;
  /** What a new one is called. */
  readonly title: string;
  /** Every other shares the place of the first. */
  readonly files: readonly File[];
}

/** The files by the assignments that they go into, in the order in which they came. */
export function groupsOf<File extends PendingFile>(pending: readonly File[]): PendingGroup<File>[] {
  const groups = new Map<string, { host: File; assignmentId: string | null; files: File[] }>();
  for (const file of pending) {
    const host = hostOf(file, pending);
    const assignmentId = host.place !== null && 'assignment' in host.place ? host.place.assignment : null;
    const key = assignmentId ?? host.hash;
    const group = groups.get(key) ?? { host, assignmentId, files: [] };
    group.files.push(file);
    groups.set(key, group);
  }
  return [...groups.values()].map(({ host, assignmentId, files }) => ({
    assignmentId,
    title: titleOf(host),
    files: files.toSorted((x, y) => Number(y.hash === host.hash) - Number(x.hash === host.hash)),
  }));
}

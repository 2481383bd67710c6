import type { FileFact, Marking } from '../model/facts.ts';
import type { FileHash } from '../model/ids.ts';
import type { FileRole, StoredFile } from '../model/work.ts';
import { returnedFiles, type MarkedAttempt } from './attempts.ts';
import type { AssignmentRecords } from './records.ts';

/** A paper to read, as far as it is known: announced ones are not here yet. */
export interface PaperFile {
  readonly hash: FileHash;
  readonly name: string;
  readonly role: FileRole;
  readonly mediaType: string;
}

/** A file that came back and isn't here yet. */
export interface AwaitedFile {
  readonly marking: Marking;
  readonly fact: FileFact;
}

/** What of an assignment there is to read, and what is still to come. */
export interface PapersOf {
  /** The marked paper that a new draft starts from. */
  readonly markedFile: FileFact | null;
  /** Everything that remarks are shown on: marked papers, pictures, posts, quizzes, what was sent; the marked file first. */
  readonly papers: readonly PaperFile[];
  readonly awaited: readonly AwaitedFile[];
  readonly recordings: readonly StoredFile[];
}

/** The papers of an assignment: those that came back with its attempts, were taken in, or were written here and sent. */
export function papersOf(
  records: AssignmentRecords,
  id: string,
  attempts: readonly MarkedAttempt[],
): PapersOf {
  const files = records.of('files', id);
  const returned = returnedFiles(attempts);
  const movedAway = (hash: string) => (records.find('files', hash)?.assignmentId ?? id) !== id;
  const firstMarking = attempts.find(
    ({ marking }) => marking?.files.some(({ role }) => role === 'marked') === true,
  )?.marking;
  const markedFile =
    firstMarking?.files.find((file) => file.role === 'marked' && !movedAway(file.hash)) ?? ownMarked(files);
  const sent = new Set(attempts.flatMap(({ attempt }) => attempt.files.map(({ hash }) => hash as string)));
  const found = toRead(returned, files, movedAway, sent);
  return {
    markedFile,
    papers: [
      ...found.filter(({ hash }) => hash === markedFile?.hash),
      ...found.filter(({ hash }) => hash !== markedFile?.hash),
    ],
    awaited: returned.filter(({ fact }) => records.find('files', fact.hash) === null),
    recordings: files.filter(({ role }) => role === 'recording'),
  };
}

const PAPER_ROLES: readonly FileRole[] = ['marked', 'quiz', 'posts', 'sent', 'brief'];

/** Papers that came back with a marking or were taken in, each once. */
function toRead(
  returned: readonly AwaitedFile[],
  files: readonly StoredFile[],
  movedAway: (hash: string) => boolean,
  sent: ReadonlySet<string>,
): PaperFile[] {
  const byHash = new Map<string, PaperFile>();
  for (const { fact } of returned)
    if ((fact.role === 'marked' || fact.role === 'quiz' || fact.role === 'posts') && !movedAway(fact.hash))
      byHash.set(fact.hash, {
        hash: fact.hash,
        name: fact.name,
        role: fact.role,
        mediaType: fact.mediaType,
      });
  const standing = new Set(returned.map(({ fact }) => fact.hash as string));
  for (const { hash, name, role: kept, mediaType, origin } of files) {
    // A new file is one of what was sent once it was.
    const role = kept === 'version' && sent.has(hash) ? 'sent' : kept;
    // An older form of a returned file is kept, and is no paper to read any more.
    const superseded = origin === 'desk' && role !== 'sent' && role !== 'brief' && !standing.has(hash);
    // What was written here is a paper to read once it was sent.
    const isPaper = PAPER_ROLES.includes(role) && (origin !== 'written' || sent.has(hash));
    if (isPaper && !superseded) byHash.set(hash, { hash, name, role, mediaType });
    else if (origin === 'dropped') byHash.delete(hash);
  }
  const rank = ({ role }: PaperFile) => PAPER_ROLES.indexOf(role);
  return [...byHash.values()].sort((x, y) => rank(x) - rank(y));
}

/** The first marked paper among files that the student took in. */
function ownMarked(files: readonly StoredFile[]): FileFact | null {
  const file = files
    .filter(({ role }) => role === 'marked')
    .toSorted((x, y) => (x.cameAt < y.cameAt ? -1 : 1))
    .at(0);
  if (file === undefined) return null;
  const { name, mediaType, size, hash } = file;
  return { role: 'marked', name, mediaType, size, hash, aboutHash: null, announced: {} };
}

/** The results of a quiz, the earliest attempt first; those of no attempt that is known come before all. */
export function quizAttempts(papers: readonly PaperFile[], attempts: readonly MarkedAttempt[]): FileHash[] {
  const numberOf = (hash: string) =>
    attempts.find(({ markings }) => markings.some(({ files }) => files.some((file) => file.hash === hash)))
      ?.attempt.number ?? 0;
  return papers
    .flatMap(({ role, hash }) => (role === 'quiz' ? [hash] : []))
    .toSorted((x, y) => numberOf(x) - numberOf(y));
}

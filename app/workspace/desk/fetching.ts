import { markedAttempts, returnedFiles } from '#core/assignment/attempts.ts';
import { recordsIn } from '#core/assignment/records.ts';
import type { FileFact, Marking } from '#core/model/facts.ts';
import type { FileRole, StoredFile } from '#core/model/work.ts';
import type { RecordMaps } from '../storage/records.ts';
import type { Workspace } from '../workspace.ts';

/** Files of the school's: which are to be fetched, and what they are among the student's. */

/** What a file of the school's is among the student's files. */
const ROLES: Readonly<Record<FileFact['role'], FileRole>> = {
  paper: 'sent',
  response: 'sent',
  marked: 'marked',
  brief: 'brief',
  remarks: 'remarks',
  recording: 'recording',
  transcript: 'transcript',
  quiz: 'quiz',
  posts: 'posts',
  report: 'report',
};

/** A file of the school's as one of the student's. */
export function storedFile(
  workspace: Workspace,
  fact: FileFact,
  assignmentId: Marking['assignmentId'],
): StoredFile {
  const { hash, name, mediaType, size, role, aboutHash } = fact;
  return {
    hash,
    name,
    mediaType,
    size,
    cameAt: workspace.now(),
    origin: 'desk',
    assignmentId,
    role: ROLES[role],
    aboutHash,
  };
}

/** Keeps a file of an attempt or assignment that is only to be opened. */
export function keepDeskFile(
  workspace: Workspace,
  fact: FileFact,
  bytes: Uint8Array<ArrayBuffer>,
  assignmentId: Marking['assignmentId'],
): Promise<void> {
  return workspace.save(async (writing) => {
    writing.putBytes(fact.hash, bytes);
    await writing.put('files', storedFile(workspace, fact, assignmentId));
  });
}

/** Files that came with markings and are not here yet: the newest first, words before pictures and sound. */
export function filesToFetch(records: RecordMaps): { marking: Marking; fact: FileFact }[] {
  const ORDER: readonly FileFact['role'][] = [
    'quiz',
    'posts',
    'marked',
    'paper',
    'remarks',
    'report',
    'recording',
    'transcript',
    'brief',
    'response',
  ];
  const rank = ({ role, mediaType }: FileFact) =>
    ORDER.indexOf(role) + (mediaType.startsWith('image/') ? ORDER.length : 0);
  const own = recordsIn(records);
  return [...records.assignments.keys()]
    .flatMap((id) =>
      // An older form of a corrected file is fetched only when it is asked for.
      returnedFiles(markedAttempts(own.of('attempts', id), own.of('markings', id), [])),
    )
    .filter(({ fact }) => !records.files.has(fact.hash))
    .sort(
      (x, y) =>
        y.marking.at.localeCompare(x.marking.at) || rank(x.fact) - rank(y.fact) || x.fact.size - y.fact.size,
    );
}

import type { Workspace } from '../workspace.ts';
import type { Author, FileFact, Marking } from '#core/model/facts.ts';
import type { AssignmentId, FileHash } from '#core/model/ids.ts';
import type { Remark } from '#core/model/remark.ts';
import { blankAssignment, blankAttempt, blankMarking } from '#core/model/blank.ts';
import type { FileRole, StoredFile } from '#core/model/work.ts';
import type { Mark, MarkedPaper } from '#formats/marked-paper.ts';
import { channelOn, remarksOfMarks, type MarkContext } from '#formats/remarks.ts';
import * as words from '../../words/en.ts';
import { putRemark } from '../desk/facts.ts';
import type { Writing } from '../storage/transact.ts';
import { addTranscript, readPaperOf } from './read-files.ts';
import { assignmentIdOfFile, fileMarkingId, onlyAttemptId } from '#core/model/own-ids.ts';

async function putPaperWithRemarks(
  writing: Writing,
  file: StoredFile,
  bytes: Uint8Array<ArrayBuffer>,
  read: MarkedPaper,
  context: MarkContext,
): Promise<void> {
  const { remarks, anchors } = remarksOfMarks(read.marks, context);
  writing.putBytes(file.hash, bytes);
  writing.putPaper(readPaperOf(file.hash, read, anchors));
  await writing.put('files', file);
  // All at once: thousands that wait for one another keep the student waiting.
  await Promise.all(remarks.map((remark) => putRemark(writing, remark)));
}

/** The name most of the marks carry; a file that names nobody has an unnamed marker. */
function markerOf(marks: readonly Mark[]): Author {
  const named = marks.map((mark) => mark.author).filter((author) => author !== '');
  const counts = new Map<string, number>();
  for (const name of named) counts.set(name, (counts.get(name) ?? 0) + 1);
  const [[name] = ['']] = [...counts].sort((x, y) => y[1] - x[1]);
  return { name: name === '' ? words.takeIn.unnamedMarker : name, role: 'instructor' };
}

function remarksIn({ records }: Workspace, id: AssignmentId): Remark[] {
  return [...records.remarks.values()].filter(({ assignmentId }) => assignmentId === id);
}

function peopleIn(remarks: readonly Remark[]): Author[] {
  return [...new Map(remarks.map(({ author }) => [author.name, author])).values()];
}

/** A file that was read and is to be taken in, and what it is of its assignment. */
export interface FileToTake {
  readonly hash: FileHash;
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly role: FileRole;
  /** For papers; null for remarks, transcripts and recordings. */
  readonly read: MarkedPaper | null;
  /** For remarks in a file of their own, put onto what they are about; for a recording, the one remark that it is. */
  readonly marks: readonly Mark[];
  readonly aboutHash: FileHash | null;
  /** What is said in a recording that is here already. */
  readonly transcript: string | null;
}

/** Files for one assignment: one that is there, or a new one with this title. */
export interface Placement {
  readonly assignmentId: AssignmentId | null;
  readonly title: string;
  readonly files: readonly FileToTake[];
}

function assignmentOf({ assignmentId, files }: Placement): AssignmentId {
  return assignmentId ?? assignmentIdOfFile(files[0].hash);
}

/** The same, with what is new in each file: of a copy that was taken along, what somebody added. */
export async function withNews(workspace: Workspace, placements: readonly Placement[]): Promise<Placement[]> {
  const { marksAdded } = await import('#formats/annotated/own-copy.ts');
  return placements.map((placement) => {
    const known = remarksIn(workspace, assignmentOf(placement));
    return {
      ...placement,
      files: placement.files.map((file) =>
        file.read?.isOwnCopy === true
          ? { ...file, read: { ...file.read, marks: marksAdded(file.read.marks, known) } }
          : file,
      ),
    };
  });
}

/**
 * Takes in files that the student placed: everything or nothing, and undone as one. Returns the assignments they are in,
 * in order.
 */
export async function takeInFiles(
  workspace: Workspace,
  placements: readonly Placement[],
): Promise<AssignmentId[]> {
  const placed = placements.map((placement) => ({ ...placement, id: assignmentOf(placement) }));
  const [first] = placed;
  await workspace.run(first.id, words.undo.takenIn(first.title), async (writing) => {
    for (const placement of placed) await placeFiles(workspace, writing, placement.id, placement);
  });
  return placed.map(({ id }) => id);
}

async function placeFiles(
  workspace: Workspace,
  writing: Writing,
  assignmentId: AssignmentId,
  { assignmentId: known, title, files }: Placement,
): Promise<void> {
  if (known === null) await writing.put('assignments', blankAssignment(assignmentId, null, title));
  const marks = files.flatMap((file) => [...(file.read?.marks ?? []), ...file.marks]);
  const marking = await markingFor(workspace, writing, assignmentId, files, marks);
  const { rubricId } =
    (await writing.get('assignments', assignmentId)) ?? blankAssignment(assignmentId, null, title);
  const rubric = rubricId === null ? null : await writing.get('rubrics', rubricId);
  for (const file of files) {
    const isOwnCopy = file.read?.isOwnCopy === true;
    const stored: StoredFile = {
      hash: file.hash,
      name: file.name,
      mediaType: file.mediaType,
      size: file.bytes.length,
      cameAt: workspace.now(),
      origin: 'dropped',
      assignmentId,
      role: file.role,
      aboutHash: file.aboutHash,
    };
    const context: MarkContext = {
      assignmentId,
      attemptId: marking.attemptId,
      markingId: marking.id,
      fileHash: file.hash,
      paperHash: file.aboutHash ?? file.hash,
      marker: marking.marker,
      channel: channelOn(await mediaTypeOf(writing, file, files), file.role),
      // A copy that was taken along is given back by whoever was asked about it.
      ...(isOwnCopy
        ? { people: peopleIn(remarksIn(workspace, assignmentId)), strangers: 'tutor' }
        : { people: [] }),
      rubric,
    };
    if (file.read !== null) {
      await putPaperWithRemarks(
        writing,
        stored,
        file.bytes,
        file.read,
        isOwnCopy ? { ...context, marker: null } : context,
      );
      continue;
    }
    writing.putBytes(file.hash, file.bytes);
    await writing.put('files', stored);
    for (const remark of remarksOfMarks(file.marks, context).remarks) await writing.put('remarks', remark);
    if (file.transcript !== null) await addTranscript(writing, file.aboutHash, file.transcript);
  }
}

/** The media type of what a file's remarks are on: of itself, or of what it is about. */
async function mediaTypeOf(
  writing: Writing,
  { aboutHash, mediaType }: FileToTake,
  files: readonly FileToTake[],
): Promise<string> {
  if (aboutHash === null) return mediaType;
  const together = files.find(({ hash }) => hash === aboutHash);
  return together?.mediaType ?? (await writing.get('files', aboutHash))?.mediaType ?? '';
}

/** The latest marking of an assignment; one of the student's own where the school gave none. */
async function markingFor(
  workspace: Workspace,
  writing: Writing,
  assignmentId: AssignmentId,
  files: readonly FileToTake[],
  marks: readonly Mark[],
): Promise<Marking> {
  const own = <T extends { assignmentId: string }>(list: readonly T[]) =>
    list.filter((one) => one.assignmentId === assignmentId);
  const markings = own(await writing.all('markings'));
  const latest = markings.toSorted((x, y) => (x.at < y.at ? -1 : 1)).at(-1);
  if (latest !== undefined) return latest;
  const attempts = own(await writing.all('attempts'));
  const at = workspace.now();
  const attempt = attempts.toSorted((x, y) => x.number - y.number).at(-1) ?? {
    ...blankAttempt(onlyAttemptId(assignmentId), assignmentId, 1, at),
    outside: false,
    atKnown: false,
  };
  if (attempts.length === 0) await writing.put('attempts', attempt);
  const facts = files.flatMap(({ role, name, mediaType, bytes, hash }): FileFact[] =>
    role === 'marked' || role === 'quiz' || role === 'posts'
      ? [{ role, name, mediaType, size: bytes.length, hash, aboutHash: null, announced: {} }]
      : [],
  );
  const id = fileMarkingId(assignmentId);
  const marking: Marking = {
    ...blankMarking(id, assignmentId, attempt.id, at, markerOf(marks)),
    files: facts,
  };
  await writing.put('markings', marking);
  return marking;
}

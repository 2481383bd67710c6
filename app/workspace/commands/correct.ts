import type { Workspace } from '../workspace.ts';
import { quoteOf } from '#core/text/quotation.ts';
import type { Span } from '#core/text/span.ts';
import type { AuthorRole } from '#core/model/facts.ts';
import type { AssignmentId } from '#core/model/ids.ts';
import type { Remark, Target } from '#core/model/remark.ts';
import type { FileRole, StoredFile } from '#core/model/work.ts';
import type { Anchor } from '#formats/marked-paper.ts';
import { wordingMark } from '#core/reading/need.ts';
import { reader } from '../../workers/clients.ts';
import * as words from '../../words/en.ts';
import type { ReadPaper } from '../storage/records.ts';
import type { Writing } from '../storage/transact.ts';
/** Puts right what was taken in wrongly: the assignment or role of a file, who somebody is, where a remark hangs. */

/** Everything about a remark that names its assignment. */
const BY_REMARK = ['readings', 'judgements'] as const;

async function moveRemark(
  writing: Writing,
  remark: Remark,
  to: { assignmentId: AssignmentId; attemptId: Remark['attemptId']; markingId: Remark['markingId'] },
): Promise<void> {
  await writing.put('remarks', { ...remark, ...to });
  for (const store of BY_REMARK) {
    const own = await writing.get(store, remark.id);
    if (own !== null) await writing.put(store, { ...own, assignmentId: to.assignmentId });
  }
  for (const query of await writing.all('queries'))
    if (query.about?.remarkId === remark.id)
      await writing.put('queries', { ...query, assignmentId: to.assignmentId });
  for (const task of await writing.all('tasks'))
    if (task.about.length > 0 && task.about.every(({ remarkId }) => remarkId === remark.id))
      await writing.put('tasks', { ...task, assignmentId: to.assignmentId });
}

/** Moves a file to another assignment, with its remarks and all that was decided about them. */
export function moveFile(workspace: Workspace, file: StoredFile, to: AssignmentId): Promise<void> {
  return workspace.run(to, words.undo.moved(file.name), async (writing) => {
    const markings = (await writing.all('markings')).filter((marking) => marking.assignmentId === to);
    const attempts = (await writing.all('attempts')).filter((attempt) => attempt.assignmentId === to);
    const marking = markings.toSorted((x, y) => (x.at < y.at ? -1 : 1)).at(-1);
    const attempt = attempts.toSorted((x, y) => x.number - y.number).at(-1);
    const files = (await writing.all('files')).filter(
      (one) => one.hash === file.hash || one.aboutHash === file.hash,
    );
    for (const one of files) await writing.put('files', { ...one, assignmentId: to });
    const hashes = new Set<string>(files.map(({ hash }) => hash));
    for (const remark of await writing.all('remarks'))
      if (remark.fileHash !== null && hashes.has(remark.fileHash))
        await moveRemark(writing, remark, {
          assignmentId: to,
          attemptId: marking?.attemptId ?? attempt?.id ?? remark.attemptId,
          markingId: marking?.id ?? remark.markingId,
        });
    if (file.assignmentId !== null) await removeIfEmpty(writing, file.assignmentId);
  });
}

/** An assignment that was only made for a file goes with the last file that it had. */
export async function removeIfEmpty(writing: Writing, id: AssignmentId): Promise<void> {
  const assignment = await writing.get('assignments', id);
  const isHere = (one: { assignmentId: string | null }) => one.assignmentId === id;
  if (assignment?.courseId !== null || (await writing.all('files')).some(isHere)) return;
  await writing.remove('assignments', id);
  for (const store of ['attempts', 'markings'] as const)
    for (const one of await writing.all(store)) if (isHere(one)) await writing.remove(store, one.id);
}

/** Says what a file is of its assignment. */
export function setFileRole(workspace: Workspace, file: StoredFile, role: FileRole): Promise<void> {
  return workspace.run(file.assignmentId ?? '', words.undo.roleOf(file.name), async (writing) => {
    await writing.put('files', { ...file, role });
  });
}

/** Says that two names are one person; null parts them again. */
export function joinPeople(workspace: Workspace, name: string, sameAs: string | null): Promise<void> {
  return changePerson(workspace, name, { sameAs });
}

export function setPersonRole(workspace: Workspace, name: string, role: AuthorRole | null): Promise<void> {
  return changePerson(workspace, name, { role });
}

/** Changes to people are about all assignments; they are undone where they were made. */
export const PEOPLE_HISTORY = 'people';

function changePerson(
  workspace: Workspace,
  name: string,
  change: { sameAs?: string | null; role?: AuthorRole | null },
): Promise<void> {
  return workspace.run(PEOPLE_HISTORY, words.undo.person(name), async (writing) => {
    const known = (await writing.get('people', name)) ?? { name, sameAs: null, role: null };
    await writing.put('people', { ...known, ...change });
  });
}

/** A place takes the room of what said that there is none; before a criterion it comes first; what has one keeps it. */
function withPlace(targets: readonly Target[], target: Target): Target[] {
  const none = targets.some(({ kind }) => kind === 'unplaced' || kind === 'whole');
  return none
    ? targets.map((one) => (one.kind === 'unplaced' || one.kind === 'whole' ? target : one))
    : targets[0].kind === 'criterion'
      ? [target, ...targets]
      : [...targets];
}

/** The place of a span of a paper's text, as a target that can be shown on the paper; null where it isn't found. */
export async function placeOfSpan(
  workspace: Workspace,
  paper: ReadPaper,
  span: Span,
): Promise<{ target: Target; anchor: Anchor | null } | null> {
  const bytes = await workspace.fileBytes(paper.hash);
  if (bytes === null) return null;
  const { exact, prefix, suffix } = quoteOf(paper.paper.text, span);
  const annotation = {
    type: 'Annotation',
    body: '',
    target: { source: paper.hash, selector: { type: 'TextQuoteSelector', exact, prefix, suffix } },
  };
  const written = new TextEncoder().encode(JSON.stringify(annotation));
  const read = await reader.ask((worker) => worker.readRemarksOnto(written, bytes));
  if (read.kind === 'unreadable') return null;
  const [mark] = read.value;
  const [target] = mark.targets;
  return target.kind === 'words' ? { target, anchor: mark.anchor } : null;
}

/** Puts a remark where the student says. */
export function placeRemark(
  workspace: Workspace,
  remark: Remark,
  target: Target,
  anchor: Anchor | null,
  paper: ReadPaper,
): Promise<void> {
  return workspace.run(remark.assignmentId, words.undo.placed, async (writing) => {
    const stored = await writing.get('remarks', remark.id);
    if (stored === null) return;
    const next = {
      ...stored,
      targets: withPlace(stored.targets, target),
      textAt: anchor?.from ?? null,
      paperHash: paper.hash,
    };
    await writing.put('remarks', next);
    // The student put it there and knows what it says: what was read stays read.
    const reading = await writing.get('readings', remark.id);
    if (reading !== null && reading.of === wordingMark(stored))
      await writing.put('readings', { ...reading, of: wordingMark(next) });
    if (anchor !== null) writing.putPaper({ ...paper, anchors: { ...paper.anchors, [remark.id]: anchor } });
  });
}

import type { Workspace } from '../workspace.ts';
import type { FileFact, Marking } from '#core/model/facts.ts';
import type { FileHash } from '#core/model/ids.ts';
import { placeOf, quotedWords, type Remark } from '#core/model/remark.ts';
import type { Anchor, Mark, MarkedPaper } from '#formats/marked-paper.ts';
import { channelOn, remarksOfMarks, type MarkContext } from '#formats/remarks.ts';
import type { Cue } from '#formats/sound/read-vtt.ts';
import { markOfRecording, spokenIn } from '#formats/sound/recording-mark.ts';
import { putRemark, withdrawOthers } from './facts.ts';
import { storedFile } from './fetching.ts';
import { addTranscript, readPaperOf } from '../commands/read-files.ts';
import type { Writing } from '../storage/transact.ts';
/** Files that came back with a marking: what they hold, and taking them in. */

/** A file that was fetched and read. */
export type ReturnedContent =
  | { readonly kind: 'paper'; readonly read: MarkedPaper }
  | { readonly kind: 'remarks'; readonly marks: readonly Mark[] }
  | { readonly kind: 'recording' }
  | { readonly kind: 'transcript'; readonly cues: readonly Cue[] }
  /** Kept as it is: nothing in it is a remark. */
  | { readonly kind: 'file' };

function likeness(x: Remark, y: Remark): number {
  if (x.author.name !== y.author.name || x.kind !== y.kind) return 0;
  const [a, b] = [placeOf(x), placeOf(y)];
  const samePlace =
    quotedWords(x) !== null ? quotedWords(x) === quotedWords(y) : JSON.stringify(a) === JSON.stringify(b);
  return (samePlace ? 2 : 0) + (x.text !== '' && x.text === y.text ? 1 : 0);
}

/**
 * A newly returned file speaks of the remarks of the one before: by its source's id, else by author and place, else by
 * text, before anything counts as new (decisions.md, Remark id). Gives the remarks with the ids they had.
 */
export function matchReturned(
  old: readonly Remark[],
  next: readonly Remark[],
): { remarks: Remark[]; idBefore: ReadonlyMap<string, Remark['id']> } {
  const nextIds = new Set<string>(next.map(({ id }) => id));
  const left = old.filter(({ id }) => !nextIds.has(id));
  const oldIds = new Set<string>(old.map(({ id }) => id));
  const idBefore = new Map<string, Remark['id']>();
  for (const wanted of [3, 2, 1])
    for (const remark of next) {
      if (oldIds.has(remark.id) || idBefore.has(remark.id)) continue;
      const at = left.findIndex((one) => likeness(one, remark) === wanted);
      if (at >= 0) idBefore.set(remark.id, left.splice(at, 1)[0].id);
    }
  return {
    remarks: next.map((remark) => ({ ...remark, id: idBefore.get(remark.id) ?? remark.id })),
    idBefore,
  };
}

/** An older form of a returned file: the same name and role, from an earlier marking of the attempt by the same hand. */
async function olderForm(writing: Writing, marking: Marking, fact: FileFact): Promise<FileHash | null> {
  const earlier = (await writing.all('markings'))
    .filter(
      (one) =>
        one.attemptId === marking.attemptId && one.marker.name === marking.marker.name && one.at < marking.at,
    )
    .toSorted((x, y) => (x.at < y.at ? 1 : -1));
  for (const { files } of earlier) {
    const found = files.find((file) => file.role === fact.role && file.name === fact.name);
    if (found !== undefined && found.hash !== fact.hash) return found.hash;
  }
  return null;
}

async function putMarks(
  writing: Writing,
  marks: readonly Mark[],
  context: MarkContext,
  older: FileHash | null,
): Promise<Readonly<Record<string, Anchor>>> {
  const { remarks, anchors } = remarksOfMarks(marks, context);
  if (older === null) {
    for (const remark of remarks) await putRemark(writing, remark);
    return anchors;
  }
  const old = (await writing.all('remarks')).filter(({ fileHash }) => fileHash === older);
  const matched = matchReturned(old, remarks);
  for (const remark of matched.remarks) await putRemark(writing, remark);
  await withdrawOthers(writing, old, matched.remarks);
  return Object.fromEntries(
    Object.entries(anchors).map(([id, anchor]) => [matched.idBefore.get(id) ?? id, anchor]),
  );
}

/** Takes in a file that came with a marking, with the remarks in it, all or nothing. */
export function takeInReturnedFile(
  workspace: Workspace,
  fact: FileFact,
  bytes: Uint8Array<ArrayBuffer>,
  content: ReturnedContent,
  marking: Marking,
): Promise<void> {
  return workspace.save(async (writing) => {
    const assignment = await writing.get('assignments', marking.assignmentId);
    const rubricId = assignment?.rubricId ?? null;
    const course = assignment?.courseId == null ? null : await writing.get('courses', assignment.courseId);
    const about = fact.aboutHash === null ? null : await writing.get('files', fact.aboutHash);
    const context: MarkContext = {
      assignmentId: marking.assignmentId,
      attemptId: marking.attemptId,
      markingId: marking.id,
      fileHash: fact.hash,
      paperHash: fact.aboutHash ?? fact.hash,
      marker: marking.marker,
      channel: channelOn(
        (about ?? fact).mediaType,
        fact.role === 'remarks' ? (about?.role ?? null) : fact.role,
      ),
      people: course?.people ?? [],
      rubric: rubricId === null ? null : await writing.get('rubrics', rubricId),
    };
    const older = await olderForm(writing, marking, fact);
    writing.putBytes(fact.hash, bytes);
    await writing.put('files', storedFile(workspace, fact, marking.assignmentId));
    switch (content.kind) {
      case 'paper': {
        const anchors = await putMarks(writing, content.read.marks, context, older);
        writing.putPaper(readPaperOf(fact.hash, content.read, anchors));
        break;
      }
      case 'remarks':
        await putMarks(writing, content.marks, context, older);
        // The paper is read again with these on it.
        if (fact.aboutHash !== null) writing.removePaper(fact.aboutHash);
        break;
      case 'recording':
        await putMarks(writing, [markOfRecording(marking.marker.name, '')], context, older);
        break;
      case 'transcript':
        await addTranscript(writing, fact.aboutHash, spokenIn(content.cues));
        break;
      case 'file':
        break;
    }
  });
}

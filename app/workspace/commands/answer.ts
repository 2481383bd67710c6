import { isGiven } from '#core/answers/given.ts';
import { answerKey } from '#core/model/own-ids.ts';
import type { AssignmentId, FileHash } from '#core/model/ids.ts';
import type {
  Draft,
  GivenAnswer,
  PickedPlace,
  PlaceInPicture,
  RemarkRef,
  StoredFile,
} from '#core/model/work.ts';
import { replyTo } from '#core/check/answered.ts';
import { decidedThings } from '#core/tally/decided.ts';
import * as words from '../../words/en.ts';
import type { Writing } from '../storage/transact.ts';
import type { Workspace } from '../workspace.ts';
import { frozenAs } from './draft.ts';

/** What the student says or shows was done about remarks, and parts of them. */

async function change(
  writing: Writing,
  assignmentId: AssignmentId,
  ref: RemarkRef,
  how: (known: GivenAnswer) => Partial<GivenAnswer>,
): Promise<void> {
  const key = answerKey(ref);
  const known = (await writing.get('answers', key)) ?? {
    ...ref,
    assignmentId,
    words: '',
    regions: [],
    places: [],
    files: [],
  };
  const next = { ...known, ...how(known) };
  if (isGiven(next)) await writing.put('answers', next);
  else await writing.remove('answers', key);
  await tickWhatIsAnswered(writing, ref.remarkId);
}

/** An answer ticks the tasks all of whose remarks have one; one that is taken away leaves them open again. */
async function tickWhatIsAnswered(writing: Writing, remarkId: string): Promise<void> {
  for (const task of await writing.all('tasks')) {
    if (!task.about.some((ref) => ref.remarkId === remarkId)) continue;
    const answered = await Promise.all(task.about.map((ref) => isAnswered(writing, ref)));
    const done = answered.every(Boolean);
    if (task.done !== done) await writing.put('tasks', { ...task, done });
  }
}

async function isAnswered(writing: Writing, ref: RemarkRef): Promise<boolean> {
  for (const key of [answerKey(ref), ref.remarkId]) {
    const given = await writing.get('answers', key);
    if (given !== null && isGiven(given)) return true;
  }
  const judgement = await writing.get('judgements', ref.remarkId);
  if (judgement === null) return false;
  const thing = decidedThings(judgement).find(({ partId }) => partId === ref.partId);
  return replyTo(judgement, ref.partId) !== '' || (thing !== undefined && thing.decision !== 'act');
}

/** Keeps in words what was done about a remark. */
export function answerInWords(
  workspace: Workspace,
  assignmentId: AssignmentId,
  ref: RemarkRef,
  text: string,
  typing?: string,
): Promise<void> {
  return workspace.run(
    assignmentId,
    words.undo.answered,
    (writing) => change(writing, assignmentId, ref, () => ({ words: text })),
    typing,
  );
}

/** Words of the draft's text as they stand. */
export interface Taken {
  readonly from: number;
  readonly to: number;
  readonly exact: string;
}

/**
 * Takes words of the draft as an answer, beside what was taken before. The text that they stand in is kept as a version.
 * @param textHash the document or file whose text it is
 */
export async function answerByWords(
  workspace: Workspace,
  draft: Draft,
  textHash: FileHash,
  ref: RemarkRef,
  taken: readonly Taken[],
): Promise<void> {
  const content = await workspace.bodies.load(textHash);
  const body = content === null ? null : await workspace.bodies.pack(content);
  await workspace.run(draft.assignmentId, words.undo.answered, async (writing) => {
    const versionId = await frozenAs(workspace, writing, draft.id, 'answered', body, textHash);
    if (versionId === null) return;
    await change(writing, draft.assignmentId, ref, ({ places }) => ({
      places: [
        ...places,
        ...taken
          .filter(({ exact }) => exact === '' || places.every((one) => one.exact !== exact))
          .map((one): PickedPlace => ({ versionId, from: one.from, to: one.to, exact: one.exact })),
      ],
    }));
  });
}

/** Takes one of the places of an answer away. */
export function withoutWords(
  workspace: Workspace,
  assignmentId: AssignmentId,
  ref: RemarkRef,
  { versionId, from, to }: PickedPlace,
): Promise<void> {
  const isIt = (one: PickedPlace) => one.versionId === versionId && one.from === from && one.to === to;
  return workspace.run(assignmentId, words.undo.answerTaken, (writing) =>
    change(writing, assignmentId, ref, ({ places }) => ({ places: places.filter((one) => !isIt(one)) })),
  );
}

/**
 * Keeps a file as what answers a remark: a map, a table, a recording.
 * @param draftId what it goes along with; null where it doesn't
 */
export function answerByFile(
  workspace: Workspace,
  assignmentId: AssignmentId,
  ref: RemarkRef,
  file: StoredFile,
  bytes: Uint8Array<ArrayBuffer>,
  draftId: string | null,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.answered, async (writing) => {
    writing.putBytes(file.hash, bytes);
    if ((await writing.get('files', file.hash)) === null) await writing.put('files', file);
    const draft = draftId === null ? null : await writing.get('drafts', draftId);
    if (draft !== null && !draft.files.includes(file.hash))
      await writing.put('drafts', { ...draft, files: [...draft.files, file.hash] });
    await change(writing, assignmentId, ref, ({ files }) => ({ files: [...new Set([...files, file.hash])] }));
  });
}

/** Takes a file of an answer away; it stays with what goes, until it is taken out there. */
export function withoutFile(
  workspace: Workspace,
  assignmentId: AssignmentId,
  ref: RemarkRef,
  hash: FileHash,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.answerTaken, (writing) =>
    change(writing, assignmentId, ref, ({ files }) => ({ files: files.filter((one) => one !== hash) })),
  );
}

/** Keeps where in a new picture a remark was seen to. */
export function answerByPlace(
  workspace: Workspace,
  assignmentId: AssignmentId,
  ref: RemarkRef,
  place: PlaceInPicture,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.answered, (writing) =>
    change(writing, assignmentId, ref, ({ regions }) => ({ regions: [...regions, place] })),
  );
}

/** Takes the places of an answer in pictures away; its words stay. */
export function withoutPlaces(
  workspace: Workspace,
  assignmentId: AssignmentId,
  ref: RemarkRef,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.answered, (writing) =>
    change(writing, assignmentId, ref, () => ({ regions: [] })),
  );
}

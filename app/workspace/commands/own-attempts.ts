import type { Workspace } from '../workspace.ts';
import type { AssignmentId, Instant } from '#core/model/ids.ts';
import type { Attempt } from '#core/model/facts.ts';
import { hashOf } from '#formats/hash.ts';
import * as words from '../../words/en.ts';
import { withdrawAttempt, type Answer } from '../desk/desk-client.ts';
import { newId } from './draft.ts';
import { outsideAttemptId } from '#core/model/own-ids.ts';

/** Attempts beyond what Juncture sends: handed in elsewhere, or taken back. */

export interface HandedInFile {
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** Keeps that an attempt was handed in elsewhere, with its file if there is one. */
export async function noteOutsideAttempt(
  workspace: Workspace,
  assignmentId: AssignmentId,
  at: Instant,
  note: string,
  file: HandedInFile | null,
): Promise<void> {
  const hash = file === null ? null : await hashOf(file.bytes);
  await workspace.run(assignmentId, words.undo.outsideAttempt, async (writing) => {
    const own = (await writing.all('attempts')).filter((attempt) => attempt.assignmentId === assignmentId);
    const number = Math.max(0, ...own.map((attempt) => attempt.number)) + 1;
    const files: Attempt['files'] = [];
    if (file !== null && hash !== null) {
      const { name, mediaType, bytes } = file;
      const size = bytes.length;
      files.push({ role: 'paper', name, mediaType, size, hash, aboutHash: null, announced: {} });
      writing.putBytes(hash, bytes);
      await writing.put('files', {
        hash,
        name,
        mediaType,
        size,
        cameAt: workspace.now(),
        origin: 'dropped',
        assignmentId,
        role: 'sent',
        aboutHash: null,
      });
    }
    await writing.put('attempts', {
      id: outsideAttemptId(newId()),
      assignmentId,
      number,
      at,
      files,
      note,
      receipt: null,
      dueAt: null,
      outside: true,
      atKnown: true,
      post: null,
      items: {},
    });
  });
}

/** Takes the record of an attempt handed in elsewhere out again; what was marked stays. */
export function removeOutsideAttempt(workspace: Workspace, attempt: Attempt): Promise<void> {
  return workspace.run(attempt.assignmentId, words.undo.outsideAttempt, (writing) =>
    writing.remove('attempts', attempt.id),
  );
}

/** Asks the desk to take an attempt back; it stays on record and counts no more. */
export async function takeAttemptBack(workspace: Workspace, attempt: Attempt): Promise<Answer<unknown>> {
  const answer = await withdrawAttempt(attempt.assignmentId, attempt.id, workspace.caller);
  if (answer.kind === 'ok') await workspace.save((writing) => writing.put('withdrawals', answer.value));
  return answer;
}

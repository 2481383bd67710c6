import { revise } from '../../../words/revising.ts';
import { toast } from 'sonner';
import { isAnotherText } from '#core/check/another-text.ts';
import type { StoredFile } from '#core/model/work.ts';
import { hashOf } from '#formats/hash.ts';
import { readPaperOf } from '../../../workspace/commands/read-files.ts';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import { bytesOfFile } from '../../../shared/files/file-bytes.ts';
import * as words from '../../../words/en.ts';
import { reader, texts } from '../../../workers/clients.ts';
import { bringInFile } from '../../../workspace/commands/draft.ts';
import type { Workspace } from '../../../workspace/workspace.ts';

/** A file that was read and can be the next version of the draft. */
export interface ComingFile {
  readonly file: StoredFile;
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** The share of the marked paper's words that stand in it, where it is so small that it may be the wrong file; else null. */
  readonly sharesOnly: number | null;
}

/** Reads a chosen file; null where it can't be a draft, which is told. */
export async function readComing(
  workspace: Workspace,
  { view, marked }: Pick<AssignmentOutlet, 'view' | 'marked'>,
  chosen: File,
): Promise<ComingFile | null> {
  if (chosen.size === 0) {
    toast.error(words.newFiles.fileEmpty(chosen.name));
    return null;
  }
  const bytes = await bytesOfFile(chosen);
  if (typeof bytes === 'string') {
    toast.error(bytes);
    return null;
  }
  const read = await reader.ask((worker) => worker.readFile(chosen.name, bytes, null, null));
  if (read.kind === 'unreadable') {
    toast.error(words.unreadable[read.reason](chosen.name, read.detail), { duration: 15_000 });
    return null;
  }
  if (read.value.kind !== 'paper' || read.value.paper.paper.text === '') {
    toast.error(revise.noText(chosen.name), { duration: 15_000 });
    return null;
  }
  const { paper, mediaType } = read.value;
  const hash = await hashOf(bytes);
  const file: StoredFile = {
    hash,
    name: chosen.name,
    mediaType,
    size: bytes.length,
    cameAt: workspace.now(),
    origin: 'dropped',
    assignmentId: view.assignment.id,
    role: 'version',
    aboutHash: null,
  };
  await workspace.save((writing) => {
    writing.putPaper(readPaperOf(hash, paper, {}));
    return Promise.resolve();
  });
  const share =
    marked === null ? 1 : await texts.ask((worker) => worker.shareKept(marked.paper, paper.paper));
  return { file, bytes, sharesOnly: isAnotherText(share) ? share : null };
}

/** Makes it the draft. */
export async function takeComing(
  workspace: Workspace,
  { view, work }: Pick<AssignmentOutlet, 'view' | 'work'>,
  { file, bytes }: ComingFile,
): Promise<void> {
  const attempt = view.draft?.attemptNumber ?? view.attempts.length + 1;
  const startedFrom = work.markedFile?.hash ?? null;
  await bringInFile(workspace, view.assignment.id, attempt, startedFrom, file, bytes);
  toast(revise.broughtIn(file.name));
}

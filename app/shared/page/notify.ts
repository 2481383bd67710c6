import type { Undone, Workspace } from '../../workspace/workspace.ts';
import { saidBy } from '../remark/said.ts';
import { toast } from 'sonner';
import * as words from '../../words/en.ts';
import { isStorageRefusal } from '../../workspace/storage/refusal.ts';

/** Takes back the last change of an assignment, or of another scope, and says what it was and which remark it was about. */
export async function undoAndTell(workspace: Workspace, scope: string): Promise<void> {
  const moved = await workspace.undoLast(scope);
  const again = { label: words.undo.redo, onClick: () => void redoAndTell(workspace, scope) };
  if (moved.kind === 'done') toast(words.undo.undone(told(workspace, moved)), { action: again });
  else toast(moved.kind === 'nothing' ? words.undo.nothing : words.undo.changedSince);
}

/** Does again what was taken back last, and says what. */
export async function redoAndTell(workspace: Workspace, scope: string): Promise<void> {
  const moved = await workspace.redoNext(scope);
  if (moved.kind === 'done') toast(words.undo.redone(told(workspace, moved)));
  else toast(moved.kind === 'nothing' ? words.undo.nothingAgain : words.undo.changedSince);
}

/** What was done, and the beginning of the remark that it was done about. */
function told({ records }: Workspace, { label, remarkId }: Extract<Undone, { kind: 'done' }>): string {
  const remark = records.remarks.get(remarkId ?? '');
  return remark === undefined ? label : words.undo.about(label, beginningOf(saidBy(remark)));
}

const BEGINNING_CHARACTERS = 48;

function beginningOf(text: string): string {
  const line = text.replaceAll(/\s+/g, ' ').trim();
  if (line.length <= BEGINNING_CHARACTERS) return line;
  const cut = line.slice(0, BEGINNING_CHARACTERS);
  return `${cut.slice(0, Math.max(cut.lastIndexOf(' '), 20))} …`;
}

/**
 * Says that nothing was taken in: the storage refused it, or something of ours broke, which is then seen where faults are
 * looked for.
 */
export function tellNotTaken(error: unknown): void {
  const refused = isStorageRefusal(error);
  toast.error(refused ? words.takeIn.notSaved : words.takeIn.fault(String(error)), { duration: 15_000 });
  if (!refused) console.error(error);
}

/** Gives a file to the browser to save. */
export function offerFile(name: string, bytes: Uint8Array<ArrayBuffer>, type: string): void {
  const url = URL.createObjectURL(new Blob([bytes], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

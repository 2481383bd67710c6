import type { Workspace } from '../workspace/workspace.ts';
import { toast } from 'sonner';
import { words } from '../words/en.ts';
import { isStorageRefusal } from '../workspace/storage/refusal.ts';

/** Takes back the last change of an assignment and says what it was. */
export async function undoAndTell(workspace: Workspace, assignmentId: string): Promise<void> {
  const undone = await workspace.undoLast(assignmentId);
  switch (undone.kind) {
    case 'undone':
      toast(words.undo.undone(undone.label));
      break;
    case 'nothing':
      toast(words.undo.nothing);
      break;
    case 'changed since':
      toast(words.undo.changedSince);
  }
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

import { toast } from 'sonner';
import { words } from '../words/en.ts';
import { undoLast } from '../workspace/workspace.ts';

/** Takes back the last change of an assignment and says what it was. */
export async function undoAndTell(assignmentId: string): Promise<void> {
  const undone = await undoLast(assignmentId);
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

/** Gives a file to the browser to save. */
export function offerFile(name: string, bytes: Uint8Array<ArrayBuffer>, type: string): void {
  const url = URL.createObjectURL(new Blob([bytes], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

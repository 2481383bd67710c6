import { toast } from 'sonner';
import type { StoredFile } from '#core/model/work.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { undoAndTell } from '../../shared/page/notify.ts';
import * as words from '../../words/en.ts';
import { hangsOnFile, removeFile } from '../../workspace/commands/remove-file.ts';
import { SHELF_SCOPE } from '../../workspace/storage/backup.ts';
import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';

/** Asks before a file is taken out, and tells what goes with it. */
export function TakeOut({ file, onClose }: { file: StoredFile | null; onClose: () => void }) {
  const workspace = useWorkspace();
  const records = useWorkspaceState((state) => state.records);
  if (file === null) return null;
  const { files, remarks, judged, tasks, queries } = hangsOnFile(records, file);
  const takeOut = async () => {
    await removeFile(workspace, file, SHELF_SCOPE);
    onClose();
    toast(words.shelf.removed(file.name), {
      action: { label: words.shelf.undo, onClick: () => void undoAndTell(workspace, SHELF_SCOPE) },
    });
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={words.shelf.removeTitle(file.name)}
      lead={words.shelf.removeLead({
        files: files.length,
        remarks: remarks.length,
        judged,
        tasks: tasks.length,
        queries: queries.length,
      })}
    >
      <div className="flex gap-3">
        <Button look="main" onClick={() => void takeOut()}>
          {words.shelf.remove}
        </Button>
        <Button onClick={onClose}>{words.shelf.cancel}</Button>
      </div>
    </Dialog>
  );
}

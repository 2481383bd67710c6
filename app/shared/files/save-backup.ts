import { toast } from 'sonner';
import * as words from '../../words/en.ts';
import { putSetting } from '../../workspace/commands/settings.ts';
import { writeBackup } from '../../workspace/storage/backup.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { offerFile } from '../page/notify.ts';

/** Saves the workspace, or one assignment of it, as a ZIP, and says how far it is. */
export async function saveBackup(workspace: Workspace, only: string | null): Promise<void> {
  const notice = toast.loading(words.shelf.saving(0));
  try {
    const { name, bytes } = await writeBackup(workspace, {
      only,
      told: (done, of) => toast.loading(words.shelf.saving(Math.round((90 * done) / of)), { id: notice }),
    });
    offerFile(name, bytes, 'application/zip');
    toast.success(words.shelf.saved(name, words.sizeOf(bytes.length)), { id: notice });
    if (only === null) await putSetting(workspace, { name: 'lastBackup', at: workspace.now() });
  } catch (error) {
    toast.dismiss(notice);
    throw error;
  }
}

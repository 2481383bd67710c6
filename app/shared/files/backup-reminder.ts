import { toast } from 'sonner';
import * as words from '../../words/en.ts';
import { settingIn } from '../../workspace/state/settings.ts';
import type { Workspace } from '../../workspace/workspace.ts';

/** After so long much may have been decided. */
const OLD_DAYS = 14;
const DAY_MS = 86_400_000;
/** Fewer decisions than these are soon made again. */
const WORTH_KEEPING = 20;
/** When it was last reminded, on this computer. */
const REMINDED = 'juncture/reminded';

/** Reminds to save the workspace: where a good deal was decided and the last copy is old, once a day. */
export function remind(workspace: Workspace, onGo: () => void): void {
  const { records, isShown, signal } = workspace;
  if (isShown || signal.aborted || records.judgements.size < WORTH_KEEPING) return;
  const last = settingIn(records.settings, 'lastBackup')?.at ?? null;
  const days = last === null ? null : Math.floor((workspace.nowMs() - Date.parse(last)) / DAY_MS);
  if (days !== null && days < OLD_DAYS) return;
  const today = workspace.now().slice(0, 10);
  if (localStorage.getItem(REMINDED) === today) return;
  localStorage.setItem(REMINDED, today);
  toast(days === null ? words.shelf.remindNever : words.shelf.remindOld(days), {
    duration: 15_000,
    action: { label: words.shelf.toShelf, onClick: onGo },
  });
}

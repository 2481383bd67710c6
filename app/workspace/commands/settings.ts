import type { Setting } from '#core/model/work.ts';
import * as words from '../../words/en.ts';
import type { Workspace } from '../workspace.ts';

/** What is set can be taken back in the place of the settings, not in that of an assignment. */
export const SETTINGS_SCOPE = 'settings';

/** Keeps something that the student set. */
export function putSetting(workspace: Workspace, setting: Setting): Promise<void> {
  return workspace.run(SETTINGS_SCOPE, words.undo.setting, (writing) => writing.put('settings', setting));
}

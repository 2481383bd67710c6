import type { Setting } from '#core/model/work.ts';
import * as words from '../../words/en.ts';
import type { Workspace } from '../workspace.ts';

/** What is set can be taken back in the place of the settings, not in that of an assignment. */
export const SETTINGS_SCOPE = 'settings';

/** Keeps something that the student set. @param scope the place in which it can be taken back */
export function putSetting(
  workspace: Workspace,
  setting: Setting,
  scope: string = SETTINGS_SCOPE,
): Promise<void> {
  return workspace.run(scope, words.undo.setting, (writing) => writing.put('settings', setting));
}

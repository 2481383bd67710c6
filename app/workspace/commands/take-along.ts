import type { AssignmentId } from '#core/model/ids.ts';
import type { TakenAlong } from '#core/model/work.ts';
import * as words from '../../words/en.ts';
import { settingIn } from '../state/settings.ts';
import type { Workspace } from '../workspace.ts';

const PLAIN: TakenAlong = { wish: '', without: [] };

/** What the student said about the pack of an assignment. */
export function packOf(settings: Workspace['records']['settings'], id: AssignmentId): TakenAlong {
  const packs = settingIn(settings, 'takeAlong')?.packs ?? {};
  return packs[id] ?? PLAIN;
}

/**
 * Changes what a pack begins with, or what of it is left out.
 * @param typing names the spell of typing that it belongs to
 */
export function changePack(
  workspace: Workspace,
  id: AssignmentId,
  change: (pack: TakenAlong) => TakenAlong,
  typing?: string,
): Promise<void> {
  return workspace.run(
    id,
    words.undo.setting,
    (writing) => {
      const { settings } = workspace.records;
      const packs = settingIn(settings, 'takeAlong')?.packs ?? {};
      return writing.put('settings', {
        name: 'takeAlong',
        packs: { ...packs, [id]: change(packOf(settings, id)) },
      });
    },
    typing,
  );
}

import type { AssignmentId } from '#core/model/ids.ts';
import type { SheetChoice } from '#core/model/look.ts';
import * as words from '../../words/en.ts';
import { settingIn } from '../state/settings.ts';
import type { Workspace } from '../workspace.ts';

const USUAL: SheetChoice = { form: 'table', by: 'what came of it', leftOut: [], helped: [], content: null };

/** How the response sheet of an assignment is written. */
export function sheetChoiceOf(settings: Workspace['records']['settings'], id: AssignmentId): SheetChoice {
  return settingIn(settings, 'responseSheet')?.of[id] ?? USUAL;
}

/** Changes how it is written, or what the student made of it. @param typing names the spell of changes that it belongs to */
export function changeSheet(
  workspace: Workspace,
  id: AssignmentId,
  change: (choice: SheetChoice) => SheetChoice,
  typing?: string,
): Promise<void> {
  return workspace.run(
    id,
    words.response.undo,
    (writing) => {
      const { settings } = workspace.records;
      const of = settingIn(settings, 'responseSheet')?.of ?? {};
      return writing.put('settings', {
        name: 'responseSheet',
        of: { ...of, [id]: change(sheetChoiceOf(settings, id)) },
      });
    },
    typing,
  );
}

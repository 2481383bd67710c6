import type { LookChoice } from '#core/model/look.ts';
import type { AssignmentId } from '#core/model/ids.ts';
import * as words from '../../words/en.ts';
import { settingIn } from '../state/settings.ts';
import type { Workspace } from '../workspace.ts';

const USUAL: LookChoice = { style: null, ignored: [], asked: [], notAsked: [] };

/** What was settled about the last look at the drafts of an assignment. */
export function lookChoiceOf(settings: Workspace['records']['settings'], id: AssignmentId): LookChoice {
  return settingIn(settings, 'lastLook')?.of[id] ?? USUAL;
}

/** Settles something about the last look. */
export function changeLook(
  workspace: Workspace,
  id: AssignmentId,
  label: string,
  change: (choice: LookChoice) => LookChoice,
): Promise<void> {
  return workspace.run(id, label, (writing) => {
    const { settings } = workspace.records;
    const of = settingIn(settings, 'lastLook')?.of ?? {};
    return writing.put('settings', {
      name: 'lastLook',
      of: { ...of, [id]: change(lookChoiceOf(settings, id)) },
    });
  });
}

/** A word that is the student's own from now on, in every text. @param scope where it can be taken back */
export function ownWord(workspace: Workspace, scope: string, word: string): Promise<void> {
  return workspace.run(scope, words.look.undo.ownWord, (writing) => {
    const known = settingIn(workspace.records.settings, 'ownWords')?.words ?? [];
    return writing.put('settings', {
      name: 'ownWords',
      words: [...new Set([...known, word.toLowerCase()])].sort(),
    });
  });
}

/** Takes a word out of the student's own again. */
export function forgetWord(workspace: Workspace, scope: string, word: string): Promise<void> {
  return workspace.run(scope, words.look.undo.ownWord, (writing) => {
    const known = settingIn(workspace.records.settings, 'ownWords')?.words ?? [];
    return writing.put('settings', { name: 'ownWords', words: known.filter((one) => one !== word) });
  });
}

/** Whether lines of the last look are marked in the draft. */
export function markLines(workspace: Workspace, scope: string, on: boolean): Promise<void> {
  return workspace.run(scope, words.look.undo.marks, (writing) =>
    writing.put('settings', { name: 'lookMarks', on }),
  );
}

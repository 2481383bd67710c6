import type { MarkKey, MarkSign, OwnTerm, RuleReference } from '#core/model/work.ts';
import { markKeyId } from '#core/model/own-ids.ts';
import * as words from '../../words/en.ts';
import type { Workspace } from '../workspace.ts';

/** The key of each hand, rule references and own terms: they are about all assignments. */

/** What is changed of them is taken back where it was changed. */
export const MARKS_SCOPE = 'marks';

/** Confirms what a sign means in an author's hand, or changes it. @param from another place it can be taken back from */
export function putMarkKey(
  workspace: Workspace,
  author: string,
  sign: MarkSign,
  told: Pick<MarkKey, 'meaning' | 'stance' | 'decision'>,
  from: string | null = null,
): Promise<void> {
  const scopes = from === null ? [MARKS_SCOPE] : [MARKS_SCOPE, from];
  return workspace.run(scopes, words.undo.markKey, (writing) =>
    writing.put('markKeys', { id: markKeyId(author, sign), author, sign, ...told }),
  );
}

export function removeMarkKey(workspace: Workspace, { id }: MarkKey): Promise<void> {
  return workspace.run(MARKS_SCOPE, words.undo.markKey, (writing) => writing.remove('markKeys', id));
}

/** Puts an entry into the list of rule references, or in place of what it was. */
export function putRuleReference(workspace: Workspace, entry: RuleReference): Promise<void> {
  return workspace.run(MARKS_SCOPE, words.undo.ruleReference, (writing) =>
    writing.put('ruleReferences', entry),
  );
}

/** Takes an entry off the list; one that came with Juncture stays away. */
export function removeRuleReference(workspace: Workspace, entry: RuleReference): Promise<void> {
  return workspace.run(MARKS_SCOPE, words.undo.ruleReference, (writing) =>
    entry.id.startsWith('first/')
      ? writing.put('ruleReferences', { ...entry, title: '' })
      : writing.remove('ruleReferences', entry.id),
  );
}

export function putOwnTerm(workspace: Workspace, term: OwnTerm): Promise<void> {
  return workspace.run(MARKS_SCOPE, words.undo.ownTerm, (writing) => writing.put('ownTerms', term));
}

export function removeOwnTerm(workspace: Workspace, term: string): Promise<void> {
  return workspace.run(MARKS_SCOPE, words.undo.ownTerm, (writing) => writing.remove('ownTerms', term));
}

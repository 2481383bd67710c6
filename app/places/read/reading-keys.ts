import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import { stances, type Decision } from '#core/model/work.ts';
import { isRead } from '#core/tally/tally.ts';
import { useKeys } from '../../shared/page/hooks.ts';
import { decideRemark, markRead, setStance, toggleCarry } from '../../workspace/commands/decide.ts';
import { confirmSuggestion } from '../../workspace/state/suggestions.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import type { ReadingSteps } from './reading-steps.ts';

interface Showing {
  readonly larger: (by: number) => void;
  readonly filter: () => void;
  readonly find: () => void;
  readonly keys: () => void;
}

/** The keys of Read: stepping, deciding what is in focus, and what is shown (interface.md, Keys). */
export function useReadingKeys(
  view: AssignmentView,
  { focused, step, nextUnread }: ReadingSteps,
  show: Showing,
): void {
  const workspace = useWorkspace();
  const once = (act: (remark: Remark) => void) => (held: boolean) => {
    if (!held && focused !== undefined) act(focused);
  };
  const decide = (decision: Decision) => once((remark) => void decideRemark(workspace, remark, decision));
  useKeys({
    n: () => step(1),
    p: () => step(-1),
    '.': nextUnread,
    a: decide('act'),
    q: decide('ask'),
    k: decide('keep'),
    d: decide('decline'),
    c: once((remark) => void toggleCarry(workspace, remark)),
    r: once((remark) => void markRead(workspace, remark, !isRead(remark, view.readings.get(remark.id)))),
    l: once((remark) => void confirmSuggestion(workspace, view, remark)),
    ...Object.fromEntries(
      stances.map((stance, i) => [
        String(i + 1),
        once((remark) => void setStance(workspace, remark, stance)),
      ]),
    ),
    '0': once((remark) => void setStance(workspace, remark, null)),
    '+': () => show.larger(1),
    '=': () => show.larger(1),
    '-': () => show.larger(-1),
    '/': show.filter,
    f: show.find,
    '?': show.keys,
  });
}

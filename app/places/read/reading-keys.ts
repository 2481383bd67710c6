import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import { stances, type Decision } from '#core/model/work.ts';
import { isRead } from '#core/tally/tally.ts';
import { useKeys } from '../../shared/page/hooks.ts';
import { carryInHand, decideInHand, sayInHand, takeNextPart } from '../../shared/remark/in-hand.ts';
import { markRead } from '../../workspace/commands/reading.ts';
import { sayWhatMoves } from '../../shared/remark/moved.ts';
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
  const decide = (decision: Decision) =>
    once((remark) => void decideInHand(workspace, view, remark, decision));
  useKeys({
    n: () => step(1),
    p: () => step(-1),
    '.': nextUnread,
    a: decide('act'),
    q: decide('ask'),
    k: decide('keep'),
    d: decide('decline'),
    c: once((remark) => void carryInHand(workspace, view, remark)),
    s: once((remark) => takeNextPart(view, remark)),
    r: once((remark) => void markRead(workspace, remark, !isRead(remark, view.readings.get(remark.id)))),
    l: once(
      (remark) => void sayWhatMoves(workspace, view, remark, confirmSuggestion(workspace, view, remark)),
    ),
    ...Object.fromEntries(
      stances.map((stance, i) => [
        String(i + 1),
        once((remark) => void sayInHand(workspace, view, remark, stance)),
      ]),
    ),
    '0': once((remark) => void sayInHand(workspace, view, remark, null)),
    '+': () => show.larger(1),
    '=': () => show.larger(1),
    '-': () => show.larger(-1),
    '/': show.filter,
    f: show.find,
    '?': show.keys,
  });
}

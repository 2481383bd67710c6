import type { AssignmentView } from '#core/assignment/view.ts';
import { policyOf } from '#core/scores/rules.ts';
import * as words from '../../words/en.ts';
import { shownPoints } from '../shown/figures.ts';
import { shownPercent } from '../shown/shown.ts';

/** How several attempts make one score, as a sentence. */
export function policyTold({ assignment, course, reachable }: AssignmentView): string {
  const policy = policyOf(assignment, course);
  switch (policy.kind) {
    case 'capped':
      return words.standing.policy.capped(
        shownPercent(policy.cap),
        reachable === null ? '' : shownPoints(reachable),
      );
    case 'recover':
      return words.standing.policy.recover(shownPercent(policy.share));
    case 'latest':
    case 'best':
    case 'mean':
      return words.standing.policy[policy.kind];
  }
}

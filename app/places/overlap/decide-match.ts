import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import type { Decision } from '#core/model/work.ts';
import type { ShownMatch } from '#core/overlap/items.ts';
import { cameBackAbout, type CameBack } from '#core/overlap/reported.ts';
import type { Span } from '#core/text/span.ts';
import * as words from '../../words/en.ts';
import { decideFound } from '../../workspace/commands/decide.ts';
import { remarkOfMatch } from '../../workspace/commands/overlap.ts';
import type { ShownOverlap } from '../../workspace/state/overlap.ts';
import type { Workspace } from '../../workspace/workspace.ts';

/** A match as it is decided about: by the remark that came back about it, else as one of its own. */
export interface AboutMatch extends CameBack {
  readonly remark: Remark;
  readonly decide: (decision: Decision) => void;
}

export function aboutMatch(
  workspace: Workspace,
  view: AssignmentView,
  shown: ShownOverlap,
  match: ShownMatch,
  placeOf: (remark: Remark) => Span | null,
): AboutMatch {
  const cameBack = cameBackAbout(match, view.remarks, placeOf);
  const { title } = shown.sources[match.source].work;
  const text = words.overlap.remarkText(match.words, title, words.overlap.advice[match.advice]);
  const own = remarkOfMatch(view, shown.paper, match, text);
  const remark = cameBack.reported ?? view.remarks.find(({ id }) => id === own.id) ?? own;
  return { ...cameBack, remark, decide: (decision) => void decideFound(workspace, remark, decision) };
}

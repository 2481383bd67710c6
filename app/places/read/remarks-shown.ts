import { useMemo } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import { inReadingOrder, type Remark } from '#core/model/remark.ts';
import type { ReadPaper } from '../../workspace/storage/records.ts';
import { passes } from '../../shared/remark/filter.ts';
import { flowingPaper } from './flowing.ts';
import { paperShowing, remarksIn } from './materials.ts';
import type { ReadingPlace } from './reading-place.ts';
import type { ReadingState } from './reading-state.ts';
import { useShownPaper } from './replaced.ts';
import { useMatchesOn } from './together.ts';

export interface RemarksShown {
  /** The paper as it is drawn; null where the material is none, or is not read yet. */
  readonly paper: ReadPaper | null;
  /** Whether a PDF is shown as text that flows. */
  readonly flows: boolean;
  /** Another for each paper that is opened, the same while one is replaced by its changed form. */
  readonly paperKey: string;
  /** Every remark of the material, in the order in which it is read. */
  readonly all: readonly Remark[];
  /** Those that pass the filter, and the one in focus: a link to it leads there whatever is filtered. */
  readonly passing: readonly Remark[];
  /** Whether the matches of a report can stand with the remarks. */
  readonly mayJoin: boolean;
}

/** What Read shows of a material: the paper, and which remarks stand beside it. */
export function useRemarksShown(
  view: AssignmentView,
  state: ReadingState,
  { material, papers, file, focusedId }: ReadingPlace,
): RemarksShown {
  const { paper: kept, older, key } = useShownPaper(view.assignment.id, file, papers);
  const { filter } = state;
  const shown = useMemo(() => {
    const now = remarksIn(view, material, file);
    if (older === null || file === null) return now;
    // What is new in a changed paper comes with its remarks; until then those of the older form stand.
    const standing = now.length > 0 ? now : remarksIn(view, material, { ...file, hash: older });
    return kept?.layout ? standing.filter(({ anchorId }) => anchorId in kept.anchors) : standing;
  }, [view, material, file, older, kept]);
  const onFile = useMemo(() => paperShowing(kept, shown), [kept, shown]);
  const joined = useMatchesOn(view, material === 'paper' ? onFile : null);
  const together = state.together && joined.matches.length > 0;
  const all = useMemo(
    () => inReadingOrder([...shown.map(({ remark }) => remark), ...(together ? joined.matches : [])]),
    [shown, together, joined.matches],
  );
  const passing = useMemo(
    () => all.filter((remark) => remark.id === focusedId || passes(view, remark, filter)),
    [all, view, filter, focusedId],
  );
  const asPages = together ? joined.paper : onFile;
  const paper = useMemo(
    () => (asPages?.kind === 'pdf' && state.flowing ? flowingPaper(asPages) : asPages),
    [asPages, state.flowing],
  );
  return { paper, flows: paper !== asPages, paperKey: key, all, passing, mayJoin: joined.matches.length > 0 };
}

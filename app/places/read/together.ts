import { useMemo } from 'react';
import type { Remark } from '#core/model/remark.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { usePaper } from '../../workspace/state/papers.ts';
import type { ReadPaper } from '../../workspace/storage/records.ts';

const NONE: readonly Remark[] = [];

/**
 * The matches of the overlap report on a paper with the same words as the one that they were found in, and the paper
 * with their places; none where the papers differ.
 */
export function useMatchesOn(
  view: AssignmentView,
  paper: ReadPaper | null,
): { readonly matches: readonly Remark[]; readonly paper: ReadPaper | null } {
  const found = useMemo(() => view.remarks.filter(({ channel }) => channel === 'overlap'), [view.remarks]);
  const other = usePaper(found.at(0)?.paperHash ?? null);
  return useMemo(() => {
    if (paper === null || other === null || !haveSameWords(paper, other)) return { matches: NONE, paper };
    const matches = found
      .filter(({ paperHash }) => paperHash === other.hash)
      .map((remark) => ({ ...remark, paperHash: paper.hash }));
    return { matches, paper: { ...paper, anchors: { ...other.anchors, ...paper.anchors } } };
  }, [found, other, paper]);
}

function haveSameWords(paper: ReadPaper, other: ReadPaper): boolean {
  return paper.kind === other.kind && paper.paper.text === other.paper.text;
}

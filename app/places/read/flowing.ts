import { layoutOfPaper } from '#core/paper/layout.ts';
import type { ReadPaper } from '../../workspace/storage/records.ts';

/**
 * A PDF as text that flows in the width there is, in reading order. What hangs on no words of its own stands at the
 * beginning of the paragraph nearest to it.
 */
export function flowingPaper(paper: ReadPaper): ReadPaper {
  return {
    ...paper,
    layout: layoutOfPaper(paper.paper),
    anchors: Object.fromEntries(
      Object.entries(paper.anchors).map(([id, anchor]) => [
        id,
        anchor.exactly ? anchor : { ...anchor, to: anchor.from },
      ]),
    ),
  };
}

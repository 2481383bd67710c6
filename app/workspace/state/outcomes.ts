import { useEffect, useMemo, useState } from 'react';
import type { Outcome } from '#core/anchors/outcome.ts';
import type { Paper } from '#core/paper/paper.ts';
import { answerOf, type Answer } from '#core/check/answered.ts';
import { texts } from '../../workers/clients.ts';
import { Superseded } from '../../workers/worker-client.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { ReadPaper } from '../storage/records.ts';

export interface LiveOutcomes {
  readonly draftId: string;
  /** The draft's text that they were computed for. */
  readonly paper: Paper;
  readonly byRemark: ReadonlyMap<string, Outcome>;
}

/**
 * Outcomes in step with a text: the newest text wins, older answers are dropped. They are never stored: the same two texts
 * give the same outcomes at any time. null while there are none.
 * @param isFollowed whether there is a marked paper, though it may still be read; without one there is nothing to follow
 */
export function useOutcomes(
  marked: ReadPaper | null,
  isFollowed: boolean,
  draftId: string | null,
  newer: Paper | null,
): LiveOutcomes | null {
  const [live, setLive] = useState<LiveOutcomes | null>(null);
  useEffect(() => {
    if (marked === null || draftId === null || newer === null) return;
    let over = false;
    const anchors = Object.entries(marked.anchors);
    const passages = anchors.map(([, { from, to }]) => ({ from, to }));
    texts
      .ask((worker) => worker.follow(marked.hash, marked.paper, newer, passages), { latestOf: 'outcomes' })
      .then((outcomes) => {
        if (over) return;
        const byRemark = new Map(anchors.map(([id], index) => [id, outcomes[index]]));
        setLive({ draftId, paper: newer, byRemark });
      })
      .catch((error: unknown) => {
        // The newer text is on its way.
        if (!(error instanceof Superseded)) throw error;
      });
    return () => {
      over = true;
    };
  }, [marked, draftId, newer]);
  const bare = useMemo(
    (): LiveOutcomes | null =>
      isFollowed || draftId === null || newer === null
        ? null
        : { draftId, paper: newer, byRemark: new Map() },
    [isFollowed, draftId, newer],
  );
  const isCurrent = marked !== null && newer !== null && live?.draftId === draftId;
  return isCurrent ? live : bare;
}

/** For each remark whether it has its answer. */
export function answersOf(view: AssignmentView, live: LiveOutcomes | null): Map<string, Answer> {
  const tasks = view.tasks.map((planned) => planned.task);
  return new Map(
    view.remarks.map((remark) => [
      remark.id,
      answerOf(
        remark,
        view.judgements.get(remark.id),
        tasks,
        view.queries,
        live?.byRemark.get(remark.id) ?? null,
        view.given.get(remark.id) ?? null,
      ),
    ]),
  );
}

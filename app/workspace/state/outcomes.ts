import { useEffect, useMemo, useState } from 'react';
import { mostChanged, type Outcome } from '#core/anchors/outcome.ts';
import type { Found } from '#core/answers/find.ts';
import { pickIn, type PickNow } from '#core/answers/picks.ts';
import { LIKELY, type Proposal } from '#core/answers/propose.ts';
import { soughtOf } from '#core/answers/sought.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { answerOf, type Answer } from '#core/check/answered.ts';
import type { FileHash } from '#core/model/ids.ts';
import type { GivenAnswer, PickedPlace } from '#core/model/work.ts';
import { paperOf, type Paper } from '#core/paper/paper.ts';
import { squeeze } from '#core/text/squeeze.ts';
import { texts } from '../../workers/clients.ts';
import { Superseded } from '../../workers/worker-client.ts';
import type { ReadPaper } from '../storage/records.ts';
import { useWorkspace } from '../use-workspace.ts';
import type { Workspace } from '../workspace.ts';
import { textOfVersion, type DraftText } from './draft-text.ts';

export interface LiveOutcomes {
  readonly draftId: string;
  /** The draft's text that they were computed for, and what it was made from: a document or a file. */
  readonly paper: Paper;
  readonly textHash: FileHash;
  readonly byRemark: ReadonlyMap<string, Outcome>;
  /** What may answer each remark or part, by `answerKey`, likeliest first. */
  readonly proposals: ReadonlyMap<string, readonly Proposal[]>;
  /** What became of the words that were taken as answers, by the very picks. */
  readonly picks: ReadonlyMap<PickedPlace, PickNow>;
}

const NOTHING_MARKED = paperOf([]);

/**
 * Outcomes and proposals in step with a text: the newest text wins, older answers are dropped. They are never stored: the same
 * two texts and decisions give the same at any time. null while there are none.
 * @param isFollowed whether there is a marked paper, though it may still be read; without one all of the draft is new
 */
export function useOutcomes(
  work: AssignmentView,
  marked: ReadPaper | null,
  isFollowed: boolean,
  draftId: string | null,
  text: DraftText | null,
): LiveOutcomes | null {
  const workspace = useWorkspace();
  const [live, setLive] = useState<LiveOutcomes | null>(null);
  const { remarks, judgements, sayings, given } = work;
  const sought = useMemo(() => {
    const about =
      marked === null
        ? null
        : { hash: marked.hash, squeezed: squeeze(marked.paper.text), anchors: marked.anchors };
    return soughtOf(remarks, { judgements, sayings }, about);
  }, [remarks, judgements, sayings, marked]);
  useEffect(() => {
    if ((marked === null && isFollowed) || draftId === null || text === null) return;
    let over = false;
    const { paper, hash } = text;
    const older = marked?.paper ?? NOTHING_MARKED;
    const find = texts.ask((worker) => worker.find(marked?.hash ?? '', older, paper, sought), {
      latestOf: 'outcomes',
    });
    Promise.all([find, picksIn(workspace, given, paper)])
      .then(([found, picks]) => {
        if (!over) setLive({ draftId, paper, textHash: hash, ...byRemarkOf(found), picks });
      })
      .catch((error: unknown) => {
        // The newer text is on its way.
        if (!(error instanceof Superseded)) throw error;
      });
    return () => {
      over = true;
    };
  }, [workspace, marked, isFollowed, draftId, text, sought, given]);
  return text !== null && live?.draftId === draftId ? live : null;
}

function byRemarkOf(found: ReadonlyMap<string, Found>): Pick<LiveOutcomes, 'byRemark' | 'proposals'> {
  const byRemark = [...found].flatMap(([id, { outcomes }]) => {
    const outcome = mostChanged(outcomes);
    return outcome === null ? [] : [[id, outcome] as const];
  });
  return {
    byRemark: new Map(byRemark),
    proposals: new Map([...found].map(([key, { proposals }]) => [key, proposals])),
  };
}

/** What became of the words that were taken as answers: those that read otherwise now are followed from their versions. */
async function picksIn(
  workspace: Workspace,
  given: ReadonlyMap<string, GivenAnswer>,
  paper: Paper,
): Promise<Map<PickedPlace, PickNow>> {
  const now = new Map<PickedPlace, PickNow>();
  for (const { places } of given.values())
    for (const pick of places) {
      const found = pickIn(paper, pick, null);
      now.set(pick, found.stands ? found : pickIn(paper, pick, await textOfPick(workspace, pick)));
    }
  return now;
}

async function textOfPick(workspace: Workspace, { versionId }: PickedPlace): Promise<Paper | null> {
  const version = workspace.records.versions.get(versionId);
  return version === undefined ? null : textOfVersion(workspace, version);
}

/** For each remark whether it has its answer. */
export function answersOf(view: AssignmentView, live: LiveOutcomes | null): Map<string, Answer> {
  const done = {
    tasks: view.tasks.map((planned) => planned.task),
    queries: view.queries,
    given: view.given,
    isLikely: (key: string) => (live?.proposals.get(key)?.at(0)?.likely ?? 0) >= LIKELY,
  };
  return new Map(
    view.remarks.map((remark) => [remark.id, answerOf(remark, view.judgements.get(remark.id), done)]),
  );
}

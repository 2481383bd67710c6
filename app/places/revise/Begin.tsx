import { useState } from 'react';
import { revise } from '../../words/revising.ts';
import { stationOf } from '#core/assignment/line.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { StationNotice } from '../../shared/line/StationNotice.tsx';
import type { AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import * as words from '../../words/en.ts';
import { beginDraft } from '../../workspace/commands/draft.ts';
import type { ReadPaper } from '../../workspace/storage/records.ts';
import { reader } from '../../workers/clients.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { draftFrom } from '#core/paper/begin-draft.ts';
import { BringIn } from './file/BringIn.tsx';
import { draftFromFile } from './file/file-as-draft.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';

/** The ways to begin: from the paper that was marked, here or on the draft stage, or from nothing. */
export function Begin({ outlet }: { outlet: AssignmentOutlet }) {
  const { view, work, marked } = outlet;
  const workspace = useWorkspace();
  const attempt = view.attempts.length + 1;
  const [opening, setOpening] = useState(false);
  const main = stationOf(view, 'revise').is === 'do';
  const ofStage = view.markedFile === null;
  const beginEmpty = () => void beginDraft(workspace, view.assignment.id, attempt, null, draftFrom([]));
  return (
    <div className="mx-auto grid max-w-2xl justify-items-start gap-4 p-8 max-md:p-4">
      <StationNotice view={view} station="revise" />
      {work.markedFile === null ? (
        <p>{revise.fromNothingLead}</p>
      ) : (
        <p>{ofStage ? revise.beginFromStage : revise.beginLead}</p>
      )}
      <div className="flex flex-wrap gap-3">
        {work.markedFile !== null && (
          <Button
            look={main ? 'main' : 'plain'}
            disabled={marked === null || opening}
            onClick={() => {
              if (marked === null) return;
              setOpening(true);
              void beginFromMarked(workspace, view, attempt, marked).finally(() => setOpening(false));
            }}
          >
            {marked === null || opening ? words.reading.opening : revise.begin}
          </Button>
        )}
        <Button look={main && work.markedFile === null ? 'main' : 'plain'} onClick={beginEmpty}>
          {revise.beginEmpty}
        </Button>
      </div>
      <p>{revise.elsewhereLead}</p>
      <BringIn
        outlet={outlet}
        label={revise.bringIn}
        className="relative inline-flex min-h-9 cursor-pointer items-center rounded-md border border-rule-strong/60 bg-surface px-3 py-1 font-semibold focus-within:outline-2 focus-within:outline-accent hover:border-ink"
      />
    </div>
  );
}

/** Begins with the structure that the file of the marked paper has, or shows on its pages. */
async function beginFromMarked(
  workspace: Workspace,
  { assignment }: AssignmentOutlet['view'],
  attempt: number,
  { hash, kind, paper }: ReadPaper,
): Promise<void> {
  const bytes = kind === 'picture' ? null : await workspace.fileBytes(hash);
  const read = bytes === null ? null : await reader.ask((worker) => worker.readAsDraft(bytes));
  const content =
    read?.kind === 'read'
      ? (await draftFromFile(workspace, assignment.id, read.value)).content
      : draftFrom(paper.blocks);
  await beginDraft(workspace, assignment.id, attempt, hash, content);
}
